"""Coverage by place: what is done, expected, limited or not fitted at each place, over all stations."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.dossier.coverage import Covered, PanelCoverage
from hakutsu.dossier.general import General
from hakutsu.entries.general import NotFitted
from hakutsu.vehicle.places import place_of_panel, places


@dataclass(frozen=True, slots=True)
class PlaceCoverage:
    """One place: whether it was looked at, its panels' film, and how much of all that is open, done or limited."""

    place: str
    looked: Covered
    because: str
    panels: tuple[PanelCoverage, ...]

    @property
    def expected(self) -> int:
        """Things the protocol expects here: the look, and every panel to be read."""
        return 1 + sum(bool(panel.expected) for panel in self.panels)

    @property
    def done(self) -> int:
        """Of those, how many are done."""
        return int(self.looked is Covered.DONE) + sum(
            bool(panel.expected) and panel.state in (Covered.DONE, Covered.NOTHING_TO_READ) for panel in self.panels
        )

    @property
    def limited(self) -> int:
        """Of those, how many could not be checked."""
        return int(self.looked is Covered.LIMITED) + sum(
            bool(panel.expected) and panel.state is Covered.LIMITED for panel in self.panels
        )

    @property
    def open(self) -> int:
        """Of those, how many nobody has touched."""
        return self.expected - self.done - self.limited


@dataclass(frozen=True, slots=True)
class StationCoverage:
    """One station: how much of what the protocol expects is done, limited or open, and what is not fitted."""

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
            "Looked over", len(looked), looked.count(Covered.DONE), looked.count(Covered.LIMITED), not_fitted
        ),
        StationCoverage(
            "Film",
            len(film),
            sum(panel.state in done for panel in film),
            sum(panel.state is Covered.LIMITED for panel in film),
            absent,
        ),
    ]


def _looked(general: General, place: str) -> tuple[Covered, str]:
    if general.looked_at(place):
        return Covered.DONE, ""
    if place in general.limits:
        body = general.limits[place].body
        return Covered.LIMITED, getattr(body, "because", "")
    return Covered.OPEN, ""


def coverage_by_place(walk: list[str], film: list[PanelCoverage], general: General) -> list[PlaceCoverage]:
    """Coverage of every place in walk order; a panel reached from nowhere belongs to the first place."""
    home = place_of_panel()
    found = []
    for key in walk:
        mine = tuple(panel for panel in film if home.get(panel.panel, walk[0]) == key)
        looked, because = _looked(general, places()[key].key)
        found.append(PlaceCoverage(key, looked, because, mine))
    return found
