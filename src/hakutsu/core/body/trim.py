"""Bright work, plastics and badges: what their state means."""

from __future__ import annotations

from functools import cache

from hakutsu.core.body.tables import TrimTable
from hakutsu.entries.body import Material, Trim
from hakutsu.vehicle.tables import read_table

BRIGHT = (Material.PLATED, Material.STAINLESS, Material.ALUMINIUM)


@cache
def _table() -> TrimTable:
    return read_table("core.body", "trim", TrimTable)


def trim_words(piece: Trim) -> str:
    """What the state of a piece means; nothing where that needs no words. Origin is a matter of its own."""
    table = _table().bright if piece.material in BRIGHT else _table().other
    return table.get(piece.state.value, "")
