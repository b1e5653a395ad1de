"""The panel map: where each panel of a body lies on the shell sheet, its area, and which panels it touches."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache, lru_cache
from math import hypot
from typing import Any

from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.table_models import ShellsTable
from hakutsu.vehicle.tables import read_table

Point = tuple[float, float]
SEAM_CM = 2.0
SPARE = (56.0, 34.0)  # a panel the body usually lacks is laid beside the skin, this long and wide [cm]
BETWEEN_SPARES_CM = 10.0


@dataclass(frozen=True, slots=True)
class Patch:
    """One panel on the sheet [cm]: its corners at (u, v) = (0, 0), (1, 0), (1, 1), (0, 1); `joined` is false for a
    panel laid beside the skin because the body style usually lacks it.
    """

    panel: str
    corners: tuple[Point, Point, Point, Point]
    joined: bool = True

    def at(self, u: float, v: float) -> Point:
        """The place of (u, v) on the sheet [cm], bilinear between the corners."""
        weights = ((1 - u) * (1 - v), u * (1 - v), u * v, (1 - u) * v)
        x = sum(w * c[0] for w, c in zip(weights, self.corners, strict=True))
        y = sum(w * c[1] for w, c in zip(weights, self.corners, strict=True))
        return x, y

    @property
    def area_cm2(self) -> float:
        """Area of the patch [cm²]."""
        pairs = zip(self.corners, self.corners[1:] + self.corners[:1], strict=True)
        return abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairs)) / 2


@cache
def _table() -> dict[tuple[str, int], dict[str, Any]]:
    return {(row["style"], row["doors"]): row for row in read_table("vehicle", "shells", ShellsTable)["shell"]}


def _middle(panel: str, row: Sequence[Any]) -> Patch:
    """Across the vehicle: its own left lies below the centre line of the sheet, its nose to the left."""
    start, end, half, up = row
    left, right = float(half), -float(half)
    if panels()[panel].side == "left":
        right = 0.0
    elif panels()[panel].side == "right":
        left = 0.0
    low, high = (start, end) if up == "front" else (end, start)
    return Patch(panel, ((low, left), (low, right), (high, right), (high, left)))


def _flank(panel: str, row: Sequence[float]) -> Patch:
    x0, x1, low, x2, x3, high = (float(x) for x in row)
    way = 1 if panels()[panel].side == "left" else -1
    return Patch(panel, ((x0, way * low), (x1, way * low), (x3, way * high), (x2, way * high)))


@lru_cache(maxsize=32)
def shell(style: str, doors: int, fitted: tuple[str, ...]) -> Mapping[str, Patch]:
    """The patches of the fitted panels.

    Panels this body style usually lacks are laid in a row below the skin, joined to nothing.

    Raises
    ------
    KeyError
        If there is no shell for the style and number of doors.
    """
    row = _table()[style, doors]
    found: dict[str, Patch] = {}
    lowest = 0.0
    for panel in fitted:
        name = panel.removesuffix("_left").removesuffix("_right")
        if name in row["middle"]:
            found[panel] = _middle(panel, row["middle"][name])
        elif name in row["flank"] and panels()[panel].side:
            found[panel] = _flank(panel, row["flank"][name])
    lowest = max((y for patch in found.values() for _, y in patch.corners), default=0.0) + BETWEEN_SPARES_CM
    x = 28.0
    for panel in fitted:
        if panel not in found:
            long, wide = SPARE
            corners = ((x, lowest + wide), (x + long, lowest + wide), (x + long, lowest), (x, lowest))
            found[panel] = Patch(panel, corners, joined=False)
            x += long + BETWEEN_SPARES_CM
    return found


def neighbours(patches: Mapping[str, Patch]) -> dict[str, tuple[str, ...]]:
    """The panels each panel touches: patches that come within 2 cm of each other."""
    return dict(_touching(tuple(patches.values())))


@cache
def _touching(patches: tuple[Patch, ...]) -> Mapping[str, tuple[str, ...]]:
    joined = [patch for patch in patches if patch.joined]
    found: dict[str, list[str]] = {patch.panel: [] for patch in patches}
    for i, one in enumerate(joined):
        for other in joined[i + 1 :]:
            if _apart(one, other) <= SEAM_CM:
                found[one.panel].append(other.panel)
                found[other.panel].append(one.panel)
    return {panel: tuple(others) for panel, others in found.items()}


def _apart(one: Patch, other: Patch) -> float:
    """Least distance between two convex patches that do not overlap: from a corner of one to an edge of the other."""
    return min(
        _to_edge(corner, a, b)
        for first, second in ((one, other), (other, one))
        for corner in first.corners
        for a, b in zip(second.corners, second.corners[1:] + second.corners[:1], strict=True)
    )


def _to_edge(p: Point, a: Point, b: Point) -> float:
    ax, ay, bx, by = a[0], a[1], b[0] - a[0], b[1] - a[1]
    long = bx * bx + by * by
    t = max(0.0, min(1.0, ((p[0] - ax) * bx + (p[1] - ay) * by) / long)) if long else 0.0
    return hypot(p[0] - ax - t * bx, p[1] - ay - t * by)
