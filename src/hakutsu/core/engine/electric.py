"""Starter battery, cranking, charging, and the high-voltage pack: conditions first, then what a number says."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from enum import StrEnum
from math import exp, log, sqrt

import numpy as np

from hakutsu.core.estimate import Estimate
from hakutsu.core.findings import Finding, found
from hakutsu.vehicle.mechanics import Chemistry

REST_HOURS = 4.0
FULL = ((11.9, 0.0), (12.06, 0.25), (12.24, 0.5), (12.45, 0.75), (12.65, 1.0))
AGM_OFFSET = 0.12
CRANK_V, CRANK_C, STEP_C, TURN_C = 9.6, 21.0, 5.6, 4.0
CHARGING = (13.8, 14.7)
GOOD_SHARE, WEAK_SHARE = 0.80, 0.60
NMC_GOOD_MV, NMC_WATCH_MV = 30.0, 100.0
PACK_PER_ROOT_YEAR, PACK_PER_CYCLE, PACK_LOSS_GSD = 0.03, 0.000_12, 1.4
LIMIT = 0.70
Z80 = 1.2815515655446004


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
    rest = volts * (2 if six else 1) - (AGM_OFFSET if agm else 0.0)
    return float(np.interp(rest, [one for one, _ in FULL], [share for _, share in FULL]))


def rest_voltage(
    volts: float, *, rested_h: float | None, surface_off: bool, asleep: bool, agm: bool = False, six: bool = False
) -> Said:
    """What a voltage at rest says; before four hours, with surface charge or modules awake it says nothing."""
    missing = [
        words
        for there, words in (
            (rested_h is not None and rested_h >= REST_HOURS, "rested four hours"),
            (surface_off, "surface charge taken off"),
            (asleep, "modules asleep"),
        )
        if not there
    ]
    if missing:
        return Said(Level.INCONCLUSIVE, f"{volts:g} V says nothing: not {', not '.join(missing)}", "rest")
    share = charge(volts, agm=agm, six=six)
    level = Level.GOOD if share >= 0.7 else Level.WATCH if share >= 0.4 else Level.BAD
    return Said(level, f"{volts:g} V at rest: about {100 * share:.0f} % charged", "rest")


def cranking_minimum(air_c: float) -> float:
    """Least voltage while cranking [V]: 9.6 at 21 °C, 0.1 less for each 5.6 °C down to 4 °C, then 0.2."""
    above = (CRANK_C - max(min(air_c, CRANK_C), TURN_C)) / STEP_C
    below = max(0.0, TURN_C - air_c) / STEP_C
    return CRANK_V - 0.1 * above - 0.2 * below


def cranking(volts: float, air_c: float) -> Said:
    """What the lowest voltage while cranking says, the first 200 ms left out."""
    least = cranking_minimum(air_c)
    words = f"{volts:g} V while cranking, at least {least:.2f} V belong at this temperature"
    return Said(Level.GOOD if volts >= least else Level.WATCH, words, "cranking")


def charging(volts: float, *, smart: bool = False) -> Said:
    """What the charging voltage says; smart systems go their own ways."""
    low, high = CHARGING
    if low <= volts <= high:
        return Said(Level.GOOD, f"charges at {volts:g} V", "charging")
    if smart:
        return Said(Level.INCONCLUSIVE, f"{volts:g} V: a smart system may do so", "charging")
    return Said(Level.FAULT, f"{volts:g} V where {low:g} to {high:g} V belong", "charging")


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
    level = Level.GOOD if share >= GOOD_SHARE else Level.WATCH if share >= WEAK_SHARE else Level.BAD
    return Said(level, f"{100 * share:.0f} % of its rating", "test")


def cell_spread(spread_mv: float, charged: float | None, chemistry: Chemistry) -> Said:
    """What the spread of cell voltages [mV] says at a state of charge (0 to 1), by chemistry."""
    words = f"cells {spread_mv:g} mV apart"
    if chemistry is Chemistry.LFP:
        near_end = charged is not None and (charged <= 0.1 or charged >= 0.95)
        if not near_end:
            return Said(Level.INCONCLUSIVE, f"{words}: LFP cells say something only near full or empty")
        return Said(Level.GOOD if spread_mv <= NMC_WATCH_MV else Level.WATCH, words)
    if chemistry is Chemistry.UNKNOWN or charged is None or not 0.2 <= charged <= 0.8:
        return Said(Level.INCONCLUSIVE, f"{words}: judged by chemistry, at 20 to 80 % of charge")
    level = Level.GOOD if spread_mv <= NMC_GOOD_MV else Level.WATCH if spread_mv <= NMC_WATCH_MV else Level.FAULT
    return Said(level, words)


def pack_health(years: float, full_cycles: float) -> Estimate:
    """Health to be expected of a high-voltage pack (0 to 1): 1 − 0.03√years − 0.00012·cycles, its loss with gsd 1.4."""
    loss = PACK_PER_ROOT_YEAR * sqrt(max(0.0, years)) + PACK_PER_CYCLE * max(0.0, full_cycles)
    spread = exp(Z80 * log(PACK_LOSS_GSD))
    return Estimate(
        1 - min(loss, 1.0), 1 - min(loss * spread, 1.0), 1 - loss / spread, basis=("population figures of our own",)
    )


FOUND = {
    ("rest", Level.WATCH): "engine.battery_low", ("rest", Level.BAD): "engine.battery_flat",
    ("cranking", Level.WATCH): "engine.cranking_low", ("charging", Level.FAULT): "engine.charging_fault",
    ("charging", Level.GOOD): "engine.charging_good", ("test", Level.BAD): "engine.battery_failed",
    ("test", Level.WATCH): "engine.battery_weak", ("test", Level.GOOD): "engine.battery_good",
}  # fmt: skip
CELLS = {Level.WATCH: "engine.cells_drifting", Level.FAULT: "engine.cells_apart"}


def battery_found(said: Iterable[Said]) -> list[Finding]:
    """What the numbers of a starter battery and its charging say."""
    return [found(FOUND[one.of, one.level], "battery", one.words) for one in said if (one.of, one.level) in FOUND]


def pack_found(said: Iterable[Said], health: float | None) -> list[Finding]:
    """What cells and health (0 to 1) of a high-voltage pack say."""
    told = [found(CELLS[one.level], "pack", one.words) for one in said if one.level in CELLS]
    if health is not None and health < LIMIT:
        told.append(
            found("engine.pack_worn", "pack", f"health {100 * health:.0f} % where {100 * LIMIT:.0f} % is the end")
        )
    return told
