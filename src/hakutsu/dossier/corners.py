"""Fold of what was seen and measured at the corners, and of graded parts."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from hakutsu.dossier.body import Seen
from hakutsu.dossier.coverage import Wanted, expects
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.corners import Brake, Fluid, Gear, Height, Pedal, Tyre, Wheel
from hakutsu.entries.envelope import Entry
from hakutsu.entries.registry import Body
from hakutsu.vehicle.parts import fitted_parts
from hakutsu.vehicle.places import SPARE, WHEELS, corners_of
from hakutsu.vehicle.quick import quick
from hakutsu.vehicle.vocabulary import Protocol

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier


EVERY = (*WHEELS, SPARE)


@dataclass(slots=True)
class CornersDossier:
    """The newest of every kind at each corner, by its wheel; graded parts by part and corner; brakes as a whole."""

    tyres: dict[str, Seen[Tyre]] = field(default_factory=dict)
    wheels: dict[str, Seen[Wheel]] = field(default_factory=dict)
    brakes: dict[str, Seen[Brake]] = field(default_factory=dict)
    gear: dict[str, Seen[Gear]] = field(default_factory=dict)
    heights: dict[str, Seen[Height]] = field(default_factory=dict)
    fluid: Seen[Fluid] | None = None
    pedal: Seen[Pedal] | None = None

    def seen_at(self, wheel: str) -> list[Seen[Body]]:
        """Everything that stands at a corner."""
        tables: tuple[dict[str, Seen[Body]], ...] = (self.wheels, self.tyres, self.brakes, self.heights)  # type: ignore[assignment]
        found = [table[wheel] for table in tables if wheel in table]
        return found + [one for one in self.gear.values() if one.place == wheel]  # type: ignore[misc]


def piece_key(part: str, place: str | None) -> str:
    """Part and corner, as the life rules name a piece."""
    return f"{part}:{place.removeprefix('wheel_')}" if place in WHEELS else part


@fold("corner.tyre")
def _tyre(gathering: Gathering, entry: Entry, body: Tyre) -> None:
    for wheel in corners_of(entry.place):
        gathering.station(CornersDossier).tyres[wheel] = Seen(entry, body, wheel)


@fold("corner.wheel")
def _wheel(gathering: Gathering, entry: Entry, body: Wheel) -> None:
    for wheel in corners_of(entry.place):
        gathering.station(CornersDossier).wheels[wheel] = Seen(entry, body, wheel)


@fold("corner.brake")
def _brake(gathering: Gathering, entry: Entry, body: Brake) -> None:
    for wheel in corners_of(entry.place):
        gathering.station(CornersDossier).brakes[wheel] = Seen(entry, body, wheel)


@fold("corner.gear")
def _gear(gathering: Gathering, entry: Entry, body: Gear) -> None:
    for wheel in corners_of(entry.place) or ("",):
        gathering.station(CornersDossier).gear[piece_key(body.part, wheel)] = Seen(entry, body, wheel)


@fold("corner.height")
def _height(gathering: Gathering, entry: Entry, body: Height) -> None:
    for wheel in corners_of(entry.place):
        gathering.station(CornersDossier).heights[wheel] = Seen(entry, body, wheel)


@fold("corner.fluid")
def _fluid(gathering: Gathering, entry: Entry, body: Fluid) -> None:
    gathering.station(CornersDossier).fluid = Seen(entry, body)


@fold("corner.pedal")
def _pedal(gathering: Gathering, entry: Entry, body: Pedal) -> None:
    gathering.station(CornersDossier).pedal = Seen(entry, body)


@expects("tyres", "Tyres")
def _tyres(dossier: Dossier) -> Iterator[Wanted]:
    """Every tyre; thorough the spare too."""
    corners, vehicle = dossier.corners, dossier.vehicle
    for part in fitted_parts(vehicle.body_style, vehicle.doors, "wheel"):
        spare = part.key not in WHEELS
        if not spare or dossier.opening.brief.protocol is Protocol.THOROUGH:
            seen = part.key in corners.tyres or (spare and part.key in corners.wheels)
            yield Wanted(part.place, part.key, seen)


@expects("brakes", "Brakes")
def _brakes(dossier: Dossier) -> Iterator[Wanted]:
    """Every brake; the row form of a quick inspection asks for none."""
    brief = dossier.opening.brief
    if brief.protocol is Protocol.QUICK and not quick(brief.quick).brakes:
        return
    for part in fitted_parts(dossier.vehicle.body_style, dossier.vehicle.doors, "brake"):
        yield Wanted(part.place, part.key, part.key.replace("brake", "wheel") in dossier.corners.brakes)
