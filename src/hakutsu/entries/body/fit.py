"""How panels and parts sit."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field, StringConstraints

from hakutsu.entries.body.kinds import Note
from hakutsu.entries.bounds import Several
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed


class Closing(Keyed):
    """How much a door or lid wants to close."""

    UNKNOWN = "unknown", "not tried"
    FALLS = "falls", "falls shut"
    LIGHT = "light", "light push"
    FIRM = "firm", "firm push"
    SLAM = "slam"


Gap = Annotated[float, Field(ge=0, le=40)]


class GapGrade(Keyed):
    """Gaps by eye."""

    UNKNOWN = "unknown", "not told"
    EVEN = "even", "even"
    UNEVEN = "uneven"
    WIDE = "wide", "wide on one side"
    TOUCHING = "touching"


def _tried(raw: dict[str, Any]) -> dict[str, Any]:
    """What older entries left out, they meant as it is put here."""
    return {"drop": False, "play": False, "rubs": False} | raw


@entry_kind("body.fit", at="surface", version=3, upgrades={1: to_keys, 2: _tried})
class Fit(Body):
    """How a panel or part sits: gaps [mm] at its edges and how far it stands proud of its neighbour [mm].

    Doors have front, rear and top, lids left, right, top and bottom edges. `taper_mm` is how much a gap opens along its
    length; `gaps` what the eye says where nobody measured. `drop`: a door drops when opened; `play`: it lifts, or its
    hinges have play; `rubs`: its paint is rubbed through; `stands_off`: a bumper or trim stands off. What was not tried
    is left out.
    """

    front_mm: Gap | None = None
    rear_mm: Gap | None = None
    top_mm: Gap | None = None
    left_mm: Gap | None = None
    right_mm: Gap | None = None
    bottom_mm: Gap | None = None
    gaps: GapGrade = GapGrade.UNKNOWN
    taper_mm: Annotated[float, Field(ge=0, le=40)] | None = None
    step_mm: Annotated[float, Field(ge=-20, le=20)] | None = None
    closing: Closing = Closing.UNKNOWN
    drop: bool | None = None
    play: bool | None = None
    rubs: bool | None = None
    stands_off: bool | None = None
    faults: Several[Annotated[str, StringConstraints(max_length=40)]] = ()
    note: Note = ""

    @property
    def measured(self) -> bool:
        """True when any gap was measured."""
        edges = (self.front_mm, self.rear_mm, self.top_mm, self.left_mm, self.right_mm, self.bottom_mm)
        return any(gap is not None for gap in (*edges, self.taper_mm))
