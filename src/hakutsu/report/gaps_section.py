"""What nobody looked at, counted as loudly as what was found."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from hakutsu.dossier.coverage import Covered, parts_covered
from hakutsu.report.sections import Making, report_section

MOST_NAMES = 8
OWN_LIST = ("functions", "under")  # their sections name what is open


@dataclass(frozen=True, slots=True)
class Gap:
    """One station: how much of what was expected is open, and what, where its own section does not say."""

    station: str
    open: int
    expected: int
    names: str


@dataclass(frozen=True, slots=True)
class Gaps:
    """Every station with something open, and the sum."""

    stations: list[Gap]
    open: int
    expected: int

    @property
    def empty(self) -> bool:
        """True when everything that was expected was looked at or limited."""
        return not self.open


def gaps_section(making: Making) -> Gaps:
    """Count what is open, station by station."""
    dossier, terms = making.reckoning.dossier, making.reckoning.terms
    open_parts: dict[str, list[str]] = {}
    for _, one in parts_covered(dossier):
        if one.state is Covered.OPEN:
            open_parts.setdefault(one.check.key, []).append(one.part)
    open_parts["round"] = [one.place for one in dossier.place_coverage() if one.looked is Covered.OPEN]
    stations = [
        Gap(one.station, one.open, one.expected, _names([terms.place(key) for key in open_parts.get(one.key, ())],
                                                        own=one.key in OWN_LIST))
        for one in dossier.station_coverage()
        if one.open
    ]  # fmt: skip
    return Gaps(stations, sum(one.open for one in stations), sum(one.expected for one in dossier.station_coverage()))


def _names(names: Sequence[str], *, own: bool) -> str:
    """The first names in words, and how many more; nothing where a section of its own lists them."""
    if own or not names:
        return ""
    more = len(names) - MOST_NAMES
    return "; ".join(names[:MOST_NAMES]) + (f"; and {more} more" if more > 0 else "")


@report_section("gaps", 8, "_gaps.html")
def _gaps(making: Making) -> Gaps:
    """What nobody looked at."""
    return gaps_section(making)
