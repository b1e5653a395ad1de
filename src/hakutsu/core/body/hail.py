"""Hail: density and repair class of a panel from the number of dents and their size."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from hakutsu.core.body.tables import HailTable
from hakutsu.entries.body import Blemish
from hakutsu.vehicle.tables import read_table


@dataclass(frozen=True, slots=True)
class HailClass:
    """Dents per dm², the class in words, and whether they can still be lifted without paint."""

    per_dm2: float
    words: str
    lifts: bool


@cache
def _table() -> HailTable:
    return read_table("core.body", "hail", HailTable)


def hail_class(mark: Blemish, area_cm2: float) -> HailClass:
    """Class of a hail field on a panel of an area [cm²]; the size is that of a usual dent."""
    table = _table()
    size = mark.length_mm or 0.0
    kind = "small" if size <= table["small_mm"] else "large" if size > table["large_mm"] else "middle"
    words = next(word for most, word in table["classes"] if mark.count <= most)
    return HailClass(100 * mark.count / area_cm2, str(words), mark.count <= table["lift_to"][kind])
