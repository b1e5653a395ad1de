"""The preparation list in words, for page and report."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.core.body.preparation import total
from hakutsu.reckoning import Reckoning
from hakutsu.report.body_section import cost_words, money
from hakutsu.report.sections import Making, report_section


@dataclass(frozen=True, slots=True)
class OrderedRow:
    """A job as it is ordered: what, where, and what it costs with both ends."""

    words: str
    places: str
    cost: str


@dataclass(frozen=True, slots=True)
class PreparationList:
    """All jobs, the dearest first, their sum, and the rate their labour is reckoned at."""

    rows: tuple[OrderedRow, ...]
    total: str
    rate: str

    @property
    def empty(self) -> bool:
        """True where nothing wants doing."""
        return not self.rows


def preparation_list(reckoning: Reckoning) -> PreparationList:
    """Gather the list."""
    ordered, terms = reckoning.preparation, reckoning.terms
    rows = tuple(
        OrderedRow(one.words, "; ".join(terms.place(key) for key in one.places), cost_words(reckoning, one.cost))
        for one in ordered
    )
    rate = money(reckoning, float(reckoning.settings.labour_rate))
    return PreparationList(rows, cost_words(reckoning, total(ordered)), rate)


@report_section("preparation", 112, "_preparation.html")
def _preparation(making: Making) -> PreparationList:
    """What anyone would do to make it right."""
    return preparation_list(making.reckoning)
