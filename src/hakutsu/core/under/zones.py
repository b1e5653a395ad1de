"""Findings by zone of the underside; an untouched underside ages evenly."""

from __future__ import annotations

from collections.abc import Mapping

from hakutsu.core.consequence import SEEN
from hakutsu.core.findings import Finding, found
from hakutsu.entries.body import Coating, RustGrade
from hakutsu.entries.under import Exhaust, Pipes, RepairSign, UnderZone, ZoneClear
from hakutsu.vehicle.under import zones

GRADES = list(RustGrade)
REPAIRED = (RepairSign.WELD, RepairSign.PATCH, RepairSign.PULLED, RepairSign.HOLES)

PIPES = {
    Pipes.LOOSE: "pipes not clipped as made: they rub through",
    Pipes.RUSTED: "pipes rusted",
    Pipes.WET: "pipes wet: find which, and note the leak",
}
EXHAUSTS = {
    Exhaust.PATCHED: "exhaust patched",
    Exhaust.LOOSE: "exhaust hangs loose",
    Exhaust.LEAKS: "exhaust leaks: fumes can reach the cabin, run it with windows open",
}


def zone_found(look: UnderZone) -> list[Finding]:
    """What one zone says; of a zone that carries, damage, deep rust and repairs weigh more."""
    zone = zones()[look.zone]
    carried = "_structure" if zone.carries else ""
    seen = [*_rust(look, carried)]
    if look.aged_evenly:
        seen.append(found("under.aged_evenly", zone.key, "untouched, aged alike all over"))
    if look.coating is Coating.FRESH:
        seen.append(found("under.fresh_coating", zone.key, "fresh coating on a fresh wash: what does it cover?"))
    if look.coating is Coating.LATER:
        seen.append(found("under.later_coating", zone.key, "coated later: what does it cover?"))
    seen += [found(f"under.{one.value}{carried}", zone.key, str(one)) for one in look.damage]
    for sign in look.repair:
        grave = carried if sign in REPAIRED else ""
        words = f"somebody worked here: {sign}"
        seen.append(found(f"under.sign_{sign.value}{grave}", zone.key, words, ("a sign of an earlier repair",)))
    if look.missing:
        seen.append(found("under.part_missing", zone.key, f"missing: {look.missing}"))
    if pipes := PIPES.get(look.pipes):
        seen.append(found(f"under.pipes_{look.pipes.value}", zone.key, pipes))
    if exhaust := EXHAUSTS.get(look.exhaust):
        seen.append(found(f"under.exhaust_{look.exhaust.value}", zone.key, exhaust))
    if look.catalyst is False:
        seen.append(found("under.catalyst_missing", zone.key, "catalytic converter not there"))
    return seen


def _rust(look: UnderZone, carried: str) -> list[Finding]:
    if look.rust is None:
        words = f"rust{' on structure' if carried else ''}, its grade not told"
        return [found(f"under.rust_untold{carried}", look.zone, words)] if look.rust_untold else []
    deep = look.rust not in (RustGrade.STAIN, RustGrade.SURFACE)
    code = f"under.rust_{look.rust.value}{carried if deep else ''}"
    words = f"rust{' on structure' if carried and deep else ''}, {look.rust}"
    one_side = bool(carried) and deep and not look.other_side
    why, check = ("seen from one side only", "look at it from the other side too") if one_side else ("", "")
    return [found(code, look.zone, words, (f"{look.size_mm:g} mm",) if look.size_mm else (), why=why, check=check,
                  sureness=SEEN)]  # fmt: skip


def uneven(looks: Mapping[str, UnderZone]) -> list[Finding]:
    """Twins that did not age alike: two grades of rust apart, or one worked on."""
    seen = []
    for key, look in looks.items():
        twin = zones()[key].twin
        if zones()[key].side != "left" or twin is None or twin not in looks:
            continue
        if not all(one.rust is not None or ZoneClear.RUST in one.clear for one in (look, looks[twin])):
            continue
        grades = [0 if one.rust is None else 1 + GRADES.index(one.rust) for one in (look, looks[twin])]
        if abs(grades[0] - grades[1]) >= 2:
            less = "left" if grades[0] < grades[1] else "right"
            words = f"the {{{less}}} side is much cleaner than the other: replaced, or the other was hit"
            seen.append(found("under.twins_unlike", key, words, ("an untouched underside ages evenly",)))
    return seen
