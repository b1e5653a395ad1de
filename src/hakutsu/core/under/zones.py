"""Findings by zone of the underside; an untouched underside ages evenly."""

from __future__ import annotations

from collections.abc import Mapping

from hakutsu.core.corners.found import Follows, Found
from hakutsu.entries.body import Coating, RustGrade
from hakutsu.entries.under import Exhaust, Pipes, RepairSign, UnderZone
from hakutsu.vehicle.under import zones

GRADES = list(RustGrade)
REPAIRED = (RepairSign.WELD, RepairSign.PATCH, RepairSign.PULLED, RepairSign.HOLES)

PIPES = {
    Pipes.LOOSE: ("pipes not clipped as made: they rub through", Follows.LOOK),
    Pipes.RUSTED: ("pipes rusted", Follows.SETTLE),
    Pipes.WET: ("pipes wet: find which, and note the leak", Follows.SETTLE),
}
EXHAUSTS = {
    Exhaust.PATCHED: ("exhaust patched", Follows.BUDGET),
    Exhaust.LOOSE: ("exhaust hangs loose", Follows.BUDGET),
    Exhaust.LEAKS: ("exhaust leaks: fumes can reach the cabin, run it with windows open", Follows.SETTLE),
}


def zone_found(look: UnderZone) -> list[Found]:
    """What one zone says."""
    zone, found = zones()[look.zone], list[Found]()
    reasons = (f"{look.size_mm:g} mm",) if look.size_mm else ()
    if look.rust is not None and look.rust not in (RustGrade.STAIN, RustGrade.SURFACE):
        deep = look.rust is not RustGrade.SCALE
        carries = " in what carries" if zone.carries else ""
        follows = Follows.SETTLE if deep and zone.carries else Follows.BUDGET
        found.append(Found(zone.key, f"rust, {look.rust}{carries}", follows, reasons))
        if zone.carries and not look.other_side:
            found.append(Found(zone.key, "look at it from the other side too", Follows.LOOK))
    if look.coating is Coating.FRESH:
        found.append(Found(zone.key, "fresh coating on a fresh wash: what does it cover?", Follows.LOOK))
    if look.damage:
        follows = Follows.SETTLE if zone.carries else Follows.LOOK
        found.append(Found(zone.key, ", ".join(map(str, look.damage)), follows))
    if look.repair:
        grave = zone.carries and any(one in REPAIRED for one in look.repair)
        words = f"somebody worked here: {', '.join(map(str, look.repair))}"
        found.append(Found(zone.key, words, Follows.SETTLE if grave else Follows.LOOK, ("a cue for the story",)))
    if look.missing:
        found.append(Found(zone.key, f"missing: {look.missing}", Follows.LOOK))
    if row := PIPES.get(look.pipes):
        found.append(Found(zone.key, *row))
    if row := EXHAUSTS.get(look.exhaust):
        found.append(Found(zone.key, *row, job="exhaust_rear"))
    if look.catalyst is False:
        found.append(Found(zone.key, "catalytic converter not there", Follows.SETTLE, job="catalytic_converter"))
    return found


def uneven(looks: Mapping[str, UnderZone]) -> list[Found]:
    """Twins that did not age alike: two grades of rust apart, or one worked on."""
    found = []
    for key, look in looks.items():
        twin = zones()[key].twin
        if zones()[key].side != "left" or twin is None or twin not in looks:
            continue
        grades = [0 if one.rust is None else 1 + GRADES.index(one.rust) for one in (look, looks[twin])]
        if abs(grades[0] - grades[1]) >= 2:
            less = "left" if grades[0] < grades[1] else "right"
            words = f"the {{{less}}} side is much cleaner than its twin: replaced, or the other was hit"
            found.append(Found(key, words, Follows.LOOK, ("an untouched underside ages evenly",)))
    return found
