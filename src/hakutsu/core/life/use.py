"""What circumstances of use do to remaining life; data in `data/use.toml`."""

from __future__ import annotations

from collections.abc import Iterable
from functools import cache
from math import prod

from hakutsu.core.life.tables import UseFactor, UseTable
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.use import use_factor_names


@cache
def use_table() -> dict[str, UseFactor]:
    """Effects by circumstance.

    Raises
    ------
    ValueError
        If the file names a circumstance that does not exist.
    """
    table = read_table("core.life", "use", UseTable).factor
    unknown = set(table) - set(use_factor_names())
    if unknown:
        raise ValueError(f"use.toml names {', '.join(sorted(unknown))}, which is no circumstance of use")
    return table


def hazard_factor(part: str, circumstances: Iterable[str]) -> float:
    """By how much circumstances multiply a part's hazard."""
    return prod(_effect(one, "hazard", part) for one in circumstances)


def wear_factor(component: str, circumstances: Iterable[str]) -> float:
    """How many times faster circumstances wear a tyre, pad or disc."""
    return prod(_effect(one, "wear", component) for one in circumstances)


def _effect(circumstance: str, kind: str, part: str) -> float:
    row = use_table().get(circumstance)
    return 1.0 if row is None else float(row[kind].get(part, 1.0))


def effect_words(part: str, circumstances: Iterable[str], kind: str = "hazard") -> list[str]:
    """Each circumstance that matters to a part, with its factor, in words."""
    names = use_factor_names()
    return [
        f"{names[one].split(':')[0]} ×{effect:g}"
        for one in circumstances
        if (effect := _effect(one, kind, part)) != 1.0
    ]
