"""Our schematic of the underside: zones as patches, nose to the left, seen from below."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from hakutsu.figures.svg import tag, text
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.under import fitted_zones

HALF, WIDE = 116.0, 700.0
NARROW = 60.0  # in smaller patches the letters stand below the name
STATES = {"seen": "nothing found", "hidden": "not visible", "untouched": "not looked at", "found": ""}
MARKS = {"rust": "R", "damage": "D", "repair": "W", "missing": "M", "leak": "L"}


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
) -> str:
    """Draw every zone this vehicle has; letters say what was found: R rust, D damage, W worked on, M missing, L leak;
    hidden ones are hatched.
    """
    lines = "".join(tag("path", d=f"M{i} 0V8", class_="ud-hatch-line") for i in (0, 4, 8))
    hatch = tag("pattern", lines, id="ud-hatch", width=8, height=8, patternUnits="userSpaceOnUse",
                patternTransform="rotate(45)")  # fmt: skip
    parts = [tag("title", "The underside, nose to the left, seen from below"), tag("defs", hatch)]
    for key, zone in fitted_zones(separate_frame=separate_frame).items():
        one = shown.get(key, ZoneShown("untouched"))
        x, y, wide, high = zone.patch
        name = terms.say(zone.name)
        said = f"{name}: {', '.join(one.marks) or STATES[one.state]}"
        classes = f"ud-zone ud-{one.state}{' ud-grave' if one.grave else ''}{' ud-chosen' if key == chosen else ''}"
        inside = [tag("title", text(said)), tag("rect", x=x, y=y, width=wide, height=high, class_=classes)]
        inside.append(tag("text", text(zone.short), x=x + 5, y=y + 13, class_="ud-name", aria_hidden="true"))
        letters = " ".join(MARKS[mark] for mark in one.marks) or ("✓" if one.state == "seen" else "")
        if letters:
            low = high - 5 if wide < NARROW and high < NARROW else high / 2 + 6
            place = {"x": x + wide / 2, "y": y + low, "text_anchor": "middle"}
            inside.append(tag("text", letters, **place, class_="ud-mark", aria_hidden="true"))
        if linked:
            parts.append(tag("a", *inside, href=f"#zone-{key}", data_zone=key))
        else:
            parts.append(tag("g", *inside))
    for words, y in ((terms.side("left"), -HALF + 2), (terms.side("right"), HALF + 6)):
        parts.append(tag("text", text(words), x=352, y=y, text_anchor="middle", class_="lc-when"))
    return tag("svg", *parts, class_="under", viewBox=f"-6 {-HALF - 14} {WIDE + 12} {2 * HALF + 28}", role="group",
               aria_label="Zones of the underside")  # fmt: skip
