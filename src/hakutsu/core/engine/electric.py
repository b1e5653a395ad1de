"""Starter battery, cranking, charging, and the high-voltage pack: conditions first, then what a number says."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from math import exp, log, sqrt

import numpy as np

from hakutsu.core.engine.tables import ElectricTable
from hakutsu.core.estimate import Z80, Estimate
from hakutsu.core.findings import Finding, found
from hakutsu.vehicle.mechanics import Chemistry
from hakutsu.vehicle.tables import read_table


@cache
def electric_table() -> ElectricTable:
    """Limits of `data/electric.toml`."""
    return read_table("core.engine", "electric", ElectricTable)


class Level(StrEnum):
    """What a number says."""

    GOOD = "good"
    WATCH = "watch"
    BAD = "replace"
    FAULT = "fault"
    INCONCLUSIVE = "inconclusive"


@dataclass(frozen=True, slots=True)
class Said:
    """A verdict with its words, and of which number it is (a key)."""

    level: Level
    words: str
    of: str = ""


def charge(volts: float, *, agm: bool = False, six: bool = False) -> float:
    """Charge at rest (0 to 1) of a lead battery by its voltage [V]; 6 V ones are doubled, AGM stand a little higher."""
    rest = volts * (2 if six else 1) - (electric_table().rest.agm_offset_v if agm else 0.0)
    volts_at, share = np.array(electric_table().rest.full).T
    return float(np.interp(rest, volts_at, share))


def rest_voltage(
    volts: float, *, rested_h: float | None, surface_off: bool, asleep: bool, agm: bool = False, six: bool = False
) -> Said:
    """What a voltage at rest says; before four hours, with surface charge or modules awake it says nothing."""
    missing = [
        words
        for there, words in (
            (rested_h is not None and rested_h >= electric_table().rest.hours, "rested four hours"),
            (surface_off, "surface charge taken off"),
            (asleep, "modules asleep"),
        )
        if not there
    ]
    if missing:
        return Said(Level.INCONCLUSIVE, f"{volts:g} V says nothing: not {', not '.join(missing)}", "rest")
    share, row = charge(volts, agm=agm, six=six), electric_table().rest
    level = Level.GOOD if share >= row.good else Level.WATCH if share >= row.watch else Level.BAD
    return Said(level, f"{volts:g} V at rest: about {100 * share:.0f} % charged", "rest")


def cranking_minimum(air_c: float) -> float:
    """Least voltage while cranking [V]: 9.6 at 21 °C, 0.1 less for each 5.6 °C down to 4 °C, then 0.2."""
    row = electric_table().crank
    above = (row.warm_c - max(min(air_c, row.warm_c), row.turn_c)) / row.step_c
    below = max(0.0, row.turn_c - air_c) / row.step_c
    return row.least_v - row.above_v * above - row.below_v * below


def cranking(volts: float, air_c: float, *, six: bool = False) -> Said:
    """What the lowest voltage while cranking says, the first 200 ms left out; 6 V systems have half the limit."""
    least = cranking_minimum(air_c) / (2 if six else 1)
    words = f"{volts:g} V while cranking, at least {least:.2f} V belong at this temperature"
    return Said(Level.GOOD if volts >= least else Level.WATCH, words, "cranking")


def charging(volts: float, *, smart: bool = False, six: bool = False) -> Said:
    """What the charging voltage [V] says.

    Parameters
    ----------
    smart : the system goes its own ways: what would be a fault is looked at again, but for what no system does
    six : a 6 V system, whose limits are half of those of 12 V

    Notes
    -----
    Below 13.2 V not charging; to 13.8 and from 14.7 to 15.0 V the named middle; from 15.0 a fault, above 15.5 V on
    every system. Source: values of the trade, `data/electric.toml`.
    """
    row, half = electric_table().charging, 2 if six else 1
    on_twelve, usual = volts * half, f"{row.low_v / half:g} to {row.high_v / half:g} V"
    if on_twelve > row.always_v:
        return Said(Level.FAULT, f"{volts:g} V where {usual} belong: too much for any system", "charging")
    if on_twelve < row.not_v or on_twelve >= row.over_v:
        if smart:
            return Said(Level.WATCH, f"{volts:g} V: a smart system may do so; again with a load on", "charging_check")
        return Said(Level.FAULT, f"{volts:g} V where {usual} belong", "charging")
    if on_twelve < row.low_v:
        return Said(Level.WATCH, f"{volts:g} V, a little under the {usual} usual", "charging_low")
    if on_twelve > row.high_v:
        return Said(Level.WATCH, f"{volts:g} V, a little over the {usual} usual", "charging_high")
    return Said(Level.GOOD, f"charges at {volts:g} V", "charging")


def conductance(measured: float, rated: float) -> Said:
    """Measured against rated in the same standard: from 80 % good, from 60 % weak, below replace.

    Raises
    ------
    ValueError
        If the rated value is not above 0.
    """
    if rated <= 0:
        raise ValueError("the rated value is above 0")
    share = measured / rated
    level = (
        Level.GOOD
        if share >= electric_table().conductance.good
        else Level.WATCH
        if share >= electric_table().conductance.weak
        else Level.BAD
    )
    return Said(level, f"{100 * share:.0f} % of its rating", "test")


def cell_spread(spread_mv: float, charged: float | None, chemistry: Chemistry) -> Said:
    """What the spread of cell voltages [mV] says at a state of charge (0 to 1), by chemistry."""
    words, row = f"cells {spread_mv:g} mV apart", electric_table().cells
    if chemistry is Chemistry.LFP:
        near_end = charged is not None and (charged <= row.lfp_low or charged >= row.lfp_high)
        if not near_end:
            return Said(Level.INCONCLUSIVE, f"{words}: LFP cells say something only near full or empty")
        return Said(Level.GOOD if spread_mv <= row.watch_mv else Level.WATCH, words)
    if chemistry is Chemistry.UNKNOWN or charged is None or not row.charged[0] <= charged <= row.charged[1]:
        return Said(Level.INCONCLUSIVE, f"{words}: judged by chemistry, at 20 to 80 % of charge")
    level = Level.GOOD if spread_mv <= row.good_mv else Level.WATCH if spread_mv <= row.watch_mv else Level.FAULT
    return Said(level, words)


def pack_health(years: float, full_cycles: float) -> Estimate:
    """Health to be expected of a high-voltage pack (0 to 1): 1 − 0.03√years − 0.00012·cycles, its loss with gsd 1.4."""
    loss = electric_table().pack.per_root_year * sqrt(max(0.0, years)) + electric_table().pack.per_cycle * max(
        0.0, full_cycles
    )
    spread = exp(Z80 * log(electric_table().pack.loss_gsd))
    return Estimate(
        1 - min(loss, 1.0), 1 - min(loss * spread, 1.0), 1 - loss / spread, basis=("population figures of our own",)
    )


FOUND = {
    ("rest", Level.WATCH): "engine.battery_low", ("rest", Level.BAD): "engine.battery_flat",
    ("cranking", Level.WATCH): "engine.cranking_low", ("charging", Level.FAULT): "engine.charging_fault",
    ("charging", Level.GOOD): "engine.charging_good", ("charging_low", Level.WATCH): "engine.charging_low",
    ("charging_high", Level.WATCH): "engine.charging_high", ("charging_check", Level.WATCH): "engine.charging_check",
    ("test", Level.BAD): "engine.battery_failed",
    ("test", Level.WATCH): "engine.battery_weak", ("test", Level.GOOD): "engine.battery_good",
}  # fmt: skip
CELLS = {Level.WATCH: "engine.cells_drifting", Level.FAULT: "engine.cells_apart"}


def battery_found(said: Iterable[Said]) -> list[Finding]:
    """What the numbers of a starter battery and its charging say."""
    return [found(FOUND[one.of, one.level], "battery", one.words) for one in said if (one.of, one.level) in FOUND]


def pack_found(said: Iterable[Said], health: float | None) -> list[Finding]:
    """What cells and health (0 to 1) of a high-voltage pack say."""
    limit = electric_table().pack.limit
    told = [found(CELLS[one.level], "pack", one.words) for one in said if one.level in CELLS]
    if health is not None and health < limit:
        told.append(
            found("engine.pack_worn", "pack", f"health {100 * health:.0f} % where {100 * limit:.0f} % is the end")
        )
    return told
