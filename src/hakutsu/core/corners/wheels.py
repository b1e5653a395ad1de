"""Wheels as a set and how they are held."""

from __future__ import annotations

from collections.abc import Mapping

from hakutsu.core.corners.found import Follows, Found
from hakutsu.entries.corners import Liner, SpareKind, Wheel
from hakutsu.vehicle.places import SPARE

POOR_LINERS = (Liner.TORN, Liner.MISSING, Liner.RUSTY)


def wheel_found(place: str, wheel: Wheel) -> list[Found]:
    """Findings at one wheel."""
    found = []
    for count, words in ((wheel.fixings_missing, "missing"), (wheel.fixings_loose, "loose")):
        if count:
            many = "s" if count > 1 else ""
            found.append(Found(place, f"{count} wheel fixing{many} {words}", Follows.SETTLE))
    said = (
        (wheel.fixings_cracked, "a wheel fixing cracked", Follows.SETTLE),
        (wheel.fixings_odd, "wheel fixings not all alike", Follows.LOOK),
        (wheel.lock_key is False, "key of the lock nuts not found", Follows.SETTLE),
        (wheel.odd, "another wheel than the rest: where is the fifth?", Follows.LOOK),
        (wheel.refinished, "this one was refinished", Follows.NOTE),
        (wheel.cap_missing, "cap missing", Follows.NOTE),
    )
    found += [Found(place, words, follows) for there, words, follows in said if there]
    if wheel.liner in POOR_LINERS:
        found.append(Found(place, f"inner arch: {wheel.liner}", Follows.LOOK, ("take a picture",)))
    if wheel.spare is SpareKind.NARROW and place != SPARE:
        words = "a narrow spare is on the vehicle: the road test is limited to its speed"
        found.append(Found(place, words, Follows.LOOK))
    if place == SPARE and wheel.spare is SpareKind.MISSING:
        found.append(Found(place, "nothing where the spare belongs", Follows.LOOK))
    return found


def set_found(wheels: Mapping[str, Wheel]) -> list[Found]:
    """What does not belong together among the wheels on the vehicle."""
    designs = {place: wheel.design for place, wheel in wheels.items() if wheel.design and place != SPARE}
    if len({design.casefold() for design in designs.values()}) < 2:
        return []
    reasons = tuple(f"{{place {place}}}: {design}" for place, design in designs.items())
    return [Found("", "wheels of more than one design: where do they come from?", Follows.LOOK, reasons)]
