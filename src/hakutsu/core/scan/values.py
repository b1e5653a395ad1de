"""Values a unit gave, in words and units."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache

from hakutsu.core.scan.codec.parameters import known_parameters
from hakutsu.core.scan.tables import MonitorsTable, Parameter
from hakutsu.entries.scan import UnitRead
from hakutsu.vehicle.tables import read_table

FUEL_SYSTEM = "fuel_system"
FIRST_CYLINDER, LAST_CYLINDER, AVERAGE, LAST = 0xA2, 0xAD, "0B", "0C"  # misfire counts of service 06
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


def counter_lines(unit: UnitRead) -> list[tuple[str, str]]:
    """How often each monitor completed of how often its conditions were met; those never met are left out."""
    names = read_table("core.scan", "monitors", MonitorsTable).counters
    kind = names.compression if "nmhc_catalyst" in unit.readiness else names.spark
    pairs = list(zip(unit.counters[2::2], unit.counters[3::2], strict=False))
    return [(name, f"{done:,} of {met:,}") for name, (done, met) in zip(kind, pairs, strict=False) if met or done]


def misfire_lines(unit: UnitRead) -> list[tuple[str, str]]:
    """Misfires by cylinder: on average of the last drives, and in the last one."""
    by_cylinder: dict[int, dict[str, int]] = {}
    for one in unit.monitors:
        if FIRST_CYLINDER <= (mid := int(one.mid, 16)) <= LAST_CYLINDER and one.passed is not None:
            by_cylinder.setdefault(mid - FIRST_CYLINDER + 1, {})[one.tid] = one.value
    words = {AVERAGE: "on average", LAST: "in the last drive"}
    return [
        (f"cylinder {number}", ", ".join(f"{counts[tid]} {said}" for tid, said in words.items() if tid in counts))
        for number, counts in sorted(by_cylinder.items())
    ]
