"""Contacts: blemishes that one touch of a post, a door or another vehicle may explain together."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from itertools import combinations
from math import atan2, degrees, hypot
from uuid import UUID

from hakutsu.dossier.body import BodyDossier, Seen
from hakutsu.entries.body import Blemish, BlemishKind
from hakutsu.vehicle.shell import Patch

CONTACT = frozenset({BlemishKind.SCRATCH, BlemishKind.SCUFF, BlemishKind.DENT, BlemishKind.DING, BlemishKind.CREASE})
SAME_HEIGHT_CM = 12.0
APART_CM = 45.0
SAME_WAY_DEG = 25.0
Point = tuple[float, float]


def proposed_events(body: BodyDossier, patches: Mapping[str, Patch]) -> list[tuple[Seen[Blemish], ...]]:
    """Groups of blemishes across seams that one contact may explain, each in the order of the logbook.

    On the peeled skin two belong together when both are marks of a touch, lie within 45 cm of each other and 12 cm of
    the same height, and, where both are lines, run the same way within 25°. A group must cross a seam. Groups already
    joined, or said to have nothing to do with each other, are left out.
    """
    placed = [one for one in body.blemishes.values() if one.body.kind in CONTACT and _points(one, patches)]
    joined = {key for event in body.events.values() for key in event.body.blemishes}
    free = [one for one in placed if one.entry.id not in joined]
    together = {one.entry.id: {one.entry.id} for one in free}
    for one, other in combinations(free, 2):
        if _alike(_points(one, patches), _points(other, patches)):
            _merge(together, one.entry.id, other.entry.id)
    found = []
    for keys in {frozenset(group) for group in together.values()}:
        group = tuple(one for one in free if one.entry.id in keys)
        if len({one.place for one in group}) > 1 and keys not in body.apart:
            found.append(group)
    return sorted(found, key=lambda group: group[0].entry.seq)


def _merge(together: dict[UUID, set[UUID]], one: UUID, other: UUID) -> None:
    whole = together[one] | together[other]
    for key in whole:
        together[key] = whole


def _points(one: Seen[Blemish], patches: Mapping[str, Patch]) -> list[Point]:
    patch = patches.get(one.place)
    return [patch.at(u, v) for u, v in one.body.path] if patch is not None and patch.joined else []


def _alike(one: Sequence[Point], other: Sequence[Point]) -> bool:
    (_, y), (_, b) = _middle(one), _middle(other)
    near = min(hypot(p[0] - q[0], p[1] - q[1]) for p in one for q in other) <= APART_CM
    if not near or abs(abs(y) - abs(b)) > SAME_HEIGHT_CM or y * b < 0:
        return False
    if len(one) == 2 and len(other) == 2:
        turn = abs(_direction(one) - _direction(other)) % 180
        return min(turn, 180 - turn) <= SAME_WAY_DEG
    return True


def _middle(points: Iterable[Point]) -> Point:
    found = list(points)
    return sum(x for x, _ in found) / len(found), sum(y for _, y in found) / len(found)


def _direction(line: Sequence[Point]) -> float:
    (x0, y0), (x1, y1) = line
    return degrees(atan2(y1 - y0, x1 - x0))
