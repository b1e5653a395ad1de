"""Was the memory cleared recently? Facts first: what the units count since; then what has not run again since."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import exp, log

from hakutsu.core.scan.codec.readiness import monitor_words
from hakutsu.core.scan.tables import ClearingTable, Recent
from hakutsu.core.scan.units import unit_name
from hakutsu.entries.scan import UnitRead
from hakutsu.vehicle.tables import read_table

COUNTED_OUT = 255  # warm-ups: that many or more
UNIFORM_WARM_UPS = range(1, 21)
LIKELY, HALF, UNLIKELY = 0.85, 0.5, 0.08


@dataclass(frozen=True, slots=True)
class Cleared:
    """How likely the memory of a vehicle was cleared within about 500 km and 20 warm-ups, and by what."""

    probability: float
    because: tuple[str, ...]


def clearing() -> ClearingTable:
    """What the judgement rests on."""
    return read_table("core.scan", "clearing", ClearingTable)


def still_incomplete(monitor: str, warm_ups: float) -> float | None:
    """Chance that a monitor has not run again after so many warm-ups; none where its running proves nothing.

    floor + (1 − floor) · exp(−n / τ)
    """
    row = clearing().incomplete.get(monitor)
    return None if row is None else row.floor + (1 - row.floor) * exp(-warm_ups / row.tau)


def cleared(units: Sequence[UnitRead]) -> Cleared:
    """Judge from what the units say alone.

    Each unit is judged by its own counters where it has them, else by its monitors; the vehicle goes by the unit that
    speaks most for it: a code that was cleared in one unit is gone wherever else nothing was.
    """
    judged = [one for unit in units if (one := _unit(unit)) is not None]
    before = clearing().recent.before
    if not judged:
        return Cleared(before, ("no unit says when its memory was cleared, or which monitors have run",))
    surest = max(judged, key=lambda one: one.probability)
    said = [f"{unit_name(unit)}: {text}" for unit in units for text in _facts(unit)]
    return Cleared(surest.probability, tuple(said))


def _unit(unit: UnitRead) -> Cleared | None:
    p, since = clearing().recent, unit.since_cleared
    counted = [
        _below(value, limit, soft)
        for value, limit, soft in ((since.km, p.km, p.km_soft), (since.warm_ups, p.warm_ups, p.warm_ups_soft))
        if value is not None
    ]
    odds = log(p.before / (1 - p.before))
    monitors = {name: state for name, state in unit.readiness.items() if state != "not supported"}
    tested = _tested(unit, p)
    if not counted and tested is None and not any(name in clearing().incomplete for name in monitors):
        return None
    if counted:
        share = min(counted)
        both = len(counted) == 2
        high = p.counted if both else 0.9
        chance = p.contradicted + (high - p.contradicted) * share
        odds = log(chance / (1 - chance))
        if both and since.km == 0 and since.warm_ups == 0:
            odds += _monitored(monitors, p)  # it may never have counted
    else:
        odds += _monitored(monitors, p) + (tested or 0.0)
    return Cleared(round(1 / (1 + exp(-odds)), 4), ())


def _tested(unit: UnitRead, p: Recent) -> float | None:
    """Log likelihood ratio of tests not completed since a clear (ISO 14229, bit 4); none with too few of them."""
    if unit.untested is None or unit.untested.of < p.least_tests:
        return None
    many = unit.untested.on >= p.many_untested * unit.untested.of
    recent, long_ago = p.untested_if_recent, p.untested_if_not
    return log(recent / long_ago) if many else log((1 - recent) / (1 - long_ago))


def _below(value: float, limit: float, soft: float) -> float:
    """How far a count lies within a limit: 1 well below, 0 well above."""
    return 1 / (1 + exp(min(max((value - limit) / soft, -60.0), 60.0)))


def _monitored(monitors: Mapping[str, str], p: Recent) -> float:
    """Log likelihood ratio of what has run and what has not: freshly cleared, at an unknown count, against long ago."""
    recent = [1.0] * len(UNIFORM_WARM_UPS)
    long_ago = 1.0
    for name, state in monitors.items():
        row = clearing().incomplete.get(name)
        if row is None:
            continue
        left = state == "incomplete"
        long_ago *= row.floor if left else 1 - row.floor
        for i, warm_ups in enumerate(UNIFORM_WARM_UPS):
            chance = still_incomplete(name, warm_ups) or 0.0
            recent[i] *= chance if left else 1 - chance
    return log(sum(recent) / len(recent) / long_ago)


def _facts(unit: UnitRead) -> list[str]:
    """What a unit says of it, in words."""
    since, said = unit.since_cleared, []
    if since.km is not None or since.warm_ups is not None:
        least = "or more " if since.warm_ups == COUNTED_OUT else ""
        plural = "" if since.warm_ups == 1 else "s"
        parts = [f"{{distance {since.km}}}" if since.km is not None else "",
                 f"{since.warm_ups} {least}warm-up{plural}" if since.warm_ups is not None else ""]  # fmt: skip
        said.append(f"codes cleared {' and '.join(filter(None, parts))} ago")
    waiting = [
        name for name, state in unit.readiness.items() if state == "incomplete" and name in clearing().incomplete
    ]
    if waiting:
        said.append(f"monitors not complete: {', '.join(map(monitor_words, waiting))}")
    if unit.untested is not None and unit.untested.on:
        said.append(f"{unit.untested.on} of {unit.untested.of} self-tests not complete since then")
    kept = [one.code for one in unit.codes or () if "permanent" in one.memory and "stored" not in one.memory]
    if kept:
        said.append(f"permanent codes without stored ones: {', '.join(kept)}")
    return said


def cleared_words(probability: float) -> str:
    """How likely, in words."""
    if probability >= LIKELY:
        return "Fault codes were very likely cleared recently"
    if probability >= HALF:
        return "Fault codes were perhaps cleared recently"
    if probability > UNLIKELY:
        return "It is not known whether fault codes were cleared recently"
    return "Fault codes were probably not cleared recently"
