"""Leaks: a stage at one look, a rate between two."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from hakutsu.core.corners.found import Follows
from hakutsu.entries.corners import Grade
from hakutsu.entries.fluids import Fluid, FluidLevel
from hakutsu.entries.under import Leak, LeakFluid, Stage

STAGES = list(Stage)
LEAST_MINUTES = 5.0
SUSPENDED = "we caused it: counts for nothing until it was looked at again"
# Levels that a leak explains, by fluid: the key of the fluid looked at.
LEVELS = {
    LeakFluid.OIL: "engine_oil", LeakFluid.COOLANT: "coolant", LeakFluid.TRANSMISSION: "transmission",
    LeakFluid.GEAR: "gear_oil", LeakFluid.STEERING: "power_steering",
}  # fmt: skip
LOW = (FluidLevel.LOW, FluidLevel.BELOW)


@dataclass(frozen=True, slots=True)
class LeakFound:
    """A leak over all its looks: the worst stage, words of what changed, what follows, whether a second look is due;
    where it shows; whether it is suspended because we caused it ourselves.
    """

    fluid: LeakFluid
    origin: str
    stage: Stage
    words: str
    follows: Follows
    again: bool
    zone: str = ""
    suspended: bool = False
    linked: tuple[str, ...] = ()


def leak_found(
    looks: Sequence[tuple[datetime, Leak]], touched: Sequence[str] = (), own: Sequence[bool] = ()
) -> LeakFound:
    """What all looks at one leak say.

    Parameters
    ----------
    looks : time and what was seen, at least one, in any order
    touched : what was wiped, tightened or topped up there in between: a later look proves less
    own : of each look, whether we caused what was seen; such looks count for nothing, and a leak seen only so is
        suspended until it was looked at again
    """
    caused = [*own, *[False] * (len(looks) - len(own))]
    kept = [one for one, mine in zip(looks, caused, strict=True) if not mine]
    if not kept:
        leak = max(looks, key=lambda one: one[0])[1]
        return LeakFound(leak.fluid, leak.origin, leak.stage, SUSPENDED, Follows.NOTE, True, leak.zone, True)
    every = sorted(kept, key=lambda one: one[0])
    first, last = every[0], every[-1]
    worst = max((one.stage for _, one in every), key=STAGES.index)
    minutes = (last[0] - first[0]).total_seconds() / 60
    watched = len(every) > 1 and minutes >= LEAST_MINUTES
    words = _changed(first[1], last[1], minutes) if watched else ""
    if touched and words:
        words += f"; in between somebody {', '.join(touched)}, so it proves less"
    if last[1].fluid is LeakFluid.WATER:
        return LeakFound(last[1].fluid, last[1].origin, worst, "normal", Follows.NOTE, False, last[1].zone)
    grave = STAGES.index(worst) >= STAGES.index(Stage.WEEP) or last[1].fluid in (LeakFluid.FUEL, LeakFluid.BRAKE)
    follows = Follows.SETTLE if grave else Follows.BUDGET if worst is Stage.SEEP else Follows.NOTE
    again = not watched and worst is not Stage.STAIN
    return LeakFound(last[1].fluid, last[1].origin, worst, words, follows, again, last[1].zone)


def _changed(first: Leak, last: Leak, minutes: float) -> str:
    if first.drops is not None and last.drops is not None:
        return f"{first.drops:g} drops a minute, then {last.drops:g} after {minutes:.0f} min"
    steps = STAGES.index(last.stage) - STAGES.index(first.stage)
    if steps > 0:
        return f"from {first.stage} to {last.stage} in {minutes:.0f} min: {60 * steps / minutes:.1f} stages an hour"
    return f"no more after {minutes:.0f} min" if steps == 0 else f"less after {minutes:.0f} min"


def linked(found: LeakFound, levels: Mapping[str, Fluid], grades: Mapping[str, Grade], pedal_low: bool) -> LeakFound:
    """A leak with what it explains: a level that is low, hoses and pipes that are worn, a pedal that is low.

    A leak whose level is low is settled, however slow it looks.
    """
    if found.suspended or found.fluid is LeakFluid.WATER:
        return found
    words, follows = list[str](), found.follows
    looked = levels.get(LEVELS.get(found.fluid, ""))
    if looked is not None and looked.level in LOW:
        words.append("its level is low: it is lost here")
        follows = Follows.SETTLE
    worn = {key.split(":")[0] for key, grade in grades.items() if grade in (Grade.WORN, Grade.FAILING, Grade.FAILED)}
    if found.fluid is LeakFluid.COOLANT:
        words += [f"{part} are worn" for part in ("coolant_hoses",) if part in worn]
    if found.fluid is LeakFluid.BRAKE:
        words += [name for part, name in (("brake_hose", "a brake hose is worn"), ("brake_pipes", "brake pipes rust"))
                  if part in worn]  # fmt: skip
        words += ["the pedal is low"] if pedal_low else []
    return replace(found, follows=follows, linked=tuple(one.replace("_", " ") for one in words))
