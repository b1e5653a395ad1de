"""Values a unit gave, in words and units."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache

from hakutsu.core.scan.codec.parameters import known_parameters
from hakutsu.core.scan.tables import Parameter

FUEL_SYSTEM = "fuel_system"
FUEL_WORDS = {
    "open": "open loop",
    "closed": "closed loop",
    "open_load": "open loop by load",
    "open_fault": "open loop by a fault",
    "closed_fault": "closed loop with a fault",
}


@cache
def _by_name() -> dict[str, Parameter]:
    return {one.name: one for one in known_parameters().values()}


def value_lines(values: Mapping[str, float | str | None]) -> list[tuple[str, str]]:
    """Each value with what it is and its unit, in the order of the parameters."""
    found = []
    if FUEL_SYSTEM in values:
        found.append(("mixture", FUEL_WORDS.get(str(values[FUEL_SYSTEM]), "not running")))
    for name, one in _by_name().items():
        number = values.get(name)
        if isinstance(number, int | float):
            digits = 1 if abs(number) < 100 and number != round(number) else 0
            found.append((one.words, f"{number:,.{digits}f} {one.unit}".strip()))
    return found
