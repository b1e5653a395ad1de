"""Idle: scatter of the speed, and whether it hunts.

References
----------
Interval of a standard deviation by the χ² law of a normal sample; periodogram of A. Schuster (1898).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import cache

import numpy as np
from scipy.special import gammaincinv

from hakutsu.core.engine.tables import IdleTable
from hakutsu.core.estimate import Estimate
from hakutsu.vehicle.tables import read_table


class Idling(StrEnum):
    """What the speed at idle says."""

    TOO_FEW = "too few readings"
    CONDITIONS = "says nothing under these conditions"
    STEADY = "steady"
    NEAR = "near the limit of rough"
    ROUGH = "rough"
    HUNTING = "hunting"


@dataclass(frozen=True, slots=True)
class IdleVerdict:
    """What it says, in words; scatter [1/min] with its 80 % interval, mean speed [1/min], period of hunting [s]."""

    idling: Idling
    words: str
    scatter: Estimate | None = None
    mean: float | None = None
    period_s: float | None = None


@cache
def idle_table() -> IdleTable:
    """Limits of `data/idle.toml`."""
    return read_table("core.engine", "idle", IdleTable)


def scatter(rpm: Sequence[float]) -> Estimate:
    """Standard deviation [1/min] of at least two speeds, with the 80 % interval of a normal sample.

    Raises
    ------
    ValueError
        If there are fewer than two.
    """
    if len(rpm) < 2:
        raise ValueError("a scatter takes at least two readings")
    free = len(rpm) - 1
    sd = float(np.std(rpm, ddof=1))
    low, high = (sd * float(np.sqrt(free / (2 * gammaincinv(free / 2, p)))) for p in (0.9, 0.1))
    return Estimate(sd, min(low, sd), max(high, sd), basis=(f"{len(rpm)} readings",))


def hunting(rpm: Sequence[float], hertz: float) -> float | None:
    """The period [s] in which the speed swings, where one slow swing makes most of its scatter; else none."""
    row = idle_table()["hunting"]
    read = np.asarray(rpm, dtype=float)
    power = np.abs(np.fft.rfft(read - read.mean())) ** 2
    periods = np.divide(len(read) / hertz, np.arange(len(power)), out=np.full(len(power), np.inf),
                        where=np.arange(len(power)) > 0)  # fmt: skip
    slow = (periods >= row["period_s"][0]) & (periods <= row["period_s"][1])
    if not slow.any() or power.sum() <= 0:
        return None
    peak = int(np.argmax(np.where(slow, power, 0)))
    share = power[max(1, peak - 1) : peak + 2].sum() / power[1:].sum()
    swing = 2 * np.sqrt(2 * share) * float(np.std(read))
    return float(periods[peak]) if share >= row["share"] and swing >= row["swing_rpm"] else None


def idle_verdict(
    rpm: Sequence[float], hertz: float, *, warm: bool, switched: bool = False, carburettor: bool = False
) -> IdleVerdict:
    """What speeds at idle say: at least 60 at 1 Hz or faster, warm, no load switched in between.

    Parameters
    ----------
    rpm, hertz : speeds [1/min] one after the other, so many a second
    carburettor : wider limits apply
    """
    table = idle_table()["scatter"]
    if len(rpm) < table["least"]:
        more = int(table["least"]) - len(rpm)
        return IdleVerdict(Idling.TOO_FEW, f"{more} more readings before the scatter says anything")
    conditions = {
        "slower than one reading a second": hertz < table["hertz"],
        "not warm": not warm,
        "a load was switched": switched,
    }
    lacking = [words for words, wrong in conditions.items() if wrong]
    found, mean = scatter(rpm), float(np.mean(rpm))
    words = f"scatter {found.median:.0f} rpm ({found.low:.0f} to {found.high:.0f}) around {mean:.0f} rpm"
    if lacking:
        return IdleVerdict(Idling.CONDITIONS, f"{words}: {', '.join(lacking)}", found, mean)
    if period := hunting(rpm, hertz):
        return IdleVerdict(Idling.HUNTING, f"{words}, swings every {period:.0f} s", found, mean, period)
    limit = table["carburettor_rpm"] if carburettor else table["rough_rpm"]
    kind = Idling.ROUGH if found.median > limit else Idling.STEADY if found.high <= limit else Idling.NEAR
    kindly = f"; a carburettor: wider limits apply, to {limit:.0f}" if carburettor else ""
    return IdleVerdict(kind, f"{words}{kindly}", found, mean)
