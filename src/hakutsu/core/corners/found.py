"""What a rule of the corners found: where, in words, what follows from it."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum


class Follows(StrEnum):
    """What a finding asks for."""

    SETTLE = "settle before paying"
    BUDGET = "budget for"
    LOOK = "look closer"
    NOTE = "note"


@dataclass(frozen=True, slots=True)
class Found:
    """A finding at a wheel, on an axle ("front", "rear") or on the whole vehicle (empty): words in braces for
    `Terms.say`, and the reasons it rests on. `by_wear`: it follows from a thickness, which the life rules carry on.
    `friction`: it is of pads or discs, so that settling it is the brake job of its axle. `job`: the part whose job
    settles it.
    """

    where: str
    words: str
    follows: Follows
    reasons: tuple[str, ...] = ()
    by_wear: bool = False
    friction: bool = False
    job: str = ""
