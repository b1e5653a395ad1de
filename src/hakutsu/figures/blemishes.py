"""Blemishes on the shell sheet: each kind of mark has its own small sign, numbered as in the list beside it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from hakutsu.figures.placing import Box, Point, Room, around, beside
from hakutsu.figures.svg import tag, text
from hakutsu.vehicle.shell import Patch

HOLLOW = frozenset({"dent", "ding", "crease", "hail"})
R = 3.6
LINE_CM = 2.6


def mark_words(said: str, box: Box, size: float) -> str:
    """A number of a mark, or a count of marks, in its box."""
    x, y = box.middle
    at = {"x": f"{x:.1f}", "y": f"{y + 0.32 * size:.1f}", "text_anchor": "middle"}
    return tag("text", text(said), **at, class_="bl-number")


@dataclass(frozen=True, slots=True)
class Mark:
    """One blemish: its number in the list, panel, kind, places (u, v), words, and whether one contact holds it."""

    number: int
    panel: str
    kind: str
    path: Sequence[tuple[float, float]]
    words: str
    joined: bool = False


@dataclass(frozen=True, slots=True)
class Sign:
    """The sign of a mark at its place: a line runs from end to end, a field lies in its outline, a dent is a ring,
    everything else a small lozenge. Its number stands beside one of `anchors`.
    """

    mark: Mark
    points: tuple[Point, ...]

    @classmethod
    def of(cls, mark: Mark, patch: Patch) -> Sign:
        """The sign where the mark lies on its patch."""
        return cls(mark, tuple(patch.at(u, v) for u, v in mark.path))

    @property
    def anchors(self) -> list[Box]:
        """What its number may stand beside: the sign, a line's middle and ends, the corners of an outline."""
        if len(self.points) == 1:
            return [Box.around(*self.points[0], 2 * R, 2 * R)]
        if len(self.points) == 2:
            (x, y), (a, b) = self.points
            return [Box.around(*point, LINE_CM, LINE_CM) for point in (((x + a) / 2, (y + b) / 2), *self.points)]
        return [Box.around(*point, LINE_CM, LINE_CM) for point in self.points]

    def take(self, room: Room) -> None:
        """Let no number stand over it."""
        if len(self.points) == 1:
            room.take(self.anchors[0])
        ends = self.points if len(self.points) <= 2 else (*self.points, self.points[0])
        for a, b in pairwise(ends):
            room.take_line(a, b, LINE_CM)

    def number_box(self, room: Room, size: float, within: Sequence[Point], *, far: bool) -> Box | None:
        """Where its number stands, in type of that size: beside its sign or, with `far`, wherever there is room."""
        wide, high = Box.of_words(str(self.mark.number), 0, 0, size).corners[2]
        anchors = self.anchors
        near = (box for anchor in anchors for box in beside(anchor, 2 * wide, 2 * high))
        found = room.first(near, within)
        if found is None and far:
            found = room.first(around(Box.around(*anchors[0].middle, 2 * wide, 2 * high)), within)
        return found

    def drawn(self, number: Box | None, size: float) -> str:
        """Sign and number as markup; without room it is the sign alone."""
        said = tag("title", text(f"{self.mark.number}: {self.mark.words}"))
        kind = "bl-mark bl-joined" if self.mark.joined else "bl-mark"
        return tag(
            "g", said, self._shape(), mark_words(str(self.mark.number), number, size) if number else "", class_=kind
        )

    def _shape(self) -> str:
        x, y = self.points[0]
        line = "M" + "L".join(f"{a:.1f} {b:.1f}" for a, b in self.points)
        if len(self.points) == 2:
            return tag("path", d=line, class_="bl-line")
        if len(self.points) > 2:
            return tag("path", d=line + "Z", class_="bl-field")
        if self.mark.kind in HOLLOW:
            return tag("circle", cx=f"{x:.1f}", cy=f"{y:.1f}", r=R, class_="bl-ring")
        return tag("path", d=f"M{x:.1f} {y - R:.1f}l{R} {R}l-{R} {R}l-{R} -{R}Z", class_="bl-lozenge")
