"""Wheels as a set and how they are held."""

from __future__ import annotations

from collections.abc import Mapping

from hakutsu.core.findings import Finding, found
from hakutsu.entries.corners import Liner, SpareKind, Wheel
from hakutsu.vehicle.places import SPARE

POOR_LINERS = (Liner.TORN, Liner.MISSING, Liner.RUSTY)


def wheel_found(place: str, wheel: Wheel) -> list[Finding]:
    """Findings at one wheel."""
    seen = []
    for count, words in ((wheel.fixings_missing, "missing"), (wheel.fixings_loose, "loose")):
        if count:
            many = "s" if count > 1 else ""
            seen.append(found(f"corners.fixings_{words}", place, f"{count} wheel fixing{many} {words}"))
    said = (
        (wheel.fixings_cracked, "fixing_cracked", "a wheel fixing cracked"),
        (wheel.fixings_odd, "fixings_odd", "wheel fixings not all alike"),
        (wheel.lock_key is False, "lock_key_missing", "key of the lock nuts not found"),
        (wheel.odd, "wheel_odd", "odd wheel: where is the fifth?"),
        (wheel.refinished, "wheel_refinished", "this one was refinished"),
        (wheel.cap_missing, "cap_missing", "cap missing"),
    )
    seen += [found(f"corners.{code}", place, words) for there, code, words in said if there]
    if wheel.liner in POOR_LINERS:
        seen.append(
            found(f"corners.liner_{wheel.liner.value}", place, f"inner arch: {wheel.liner}", ("take a picture",))
        )  # fmt: skip
    if wheel.spare is SpareKind.NARROW and place != SPARE:
        words = "a narrow spare is on the vehicle: the road test is limited to its speed"
        seen.append(found("corners.narrow_spare_on", place, words))
    if place == SPARE and wheel.spare is SpareKind.MISSING:
        seen.append(found("corners.spare_missing", place, "nothing where the spare belongs"))
    return seen


def set_found(wheels: Mapping[str, Wheel]) -> list[Finding]:
    """What does not belong together among the wheels on the vehicle."""
    designs = {place: wheel.design for place, wheel in wheels.items() if wheel.design and place != SPARE}
    if len({design.casefold() for design in designs.values()}) < 2:
        return []
    reasons = tuple(f"{{place {place}}}: {design}" for place, design in designs.items())
    words = "wheels of more than one design: where do they come from?"
    return [found("corners.wheel_designs_differ", "wheels", words, reasons)]
