"""Oil pressure: hot at idle, and how it rises with speed; a rule of thumb, the maker's data rule."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot, sqrt

from hakutsu.core.engine.idle import idle_table
from hakutsu.core.estimate import Z80, Estimate


@dataclass(frozen=True, slots=True)
class OilReading:
    """Speed [1/min], oil pressure [bar] and coolant [°C] at one moment."""

    rpm: float
    bar: float
    coolant_c: float | None


@dataclass(frozen=True, slots=True)
class OilVerdict:
    """What the hot readings say: in words, the code of its finding (none where nothing is wrong or can be said), the
    rise [bar per 1,000/min] with its interval.
    """

    words: str
    code: str = ""
    rise: Estimate | None = None


def wanted_bar(rpm: float) -> float:
    """The pressure [bar] the rule of thumb wants at a speed [1/min]: 0.7 bar for each 1,000."""
    return float(idle_table()["oil"]["per_1000_rpm_bar"]) * rpm / 1000


def oil_verdict(readings: Sequence[OilReading], *, two_stage: bool = False) -> OilVerdict | None:
    """What oil pressures say; none where nobody read one. Cold readings say nothing of bearings; a `two_stage` pump
    lowers its pressure by design, and only the maker's figure tells.
    """
    if not readings:
        return None
    row = idle_table()["oil"]
    hot = [one for one in readings if one.coolant_c is not None and one.coolant_c >= row["hot_from_c"]]
    if not hot:
        words = f"read only below {{temperature {row['hot_from_c']}}}: says nothing of hot oil"
        return OilVerdict(words)
    rise = _rise(hot)
    idle = [one for one in hot if one.rpm <= row["idle_to_rpm"]]
    low = [one for one in hot if one.bar + Z80 * row["read_sd_bar"] < wanted_bar(one.rpm)]
    near = [one for one in hot if one.bar < wanted_bar(one.rpm) and one not in low]
    worst = min(hot, key=lambda one: one.bar - wanted_bar(one.rpm))
    rule = f"the rule of thumb wants {{pressure {wanted_bar(worst.rpm):.2f}}}"
    words = f"{{pressure {worst.bar}}} hot at {worst.rpm:.0f} rpm, {rule}"
    if two_stage and (low or near):
        return OilVerdict(f"{words}: a two-stage pump lowers it by design", "engine.oil_pressure_two_stage", rise)
    if low:
        return OilVerdict(
            f"{words}: measure with a gauge of its own; bearings or pump", "engine.oil_pressure_low", rise
        )
    if near:
        return OilVerdict(f"{words}: too near to tell", "engine.oil_pressure_near", rise)
    if not idle:
        return OilVerdict(f"{words}; not read hot at idle yet", "engine.oil_pressure_not_read", rise)
    return OilVerdict(words, "", rise)


def _rise(hot: Sequence[OilReading]) -> Estimate | None:
    """Rise between the slowest and the fastest hot reading [bar per 1,000/min], by how well a gauge is read."""
    row = idle_table()["oil"]
    slow, fast = (pick(hot, key=lambda one: one.rpm) for pick in (min, max))
    apart = fast.rpm - slow.rpm
    if apart < row["apart_rpm"]:
        return None
    rise = 1000 * (fast.bar - slow.bar) / apart
    near = [sum(abs(one.rpm - end.rpm) < row["apart_rpm"] / 4 for one in hot) for end in (slow, fast)]
    spread = Z80 * 1000 / apart * row["read_sd_bar"] * hypot(1 / sqrt(near[0]), 1 / sqrt(near[1]))
    return Estimate(rise, rise - spread, rise + spread, basis=(f"{len(hot)} hot readings",))
