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


@dataclass(frozen=True, slots=True)
class Finding:
    """A finding as the rules see it: its entry where it has one, kind, place, and words to match."""

    kind: str
    place: str
    words: str
    entry: UUID | None = None


@dataclass(frozen=True, slots=True)
class Story:
    """Two findings, and how the one explains the other."""

    rule: str
    one: Finding
    other: Finding
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
    """Every pair that a rule joins, in the order of the rules and findings; a finding never explains itself."""
    found = []
    for rule in _rules():
        ones = [one for one in findings if rule.one.search(f"{one.kind} {one.words}")]
        others = [one for one in findings if rule.other.search(f"{one.kind} {one.words}")]
        found += [
            Story(rule.key, one, other, rule.words)
            for one in ones
            for other in others
            if one is not other and _lies(rule.where, one.place, other.place)
        ]
    return found


def _lies(where: str, one: str, other: str) -> bool:
    if where == "any":
        return True
    if where == "same":
        return one == other or _place(one) == other or one == _place(other)
    return _side(one) == _side(other)


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
