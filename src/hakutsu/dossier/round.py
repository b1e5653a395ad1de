"""Coverage by place: what is done, expected, limited or not fitted at each place, over all stations."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from hakutsu.dossier.body import BodyDossier
from hakutsu.dossier.cabin import CabinDossier
from hakutsu.dossier.corners import CornersDossier
from hakutsu.dossier.coverage import Covered, PanelCoverage
from hakutsu.dossier.engine import EngineDossier
from hakutsu.dossier.functions import FunctionsDossier
from hakutsu.dossier.general import General
from hakutsu.dossier.under import UnderDossier
from hakutsu.entries.general import NotFitted
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.vehicle.engine import expected_looks
from hakutsu.vehicle.inventory import expected_belongings
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.parts import fitted_parts
from hakutsu.vehicle.places import WHEELS, place_of_panel, places
from hakutsu.vehicle.under import fitted_zones
from hakutsu.vehicle.vocabulary import Protocol

SCREEN = "windscreen"
LAMPS_AT_KEY_ON = "key_on_lamps"
SEAT = "inside_front"
QUICK_ENGINE = ("fluid_engine_oil", "start")


class Checked(StrEnum):
    """Stations that expect a look at single panels or parts."""

    FIT = "Fit"
    GLASS = "Glass and lamps"
    TYRES = "Tyres"
    BRAKES = "Brakes"
    ENGINE = "Engine"
    FUNCTIONS = "Functions"
    UNDER = "Underside"
    CABIN = "Cabin"


@dataclass(frozen=True, slots=True)
class PartCoverage:
    """A look at one panel or part that a station expects."""

    station: Checked
    part: str
    state: Covered


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
        *(_of_parts(station, places_covered) for station in Checked),
    ]


def _of_parts(station: Checked, places_covered: list[PlaceCoverage]) -> StationCoverage:
    states = [part.state for place in places_covered for part in place.parts if part.station is station]
    return StationCoverage(station, len(states), states.count(Covered.DONE), states.count(Covered.LIMITED), 0)


def _looked(general: General, place: str) -> tuple[Covered, str]:
    if general.looked_at(place):
        return Covered.DONE, ""
    if place in general.limits:
        body = general.limits[place].body
        return Covered.LIMITED, getattr(body, "because", "")
    return Covered.OPEN, ""


def outside_parts(
    vehicle: VehicleDescription, body: BodyDossier, general: General, protocol: Protocol
) -> list[tuple[str, PartCoverage]]:
    """What the stations of the outside expect to be looked at, with the place one stands at.

    Standard and thorough want the fit of everything that opens, and every pane and lamp; quick only the windscreen.
    """
    quick, home = protocol is Protocol.QUICK, place_of_panel()
    seen_glass = {one.place for one in body.glass}
    found = []
    for key in vehicle.panel_keys():
        if panels()[key].opens and not quick:
            state = _seen(key, key in body.fits, general)
            found.append((home.get(key, ""), PartCoverage(Checked.FIT, key, state)))
    for part in fitted_parts(vehicle.body_style, vehicle.doors):
        if part.key == SCREEN or (part.group in ("pane", "lamp") and not quick):
            state = _seen(part.key, part.key in seen_glass, general)
            found.append((part.place, PartCoverage(Checked.GLASS, part.key, state)))
    return found


def corner_parts(
    vehicle: VehicleDescription, corners: CornersDossier, general: General, protocol: Protocol
) -> list[tuple[str, PartCoverage]]:
    """What the corner station expects: every tyre and brake; thorough the spare too."""
    found = []
    for part in fitted_parts(vehicle.body_style, vehicle.doors, "wheel"):
        spare = part.key not in WHEELS
        if not spare or protocol is Protocol.THOROUGH:
            seen = part.key in corners.tyres or (spare and part.key in corners.wheels)
            found.append((part.place, PartCoverage(Checked.TYRES, part.key, _seen(part.key, seen, general))))
    for part in fitted_parts(vehicle.body_style, vehicle.doors, "brake"):
        seen = part.key.replace("brake", "wheel") in corners.brakes
        found.append((part.place, PartCoverage(Checked.BRAKES, part.key, _seen(part.key, seen, general))))
    return found


def function_parts(
    vehicle: VehicleDescription, functions: FunctionsDossier, general: General, protocol: Protocol
) -> list[tuple[str, PartCoverage]]:
    """What is to be tried: quick only the lamps at key-on; else everything that is fitted."""
    quick = protocol is Protocol.QUICK
    found = []
    for one in functions.items(vehicle.doors):
        key = f"function_{one.key}"
        if not quick or one.key == LAMPS_AT_KEY_ON:
            state = _seen(key, one.key in functions.tried, general)
            found.append((one.place, PartCoverage(Checked.FUNCTIONS, key, state)))
    return found


def under_parts(
    under: UnderDossier, separate_frame: bool, general: General, protocol: Protocol
) -> list[tuple[str, PartCoverage]]:
    """Every zone of the underside; quick asks for none."""
    if protocol is Protocol.QUICK:
        return []
    found = []
    for key, zone in fitted_zones(separate_frame=separate_frame).items():
        look = under.zones.get(key)
        hidden = look is not None and bool(look.body.not_visible)
        state = Covered.LIMITED if hidden else _seen(key, look is not None, general)
        found.append((zone.place, PartCoverage(Checked.UNDER, key, state)))
    return found


def cabin_coverage(
    cabin: CabinDossier, power: str, general: General, protocol: Protocol
) -> list[tuple[str, PartCoverage]]:
    """Every part of the cabin that is graded, what is smelt and felt, and what belongs to it; quick asks for none."""
    if protocol is Protocol.QUICK:
        return []
    belongs = [one.key for one in expected_belongings(power) if not one.optional]
    looked = {f"cabin_{one.key}": (one.place, one.key in cabin.wear) for one in cabin_parts().values()}
    looked["cabin_all_looked"] = (SEAT, bool(cabin.looks))
    looked["cabin_all_inventory"] = (SEAT, all(key in cabin.inventory for key in belongs))
    return [
        (place, PartCoverage(Checked.CABIN, key, _seen(key, seen, general))) for key, (place, seen) in looked.items()
    ]


def engine_parts(
    engine: EngineDossier, power: str, general: General, protocol: Protocol
) -> list[tuple[str, PartCoverage]]:
    """Fluids, what is under the bonnet, the run, air, battery and pack; quick asks for oil and first start only."""
    found = []
    for one in expected_looks(power, thorough=protocol is Protocol.THOROUGH):
        if protocol is not Protocol.QUICK or one.key in QUICK_ENGINE:
            key = f"engine_{one.key}"
            found.append((one.place, PartCoverage(Checked.ENGINE, key, _seen(key, engine.looked_at(one.key), general))))
    return found


def _seen(key: str, looked: bool, general: General) -> Covered:
    if looked or key in general.nothing:
        return Covered.DONE
    return Covered.LIMITED if key in general.limits else Covered.OPEN


def coverage_by_place(
    walk: list[str], film: list[PanelCoverage], general: General, outside: list[tuple[str, PartCoverage]]
) -> list[PlaceCoverage]:
    """Coverage of every place in walk order; what is reached from nowhere belongs to the first place."""
    home = place_of_panel()
    found = []
    for key in walk:
        mine = tuple(panel for panel in film if home.get(panel.panel, walk[0]) == key)
        looked, because = _looked(general, places()[key].key)
        parts_here = tuple(one for place, one in outside if place == key or (place not in walk and key == walk[0]))
        found.append(PlaceCoverage(key, looked, because, mine, parts_here))
    return found
