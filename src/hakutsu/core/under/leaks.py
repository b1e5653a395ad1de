"""Leaks: a stage at one look, a rate between two."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from hakutsu.core.corners.found import Follows
from hakutsu.entries.under import Leak, LeakFluid, Stage

STAGES = list(Stage)
LEAST_MINUTES = 5.0


@dataclass(frozen=True, slots=True)
class LeakFound:
    """A leak over all its looks: the worst stage, words of what changed, what follows, whether a second look is due."""

    fluid: LeakFluid
    origin: str
    stage: Stage
    words: str
    follows: Follows
    again: bool


def leak_found(looks: Sequence[tuple[datetime, Leak]], touched: bool = False) -> LeakFound:
    """What all looks at one leak say.

    Parameters
    ----------
    looks : time and what was seen, at least one, in any order
    touched : something was wiped, tightened or topped up there in between: a later look proves less
    """
    every = sorted(looks, key=lambda one: one[0])
    first, last = every[0], every[-1]
    worst = max((one.stage for _, one in every), key=STAGES.index)
    minutes = (last[0] - first[0]).total_seconds() / 60
    watched = len(every) > 1 and minutes >= LEAST_MINUTES
    words = _changed(first[1], last[1], minutes) if watched else ""
    if touched and words:
        words += "; something was done there in between, so it proves less"
    if last[1].fluid is LeakFluid.WATER:
        return LeakFound(last[1].fluid, last[1].origin, worst, "normal", Follows.NOTE, False)
    grave = STAGES.index(worst) >= STAGES.index(Stage.WEEP) or last[1].fluid in (LeakFluid.FUEL, LeakFluid.BRAKE)
    follows = Follows.SETTLE if grave else Follows.BUDGET if worst is Stage.SEEP else Follows.NOTE
    return LeakFound(last[1].fluid, last[1].origin, worst, words, follows, not watched and worst is not Stage.STAIN)


def _changed(first: Leak, last: Leak, minutes: float) -> str:
    if first.drops is not None and last.drops is not None:
        return f"{first.drops:g} drops a minute, then {last.drops:g} after {minutes:.0f} min"
    steps = STAGES.index(last.stage) - STAGES.index(first.stage)
    if steps > 0:
        return f"from {first.stage} to {last.stage} in {minutes:.0f} min"
    return f"no more after {minutes:.0f} min" if steps == 0 else f"less after {minutes:.0f} min"
