"""One story: findings that explain each other, told once with both sides named."""

from __future__ import annotations

import re
import tomllib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from uuid import UUID

from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.equipment import equipment
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.parts import parts
from hakutsu.vehicle.places import place_of_panel, places
from hakutsu.vehicle.under import zones

FRONT, REAR = ("bay", "under_front"), ("boot", "under_rear")


@dataclass(frozen=True, slots=True)
class Finding:
    """A finding as the rules see it: its entry where it has one, kind, place, and words to match."""

    kind: str
    place: str
    words: str
    entry: UUID | None = None


@dataclass(frozen=True, slots=True)
class Story:
    """Findings that explain others, and how: both sides in the order they were found, each named once."""

    rule: str
    ones: tuple[Finding, ...]
    others: tuple[Finding, ...]
    words: str


@dataclass(frozen=True, slots=True)
class _Rule:
    key: str
    one: re.Pattern[str]
    other: re.Pattern[str]
    where: str
    words: str


@cache
def _rules() -> tuple[_Rule, ...]:
    table = tomllib.loads((files("hakutsu.core") / "data" / "stories.toml").read_text(encoding="utf-8"))
    return tuple(
        _Rule(key, re.compile(row["one"], re.I), re.compile(row["other"], re.I), row["where"], row["words"])
        for key, row in table.items()
    )


def stories(findings: Sequence[Finding]) -> list[Story]:
    """Every story that a rule tells, in the order of the rules; a finding never explains itself.

    Pairs of one rule that share a finding are told as one.
    """
    found = []
    for rule in _rules():
        ones = [one for one in findings if rule.one.search(f"{one.kind} {one.words}")]
        others = [one for one in findings if rule.other.search(f"{one.kind} {one.words}")]
        pairs = [
            (one, other)
            for one in ones
            for other in others
            if one is not other and _lies(rule.where, one.place, other.place)
        ]
        found += [Story(rule.key, *group, rule.words) for group in _joined(pairs)]
    return found


def _joined(pairs: Sequence[tuple[Finding, Finding]]) -> list[tuple[tuple[Finding, ...], tuple[Finding, ...]]]:
    """Pairs that share a finding, put together; what stands on both sides is named on the first."""
    groups: list[list[tuple[Finding, Finding]]] = []
    for pair in pairs:
        mine = [group for group in groups if any(set(map(id, pair)) & set(map(id, one)) for one in group)]
        groups = [group for group in groups if group not in mine]
        groups.append([*(one for group in mine for one in group), pair])
    found = []
    for group in groups:
        ones = tuple({id(one): one for one, _ in group}.values())
        others = tuple({id(other): other for _, other in group if other not in ones}.values())
        found.append((ones[: len(ones) if others else 1], others or ones[1:]))
    return found


def _lies(where: str, one: str, other: str) -> bool:
    if where == "any":
        return True
    if where == "same":
        return one == other or _place(one) == other or one == _place(other)
    if where == "near":
        sides = {_side(one), _side(other)} - {None}
        return len(sides) < 2 and abs(_section(one) - _section(other)) <= 1
    return _side(one) == _side(other)


def _section(key: str) -> int:
    """How far along the vehicle: 0 front, 1 middle, 2 rear."""
    place = _place(key)
    return 0 if place in FRONT or place.startswith("front") else 2 if place in REAR or place.startswith("rear") else 1


def _place(key: str) -> str:
    for table in (parts(), zones(), equipment(), cabin_parts()):
        if key in table:
            place: str = table[key].place
            return place
    return place_of_panel().get(key, key)


def _side(key: str) -> str | None:
    for table in (panels(), parts(), places(), zones(), equipment()):
        if key in table:
            side: str | None = table[key].side
            return side
    return None
