"""One story: findings that explain each other, told once with both sides named."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from hakutsu.core.findings import Finding, at, is_of, place_of, side_of
from hakutsu.vehicle.tables import Row, Table, read_table

SURE_FILM = 0.7  # from this chance on a panel counts as painted again in a story
FRONT, REAR = ("bay", "under_front"), ("boot", "under_rear")
INSIDE = {"inside_front": 0.5, "inside_rear": 1.5}


@dataclass(frozen=True, slots=True)
class Story:
    """Findings that explain others, and how: both sides in the order they were found, each named once."""

    rule: str
    ones: tuple[Finding, ...]
    others: tuple[Finding, ...]
    words: str


class _Rule(Row):
    one: tuple[str, ...]
    other: tuple[str, ...]
    where: Literal["any", "same", "near", "side", "date"]
    one_part: tuple[str, ...] = ()
    other_part: tuple[str, ...] = ()
    words: str


class _Rules(Table):
    rule: dict[str, _Rule]


def rules() -> dict[str, _Rule]:
    """Every rule by its key."""
    return read_table("core", "stories", _Rules).rule


def _is(finding: Finding, codes: tuple[str, ...], parts: Sequence[str]) -> bool:
    """Whether a finding is of one of some codes, and of one of some parts where those are told."""
    if not is_of(finding.code, codes) or (finding.station == "film" and finding.sureness < SURE_FILM):
        return False
    return not parts or finding.subject.partition(":")[0] in parts


def stories(findings: Sequence[Finding]) -> list[Story]:
    """Every story that a rule tells, in the order of the rules; a finding never explains itself.

    Pairs of one rule that share a finding are told as one.
    """
    found = []
    for key, rule in rules().items():
        ones = [one for one in findings if _is(one, rule.one, rule.one_part)]
        others = [one for one in findings if _is(one, rule.other, rule.other_part)]
        pairs = [
            (one, other) for one in ones for other in others if one is not other and _belong(rule.where, one, other)
        ]
        found += [Story(key, *group, rule.words) for group in _joined(pairs)]
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


def _belong(where: str, one: Finding, other: Finding) -> bool:
    """Whether two findings lie as a rule wants it, or are of one date."""
    if where == "date":
        return bool(one.dated) and one.dated == other.dated
    return _lies(where, one.subject, other.subject)


def _lies(where: str, one: str, other: str) -> bool:
    if where == "any":
        return True
    if where == "same":
        return at(one) == at(other) or place_of(one) == at(other) or at(one) == place_of(other)
    if where == "near":
        sides = {side_of(one), side_of(other)} - {None}
        return len(sides) < 2 and abs(_section(one) - _section(other)) <= 1
    return side_of(one) == side_of(other)


def _section(subject: str) -> float:
    """How far along the vehicle: 0 front, 1 middle, 2 rear; the front seats lie between."""
    place = place_of(subject)
    if place in FRONT or place.startswith("front"):
        return 0.0
    if place in REAR or place.startswith("rear"):
        return 2.0
    return INSIDE.get(place, 1.0)
