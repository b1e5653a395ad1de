"""Fold of what was seen and measured at the corners, of graded parts, proofs and mechanical facts."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.body import Seen
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.corners import Brake, Fluid, Gear, Height, PartProof, Pedal, Tyre, Wheel
from hakutsu.entries.envelope import Entry
from hakutsu.entries.money import ClaimPriced, Line, MechanicsSaid
from hakutsu.entries.registry import Body
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.places import SPARE, WHEELS

EVERY = (*WHEELS, SPARE)


@dataclass(slots=True)
class CornersDossier:
    """The newest of every kind at each corner, by its wheel; graded parts by part and corner; brakes as a whole."""

    mechanics: Mechanics = field(default_factory=Mechanics)
    tyres: dict[str, Seen[Tyre]] = field(default_factory=dict)
    wheels: dict[str, Seen[Wheel]] = field(default_factory=dict)
    brakes: dict[str, Seen[Brake]] = field(default_factory=dict)
    gear: dict[str, Seen[Gear]] = field(default_factory=dict)
    heights: dict[str, Seen[Height]] = field(default_factory=dict)
    fluid: Seen[Fluid] | None = None
    pedal: Seen[Pedal] | None = None
    proofs: dict[str, Seen[PartProof]] = field(default_factory=dict)
    lines: dict[str, Seen[Line]] = field(default_factory=dict)
    claims_priced: dict[str, Seen[ClaimPriced]] = field(default_factory=dict)

    def seen_at(self, wheel: str) -> list[Seen[Body]]:
        """Everything that stands at a corner."""
        tables: tuple[dict[str, Seen[Body]], ...] = (self.wheels, self.tyres, self.brakes, self.heights)  # type: ignore[assignment]
        found = [table[wheel] for table in tables if wheel in table]
        return found + [one for one in self.gear.values() if one.place == wheel]  # type: ignore[misc]


def piece_key(part: str, place: str | None) -> str:
    """Part and corner, as the life rules name a piece."""
    return f"{part}:{place.removeprefix('wheel_')}" if place in WHEELS else part


@fold("inspection.mechanics")
def _mechanics(gathering: Gathering, entry: Entry, body: MechanicsSaid) -> None:
    gathering.station(CornersDossier).mechanics = body.mechanics


@fold("corner.tyre")
def _tyre(gathering: Gathering, entry: Entry, body: Tyre) -> None:
    gathering.station(CornersDossier).tyres[str(entry.place)] = Seen(entry, body)


@fold("corner.wheel")
def _wheel(gathering: Gathering, entry: Entry, body: Wheel) -> None:
    gathering.station(CornersDossier).wheels[str(entry.place)] = Seen(entry, body)


@fold("corner.brake")
def _brake(gathering: Gathering, entry: Entry, body: Brake) -> None:
    gathering.station(CornersDossier).brakes[str(entry.place)] = Seen(entry, body)


@fold("corner.gear")
def _gear(gathering: Gathering, entry: Entry, body: Gear) -> None:
    gathering.station(CornersDossier).gear[piece_key(body.part, entry.place)] = Seen(entry, body)


@fold("corner.height")
def _height(gathering: Gathering, entry: Entry, body: Height) -> None:
    gathering.station(CornersDossier).heights[str(entry.place)] = Seen(entry, body)


@fold("corner.fluid")
def _fluid(gathering: Gathering, entry: Entry, body: Fluid) -> None:
    gathering.station(CornersDossier).fluid = Seen(entry, body)


@fold("corner.pedal")
def _pedal(gathering: Gathering, entry: Entry, body: Pedal) -> None:
    gathering.station(CornersDossier).pedal = Seen(entry, body)


@fold("life.proof")
def _proof(gathering: Gathering, entry: Entry, body: PartProof) -> None:
    gathering.station(CornersDossier).proofs[piece_key(body.part, entry.place)] = Seen(entry, body)


@fold("money.line")
def _line(gathering: Gathering, entry: Entry, body: Line) -> None:
    gathering.station(CornersDossier).lines[body.line] = Seen(entry, body)


@fold("money.claim")
def _claim(gathering: Gathering, entry: Entry, body: ClaimPriced) -> None:
    gathering.station(CornersDossier).claims_priced[str(body.of)] = Seen(entry, body)
