"""Coverage by place: what is done, expected, limited or not fitted at each place, over all stations."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass

from hakutsu.dossier.coverage import Check, Covered, PartCoverage, checks
from hakutsu.dossier.film_coverage import PanelCoverage
from hakutsu.dossier.general import General
from hakutsu.entries.general import NotFitted
from hakutsu.vehicle.places import place_of_panel, places


@dataclass(frozen=True, slots=True)
class PlaceCoverage:
    """One place: whether it was looked at, its panels' film, the parts to be looked at there, and how much of all that
    is open, done or limited.
    """

    place: str
    looked: Covered
    because: str
    panels: tuple[PanelCoverage, ...]
    parts: tuple[PartCoverage, ...] = ()

    @property
    def _states(self) -> list[Covered]:
        """States of all that the protocol expects here: the look, every panel to be read, every part to be seen."""
        read = [panel.state for panel in self.panels if panel.expected]
        return [self.looked, *read, *(part.state for part in self.parts)]

    @property
    def expected(self) -> int:
        """Things the protocol expects here."""
        return len(self._states)

    @property
    def done(self) -> int:
        """Of those, how many are done."""
        return sum(state in (Covered.DONE, Covered.NOTHING_TO_READ) for state in self._states)

    @property
    def limited(self) -> int:
        """Of those, how many could not be checked."""
        return self._states.count(Covered.LIMITED)

    @property
    def open(self) -> int:
        """Of those, how many nobody has touched."""
        return self.expected - self.done - self.limited


@dataclass(frozen=True, slots=True)
class StationCoverage:
    """One station: how much of what the protocol expects is done, limited or open, and what is not fitted."""

    key: str
    station: str
    expected: int
    done: int
    limited: int
    not_fitted: int

    @property
    def open(self) -> int:
        """What nobody has touched."""
        return self.expected - self.done - self.limited


def coverage_by_station(places_covered: list[PlaceCoverage], general: General, absent: int) -> list[StationCoverage]:
    """The look at every place, and film; `absent` panels are those the body style has and this vehicle does not."""
    film = [panel for place in places_covered for panel in place.panels if panel.expected]
    done = (Covered.DONE, Covered.NOTHING_TO_READ)
    looked = [place.looked for place in places_covered]
    not_fitted = sum(isinstance(kept.body, NotFitted) for at in general.at.values() for kept in at)
    return [
        StationCoverage(
            "round", "Looked over", len(looked), looked.count(Covered.DONE), looked.count(Covered.LIMITED), not_fitted
        ),
        StationCoverage(
            "film",
            "Film",
            len(film),
            sum(panel.state in done for panel in film),
            sum(panel.state is Covered.LIMITED for panel in film),
            absent,
        ),
        *(_of_parts(check, places_covered) for check in checks()),
    ]


def _of_parts(check: Check, places_covered: list[PlaceCoverage]) -> StationCoverage:
    states = [part.state for place in places_covered for part in place.parts if part.check == check]
    return StationCoverage(
        check.key, check.name, len(states), states.count(Covered.DONE), states.count(Covered.LIMITED), 0
    )


def _looked(general: General, place: str, touched: Collection[str]) -> tuple[Covered, str]:
    if general.looked_at(place) or place in touched:
        return Covered.DONE, ""
    if place in general.limits:
        body = general.limits[place].body
        return Covered.LIMITED, getattr(body, "because", "")
    return Covered.OPEN, ""


def coverage_by_place(
    walk: list[str],
    film: list[PanelCoverage],
    general: General,
    outside: list[tuple[str, PartCoverage]],
    touched: Collection[str] = (),
) -> list[PlaceCoverage]:
    """Coverage of every place in walk order; what is reached from nowhere belongs to the first place.

    `touched` are places from which something was observed, at whichever station: that is a look at the place.
    """
    home = place_of_panel()
    found = []
    for key in walk:
        mine = tuple(panel for panel in film if home.get(panel.panel, walk[0]) == key)
        looked, because = _looked(general, places()[key].key, touched)
        parts_here = tuple(one for place, one in outside if place == key or (place not in walk and key == walk[0]))
        found.append(PlaceCoverage(key, looked, because, mine, parts_here))
    return found
