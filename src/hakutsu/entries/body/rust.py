"""Rust, and what coats the metal."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import StringConstraints

from hakutsu.entries.body.kinds import Millimetres, Note
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed


class RustGrade(StrEnum):
    """How far rust has gone."""

    STAIN = "stain"
    SURFACE = "surface"
    SCALE = "scale"
    PITTED = "pitted"
    PERFORATED = "perforated"


class Coating(Keyed):
    """What lies on the metal there."""

    UNKNOWN = "unknown", "not told"
    FACTORY = "factory"
    LATER = "later"
    FRESH = "fresh", "fresh on a fresh wash"


@entry_kind("body.rust", at="somewhere", version=2, upgrades={1: to_keys})
class Rust(Body):
    """Rust at a place: grade (none where it was not told), size [mm], whether it is in what carries, and what coats the
    metal there.
    """

    grade: RustGrade | None = None
    where: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    size_mm: Millimetres | None = None
    structural: bool = False
    other_side: Annotated[str, StringConstraints(max_length=60)] = ""
    coating: Coating = Coating.UNKNOWN
    note: Note = ""

    @property
    def wants_other_side(self) -> bool:
        """True of rust that may go through and was seen from one side only."""
        deep = (None, RustGrade.SCALE, RustGrade.PITTED, RustGrade.PERFORATED)
        return self.grade in deep and not self.other_side

    @property
    def forbids_lifting(self) -> bool:
        """True of perforated rust in what carries: nobody lifts there or goes under it; a licensed test decides."""
        return self.structural and self.grade is RustGrade.PERFORATED

    def causes(self) -> tuple[str, ...]:
        return ("sill_perforated",) if self.forbids_lifting else ()

    def cause_note(self) -> str:
        return self.where
