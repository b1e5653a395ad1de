"""The variant in words: entries, and what the report says of it."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.core.road.noticed import per_cent
from hakutsu.core.variant.tally import FeatureStands
from hakutsu.dossier.variant import VariantDossier
from hakutsu.entries.variant import FeatureSeen, Result, VariantTaken, WeakResult, WeakSeen
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.variant import VariantReckoned
from hakutsu.report.finding_wording import FoundLine, found_line
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]


@body_words.register
def _(body: VariantTaken, terms: Terms = PLAIN) -> Said:
    return "Variant", f"said to be {body.name}"


@body_words.register
def _(body: FeatureSeen, terms: Terms = PLAIN) -> Said:
    found = f", {body.found}" if body.found else ""
    return "Feature", f"{body.feature.replace('_', ' ')}: {body.result}{found}"


@body_words.register
def _(body: WeakSeen, terms: Terms = PLAIN) -> Said:
    note = f", {body.note}" if body.note else ""
    return "Weak point", f"{body.weak.replace('_', ' ')}: {body.result}{note}"


@dataclass(frozen=True, slots=True)
class VariantSection:
    """What it is said to be, the chance of it, features by how they were found, weak points, findings."""

    name: str
    chance: str
    agrees: tuple[str, ...]
    hidden: tuple[str, ...]
    unseen: tuple[str, ...]
    weak: tuple[str, ...]
    lines: tuple[FoundLine, ...]

    @property
    def empty(self) -> bool:
        """True where no variant is told, or nothing of it was looked at."""
        return not self.name


def variant_section(reckoning: Reckoning) -> VariantSection:
    """Gather the section from a reckoning."""
    state, told = reckoning.dossier[VariantDossier], reckoning.station(VariantReckoned).tally
    if state.taken is None or told is None or not (state.features or state.weak):
        return VariantSection("", "", (), (), (), (), ())

    def named(*results: Result) -> tuple[str, ...]:
        return tuple(_named(one) for one in told.features if one.seen is not None and one.seen.result in results)

    weak = tuple(
        f"{row.name}: {state.weak[row.key].body.result}" for row in state.taken.body.weak
        if row.key in state.weak and state.weak[row.key].body.result is not WeakResult.FOUND
    )  # fmt: skip
    return VariantSection(
        state.taken.body.name, per_cent(told.chance), named(Result.AGREES), named(Result.HIDDEN, Result.REPLACED),
        tuple(one.row.name for one in told.features if one.open), weak,
        tuple(found_line(one, reckoning.terms) for one in reckoning.findings_of("variant")),
    )  # fmt: skip


def _named(one: FeatureStands) -> str:
    return f"{one.row.name} ({one.row.weight})"


@report_section("variant", 110, "_variant.html")
def _variant(making: Making) -> VariantSection:
    """The variant."""
    return variant_section(making.reckoning)
