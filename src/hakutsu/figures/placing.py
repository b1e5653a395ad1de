"""Where words and numbers of a drawing stand so that none covers another: a small greedy solver (ours)."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from math import cos, hypot, pi, sin

Point = tuple[float, float]
CELL = 24.0  # side of the grid's cells, in units of the drawing
WIDE_PER_CHARACTER = 0.62  # of the type size: the monospaced family's advance
GAP = 0.25  # of the type size: air between two numbers in a row
HIGH = 0.86  # of the type size: a line of digits with its air
RINGS = (0.0, 0.5, 1.0, 1.5, 2.0, 2.6)  # how far from its place a number may go, in heights of a line
DIRECTIONS = 12
FARTHEST = 12


@dataclass(frozen=True, slots=True)
class Box:
    """An upright rectangle of the drawing."""

    left: float
    top: float
    right: float
    bottom: float

    @classmethod
    def around(cls, x: float, y: float, wide: float, high: float) -> Box:
        """The box of that size with its middle at (x, y)."""
        return cls(x - wide / 2, y - high / 2, x + wide / 2, y + high / 2)

    @classmethod
    def of_words(cls, words: str, x: float, y: float, size: float) -> Box:
        """The box of one line of monospaced type with its middle at (x, y)."""
        return cls.around(x, y, (WIDE_PER_CHARACTER * len(words) + GAP) * size, HIGH * size)

    @property
    def middle(self) -> Point:
        """Its middle."""
        return (self.left + self.right) / 2, (self.top + self.bottom) / 2

    @property
    def corners(self) -> tuple[Point, Point, Point, Point]:
        """Its corners, clockwise from the upper left."""
        return (self.left, self.top), (self.right, self.top), (self.right, self.bottom), (self.left, self.bottom)

    def meets(self, other: Box) -> bool:
        """Whether the two share more than an edge."""
        apart = self.right <= other.left or other.right <= self.left
        return not (apart or self.bottom <= other.top or other.bottom <= self.top)

    def moved(self, x: float, y: float) -> Box:
        """The box, that far on."""
        return Box(self.left + x, self.top + y, self.right + x, self.bottom + y)


def inside(box: Box, corners: Sequence[Point], slack: float = 0.0) -> bool:
    """Whether a box lies within a convex patch, but for `slack` beyond its edges."""
    (ax, ay), (bx, by), (cx, cy), *_ = corners
    turn = 1.0 if (bx - ax) * (cy - by) - (by - ay) * (cx - bx) > 0 else -1.0
    for (ax, ay), (bx, by) in pairwise((*corners, corners[0])):
        dx, dy = turn * (bx - ax), turn * (by - ay)
        long = hypot(dx, dy)
        if long and any(dx * (y - ay) - dy * (x - ax) < -slack * long for x, y in box.corners):
            return False
    return True


class Room:
    """What of a drawing is taken; boxes are found again by the cells of a grid they lie in."""

    def __init__(self) -> None:
        self._cells: defaultdict[tuple[int, int], list[Box]] = defaultdict(list)

    def free(self, box: Box) -> bool:
        """Whether nothing stands there."""
        return not any(box.meets(other) for cell in _cells(box) for other in self._cells.get(cell, ()))

    def meetings(self, box: Box) -> int:
        """How many boxes it would cover."""
        return len({other for cell in _cells(box) for other in self._cells.get(cell, ()) if box.meets(other)})

    def take(self, box: Box) -> Box:
        """Let nothing else stand there."""
        for cell in _cells(box):
            self._cells[cell].append(box)
        return box

    def take_line(self, a: Point, b: Point, thick: float) -> None:
        """Take a line from end to end, as boxes along it."""
        steps = max(1, round(hypot(b[0] - a[0], b[1] - a[1]) / thick))
        for i in range(steps + 1):
            share = i / steps
            self.take(Box.around(a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1]), thick, thick))

    def first(self, candidates: Iterable[Box], within: Sequence[Point] | None = None, slack: float = 0.0) -> Box | None:
        """Take the first candidate that is free, and inside the patch where one is given; none if there is none."""
        for box in candidates:
            if (within is None or inside(box, within, slack)) and self.free(box):
                return self.take(box)
        return None


def _cells(box: Box) -> Iterator[tuple[int, int]]:
    for i in range(int(box.left // CELL), int(box.right // CELL) + 1):
        for j in range(int(box.top // CELL), int(box.bottom // CELL) + 1):
            yield i, j


def nearby(box: Box) -> Iterator[Box]:
    """A box where it belongs, then in rings around that place."""
    wide, high = box.right - box.left, box.bottom - box.top
    x, y = box.middle
    yield box
    for ring in RINGS[1:]:
        for i in range(DIRECTIONS):
            angle = 2 * pi * i / DIRECTIONS
            yield Box.around(x + cos(angle) * ring * wide * 0.7, y + sin(angle) * ring * high, wide, high)


def beside(box: Box, wide: float, high: float, gap: float = 2.0) -> Iterator[Box]:
    """Places for a number of that size round a sign: above right first, then round it."""
    x, y = box.middle
    far_x, far_y = (box.right - box.left + wide) / 2 + gap, (box.bottom - box.top + high) / 2 + gap
    half_y = far_y / 2
    for dx, dy in (
        (far_x, -half_y), (far_x, 0), (far_x, half_y), (0, -far_y), (0, far_y),
        (-far_x, -half_y), (-far_x, 0), (-far_x, half_y), (far_x, -far_y), (-far_x, far_y),
        (far_x, far_y), (-far_x, -far_y),
    ):  # fmt: skip
        yield Box.around(x + dx, y + dy, wide, high)


def around(box: Box) -> Iterator[Box]:
    """Wherever there may be room at all, the nearer the sooner."""
    wide, high = box.right - box.left, box.bottom - box.top
    x, y = box.middle
    for ring in range(1, FARTHEST):
        for i in range(4 * ring + 8):
            angle = 2 * pi * i / (4 * ring + 8)
            yield Box.around(x + cos(angle) * ring * high, y + sin(angle) * ring * high, wide, high)
