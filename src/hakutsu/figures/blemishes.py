"""Blemishes on the shell sheet: each kind of mark has its own small sign, numbered as in the list beside it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from hakutsu.figures.svg import tag, text
from hakutsu.vehicle.shell import Patch

Point = tuple[float, float]
HOLLOW = frozenset({"dent", "ding", "crease", "hail"})
R = 3.6
NUMBER_CM = 14.0


@dataclass(frozen=True, slots=True)
class Mark:
    """One blemish: its number in the list, panel, kind, places (u, v), words, and whether one contact holds it."""

    number: int
    panel: str
    kind: str
    path: Sequence[tuple[float, float]]
    words: str
    joined: bool = False


def blemish_marks(marks: Sequence[Mark], patches: Mapping[str, Patch]) -> str:
    """Draw all marks that have a place on a panel of the sheet, as a group.

    A line runs from end to end, a field lies in its outline, a dent is a ring, everything else a small lozenge.
    """
    return "".join(_mark(one, patches[one.panel]) for one in marks if one.panel in patches and one.path)


def _mark(one: Mark, patch: Patch) -> str:
    points = [patch.at(u, v) for u, v in one.path]
    x, y = points[0]
    if len(points) == 2:
        (x, y), (a, b) = points
        sign = tag("path", d=f"M{x:.1f} {y:.1f}L{a:.1f} {b:.1f}", class_="bl-line")
        x, y = (x + a) / 2, (y + b) / 2
    elif len(points) > 2:
        outline = "M" + "L".join(f"{a:.1f} {b:.1f}" for a, b in points) + "Z"
        sign = tag("path", d=outline, class_="bl-field")
    elif one.kind in HOLLOW:
        sign = tag("circle", cx=f"{x:.1f}", cy=f"{y:.1f}", r=R, class_="bl-ring")
    else:
        sign = tag("path", d=f"M{x:.1f} {y - R:.1f}l{R} {R}l-{R} {R}l-{R} -{R}Z", class_="bl-lozenge")
    # Near the right edge of its patch, where the sheet may end, the number stands on the left.
    left = x > max(corner for corner, _ in patch.corners) - NUMBER_CM
    place, anchor = (x - R - 1, "end") if left else (x + R + 1, "start")
    number = tag(
        "text", str(one.number), x=f"{place:.1f}", y=f"{y - R + 1:.1f}", text_anchor=anchor, class_="bl-number"
    )
    kind = "bl-mark bl-joined" if one.joined else "bl-mark"
    return tag("g", tag("title", text(f"{one.number}: {one.words}")), sign, number, class_=kind)
