"""Rust: where it starts first, by body style."""

from __future__ import annotations

from functools import cache

from hakutsu.core.body.tables import TrapsTable
from hakutsu.vehicle.tables import read_table


@cache
def _traps() -> dict[str, tuple[str, ...]]:
    return read_table("core.body", "traps", TrapsTable).trap


def rust_traps(style: str) -> tuple[str, ...]:
    """Watch-points of a body style."""
    return (*_traps()["all"], *_traps().get(style, ()))
