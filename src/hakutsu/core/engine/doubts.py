"""Numbers that may be slips: they are asked about at their field before they are stored, never refused for it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

STEEP_C, SLACK_C = 8.0, 6.0
LEAST_COOLANT_C, MOST_COOLANT_C = -25.0, 125.0
LEAST_RPM, MOST_RPM = 350.0, 5000.0
MOST_OIL_BAR = 7.0
EARLY_MIN = 2.0
SAME_MIN, SAME_C = 0.05, 3.0

# Ranges beyond which a number is asked about: field, least, most, what it may be.
RANGES: Mapping[str, tuple[tuple[str, float, float, str], ...]] = {
    "engine.air": (
        ("intake_c", -15.0, 50.0, "the air taken in"),
        ("vent_c", -5.0, 75.0, "a vent"),
        ("heater_c", 0.0, 85.0, "a vent of the heater"),
        ("outside_c", -30.0, 48.0, "the air outside"),
    ),
    "engine.battery": (
        ("rest_v", 4.0, 14.0, "a battery at rest"),
        ("crank_v", 3.0, 13.0, "a battery while cranking"),
        ("charging_v", 5.0, 16.5, "a charging voltage"),
        ("air_c", -30.0, 48.0, "the air"),
    ),
    "fluid.looked": (("freezes_c", -60.0, 2.0, "a coolant’s freeze point"),),
    "engine.start": (("coolant_c", -25.0, 110.0, "coolant before a start"),),
}
CELSIUS = ("intake_c", "vent_c", "heater_c", "outside_c", "air_c", "freezes_c", "coolant_c")


@dataclass(frozen=True, slots=True)
class Doubt:
    """A field of an entry, and what makes its number doubtful, in words for `Terms.say`."""

    field: str
    words: str


@dataclass(frozen=True, slots=True)
class RunSoFar:
    """Readings of the run before: minute, coolant [°C]; minutes since it began, by the clock, where known."""

    read: Sequence[tuple[float, float | None]] = ()
    elapsed: float | None = None


def doubts(kind: str, body: Mapping[str, Any], run: RunSoFar = RunSoFar()) -> list[Doubt]:
    """What is doubtful in an entry about to be stored.

    Parameters
    ----------
    kind, body : of the draft, numbers in stored units; what is no number is left to the entry's own checks
    run : readings of the present run, for `engine.sample`
    """
    numbers = {key: float(value) for key, value in body.items() if isinstance(value, int | float)}
    found = []
    for field, least, most, what in RANGES.get(kind, ()):
        value = numbers.get(field)
        if value is not None and not least <= value <= most:
            found.append(Doubt(field, _odd(field, value, what)))
    if kind == "engine.sample":
        found += _sample(numbers, run)
    return found


def _odd(field: str, value: float, what: str) -> str:
    if field not in CELSIUS:
        return f"{value:g} V is far from {what}: the right field, the right number?"
    other = _swapped(value, LEAST_COOLANT_C, 50.0)
    return f"{{temperature {value}}} is far from {what}: {other or 'the right field, the right number?'}"


def _swapped(value_c: float, least: float, most: float) -> str:
    """Words where the number typed makes sense in the other unit."""
    as_f = (value_c - 32) / 1.8  # typed in Fahrenheit into a field of Celsius
    as_c = value_c * 1.8 + 32  # typed in Celsius into a field of Fahrenheit
    if value_c > most and least <= as_f <= most:
        return "typed in Fahrenheit?"
    if value_c < least and least <= as_c <= most:
        return "typed in Celsius?"
    return ""


def _sample(numbers: Mapping[str, float], run: RunSoFar) -> list[Doubt]:
    minute, coolant = numbers.get("minute"), numbers.get("coolant_c")
    found = _when(minute, coolant, run)
    if coolant is not None and not LEAST_COOLANT_C <= coolant <= MOST_COOLANT_C:
        words = _swapped(coolant, LEAST_COOLANT_C, MOST_COOLANT_C) or "the right number?"
        found.append(Doubt("coolant_c", f"{{temperature {coolant}}} is no usual coolant: {words}"))
    elif coolant is not None and minute is not None and (jump := _jump(minute, coolant, run)):
        found.append(Doubt("coolant_c", jump))
    rpm, oil = numbers.get("rpm"), numbers.get("oil_bar")
    if rpm is not None and not LEAST_RPM <= rpm <= MOST_RPM:
        found.append(Doubt("rpm", f"{rpm:g} rpm of a running engine: the right number?"))
    if oil is not None and oil > MOST_OIL_BAR:
        found.append(Doubt("oil_bar", f"{{pressure {oil}}} of oil: typed in another unit?"))
    return found


def _when(minute: float | None, coolant: float | None, run: RunSoFar) -> list[Doubt]:
    if minute is None:
        return []
    # A run typed in afterwards is asked about once: its other readings are ahead of the clock too.
    ahead = None if run.elapsed is None else run.elapsed + EARLY_MIN
    if ahead is not None and minute > ahead and not any(at > ahead for at, _ in run.read):
        return [Doubt("minute", f"the run began {run.elapsed:.0f} min ago: minute {minute:g} is still to come")]
    for at, before in run.read:
        same = coolant is not None and before is not None and abs(before - coolant) <= SAME_C
        if abs(at - minute) <= SAME_MIN and same:
            return [Doubt("minute", f"minute {minute:g} is noted with this reading already: the same one twice?")]
    last = max((at for at, _ in run.read), default=None)
    if last is not None and minute < last - SAME_MIN:
        return [Doubt("minute", f"minute {minute:g} lies before the last one, {last:g}: noted late, or a slip?")]
    return []


def _jump(minute: float, coolant: float, run: RunSoFar) -> str:
    """Words where a coolant reading leaps from its neighbour in time faster than an engine heats or cools."""
    told = [(at, value) for at, value in run.read if value is not None]
    if not told:
        return ""
    at, before = min(told, key=lambda one: abs(one[0] - minute))
    if abs(coolant - before) <= STEEP_C * max(1.0, abs(minute - at)) + SLACK_C:
        return ""
    other = _swapped_near(coolant, before) or "read it once more"
    return f"{{temperature {coolant}}} after {{temperature {before}}} at minute {at:g}: {other}"


def _swapped_near(value_c: float, near_c: float) -> str:
    for other, words in (((value_c - 32) / 1.8, "typed in Fahrenheit?"), (value_c * 1.8 + 32, "typed in Celsius?")):
        if abs(other - near_c) <= STEEP_C:
            return words
    return ""
