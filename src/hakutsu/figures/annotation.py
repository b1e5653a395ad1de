"""Marks drawn beside a picture: arrows, rings and texts as vectors over it, never in its bytes."""

from __future__ import annotations

from collections.abc import Sequence
from math import atan2, cos, hypot, pi, sin

from hakutsu.entries.pictures import Annotation, Shape
from hakutsu.figures.svg import tag, text

WIDE = 1000.0
HEAD = 34.0


def annotation_svg(marks: Sequence[Annotation], width: int, height: int) -> str:
    """The marks as an SVG element that lies over a picture of that many pixels."""
    high = WIDE * height / width if width and height else WIDE
    words = "; ".join(f"{mark.shape}{f': {mark.text}' if mark.text else ''}" for mark in marks)
    label = f"marks: {words}" if words else "no marks"
    drawn = [_mark(mark, high) for mark in marks]
    return tag("svg", *drawn, class_="annotation", viewBox=f"0 0 {WIDE:.0f} {high:.0f}", role="img", aria_label=label)


def _mark(mark: Annotation, high: float) -> str:
    points = [(u * WIDE, v * high) for u, v in mark.points]
    x, y = points[0]
    a, b = points[-1]
    said = tag("text", text(mark.text), x=f"{x:.0f}", y=f"{y:.0f}", class_="an-text") if mark.text else ""
    if mark.shape is Shape.RING:
        radius = max(hypot(a - x, b - y), 12.0)
        return tag("g", tag("circle", cx=f"{x:.0f}", cy=f"{y:.0f}", r=f"{radius:.0f}", class_="an-line"), said)
    if mark.shape is Shape.ARROW:
        return tag("g", tag("path", d=f"M{x:.0f} {y:.0f}L{a:.0f} {b:.0f}{_head(x, y, a, b)}", class_="an-line"), said)
    return said


def _head(x: float, y: float, a: float, b: float) -> str:
    way = atan2(b - y, a - x)
    sides = [(a - HEAD * cos(way + turn), b - HEAD * sin(way + turn)) for turn in (pi / 7, -pi / 7)]
    return "".join(f"M{a:.0f} {b:.0f}L{p:.0f} {q:.0f}" for p, q in sides)
