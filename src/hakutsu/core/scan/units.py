"""What control units are called: by their own name where they say it, else by their address."""

from __future__ import annotations

from hakutsu.entries.scan import UnitRead

USUAL = {"7E8": "engine unit", "7E9": "gearbox unit"}  # ISO 15765-4 recommends so


def unit_name(unit: UnitRead) -> str:
    """A unit in words, with its address."""
    name = unit.name.lower() if unit.name else USUAL.get(unit.address, "")
    return f"{name} {unit.address}" if name else f"unit {unit.address}"
