"""Our schematic of the underside: zones as patches, as if through a glass floor, lying as the shell sheet does."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from hakutsu.figures.svg import tag, text
from hakutsu.figures.zone_signs import NAMES, zone_sign
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.under import Box, fitted_zones

HALF, LONG = 116.0, 700.0
SIGN, NAME_HIGH, MARGIN = 22.0, 16.0, 6.0
STATES = {"seen": "nothing found", "hidden": "not visible", "untouched": "not looked at", "found": ""}


@dataclass(frozen=True, slots=True)
class ZoneShown:
    """A zone as it is drawn: untouched, seen, found or hidden; the marks of what was found; whether it is settled."""

    state: str
    marks: tuple[str, ...] = ()
    grave: bool = False


def under_schematic(
    shown: Mapping[str, ZoneShown],
    chosen: str = "",
    terms: Terms = PLAIN,
    *,
    linked: bool = True,
    separate_frame: bool = False,
    upright: bool = False,
) -> str:
    """Draw every zone this vehicle has: signs say what was found, hidden ones are hatched.

    The nose lies to the left and the vehicle's own left below, as on the shell sheet; `upright`, for a narrow screen,
    the nose above and left at the left.
    """
    key = "ud-hatch-upright" if upright else "ud-hatch"
    lines = "".join(tag("path", d=f"M{i} 0V8", class_="ud-hatch-line") for i in (0, 4, 8))
    hatch = tag("pattern", lines, id=key, width=8, height=8, patternUnits="userSpaceOnUse",
                patternTransform="rotate(45)")  # fmt: skip
    lies = "nose above, left at the left" if upright else "nose to the left, left below"
    parts = [tag("title", f"The underside as seen from above, through the floor: {lies}"), tag("defs", hatch)]
    for key, zone in fitted_zones(separate_frame=separate_frame).items():
        one = shown.get(key, ZoneShown("untouched"))
        classes = f"ud-zone ud-{one.state}{' ud-grave' if one.grave else ''}{' ud-chosen' if key == chosen else ''}"
        said = f"{terms.say(zone.name)}: {', '.join(NAMES[mark] for mark in one.marks) or STATES[one.state]}"
        inside = tag("title", text(said)) + _zone(zone.short, _laid(zone.patch, upright=upright), one, classes)
        link = {"href": f"#zone-{key}", "data_zone": key} if linked else {}
        parts.append(tag("a" if linked else "g", inside, **link))
    return tag("svg", *parts, *_sides(terms, upright=upright), class_="under ud-upright" if upright else "under",
               viewBox=_frame(upright=upright), role="group", aria_label="Zones of the underside")  # fmt: skip


def _laid(patch: Box, *, upright: bool) -> Box:
    """A patch of the table (nose left, left above) as it is drawn."""
    x, y, long, across = patch
    return (y, x, across, long) if upright else (x, -y - across, long, across)


def _frame(*, upright: bool) -> str:
    wide, high = (2 * HALF, LONG) if upright else (LONG, 2 * HALF)
    left, top = (-HALF, 0.0) if upright else (0.0, -HALF)
    return f"{left - MARGIN:g} {top - 14:g} {wide + 2 * MARGIN:g} {high + 28:g}"


def _zone(short: str, box: Box, one: ZoneShown, classes: str) -> str:
    """Patch, short name, and the signs of what was found: below the name where there is room, else behind it."""
    x, y, wide, high = box
    inside = [tag("rect", x=x, y=y, width=wide, height=high, class_=classes)]
    inside.append(tag("text", text(short), x=x + 5, y=y + 13, class_="ud-name", aria_hidden="true"))
    marks = one.marks or (("seen",) if one.state == "seen" else ())
    count, name_wide = max(1, len(marks)), 5 + 6.5 * len(short)
    size_below = min(SIGN, (wide - 4) / count - 3, high - NAME_HIGH - 2)
    size_behind = min(SIGN, (wide - name_wide - 4) / count - 3, high - 4)
    below = size_below >= size_behind
    size = max(size_below, size_behind)
    spare = wide - count * (size + 3)
    start = x + (spare / 2 if below else max(name_wide, spare / 2))
    top = y + NAME_HIGH + (high - NAME_HIGH - size) / 2 if below else y + (high - size) / 2
    inside += [zone_sign(mark, start + i * (size + 3) + 1.5, top, size) for i, mark in enumerate(marks)]
    return "".join(inside)


def _sides(terms: Terms, *, upright: bool) -> list[str]:
    left, right = terms.side("left"), terms.side("right")
    places: tuple[tuple[str, float, float, str], ...]
    if upright:
        places = ((left, -HALF, -3, "start"), ("↑ nose", 0, -3, "middle"), (right, HALF, -3, "end"))
    else:
        places = (
            (right, LONG / 2, 2 - HALF, "middle"),
            (left, LONG / 2, HALF + 10, "middle"),
            ("← nose", 0, HALF + 10, "start"),
        )
    return [tag("text", text(said), x=x, y=y, text_anchor=at, class_="lc-when") for said, x, y, at in places]
