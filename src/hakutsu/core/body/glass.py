"""Glass: which pane was replaced, by its date mark, and what a fault means in the driver's sight."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

from hakutsu.dossier.body import Seen
from hakutsu.entries.body import Glass, GlassFault, Tint
from hakutsu.vehicle.parts import parts
from hakutsu.vehicle.rules import RuleSet

LEAST_MARKS = 3
CHIP_IN_SIGHT_MM = 10.0
CRACK_MM = 40.0
SCREEN = "windscreen"
FRONT_SIDES = ("glass_front_door_left", "glass_front_door_right")


def odd_marks(seen: Sequence[Seen[Glass]]) -> dict[str, str]:
    """Panes whose date mark is unlike that of most others, and most others' mark; none with fewer than three marks or
    without a mark that more than half of the panes share.
    """
    marks = {one.place: one.body.date_mark.strip().upper() for one in seen if one.body.date_mark and _is_pane(one)}
    if len(marks) < LEAST_MARKS:
        return {}
    usual, count = Counter(marks.values()).most_common(1)[0]
    if count <= len(marks) / 2:
        return {}
    return {place: usual for place, mark in marks.items() if mark != usual}


def _is_pane(one: Seen[Glass]) -> bool:
    return one.place in parts() and parts()[one.place].group == "pane"


def glass_words(one: Seen[Glass], rules: RuleSet) -> list[str]:
    """What the rule set and the kind of fault make of a pane or lamp."""
    body, said = one.body, []
    size = body.size_mm or 0.0
    if one.place == SCREEN and body.in_sight:
        if body.fault is GlassFault.CHIP and size > CHIP_IN_SIGHT_MM:
            said.append("larger than may be filled in the driver’s sight: a test may refuse it")
        if body.fault is GlassFault.CRACK:
            said.append("a crack in the driver’s sight: a test may refuse it")
    elif body.fault is GlassFault.CRACK and size > CRACK_MM:
        said.append("it will run on: replace the pane")
    if body.light_percent is not None and (least := _least_light(one.place, rules)) is not None:
        below = body.light_percent < least
        said.append(f"{body.light_percent:.0f} % of light, at least {least} %: {'too dark' if below else 'within'}")
    if body.tint in (Tint.FILM, Tint.BUBBLED) and body.light_percent is None and _least_light(one.place, rules):
        said.append(f"film on it: have the light through it measured, at least {_least_light(one.place, rules)} %")
    return said


def too_dark(one: Seen[Glass], rules: RuleSet) -> bool:
    """Whether less light comes through a pane than the rule set asks for."""
    least = _least_light(one.place, rules)
    return one.body.light_percent is not None and least is not None and one.body.light_percent < least


def _least_light(place: str, rules: RuleSet) -> int | None:
    if place == SCREEN:
        return rules.front_light[0]
    return rules.front_light[1] if place in FRONT_SIDES else None
