"""Leaks: a stage at one look, a rate between two."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime

from hakutsu.core.consequence import SEEN
from hakutsu.core.findings import Finding, found
from hakutsu.core.life.components import components
from hakutsu.core.phrases import says
from hakutsu.entries.corners import Grade
from hakutsu.entries.fluids import Fluid, FluidLevel
from hakutsu.entries.under import Leak, LeakFluid, Stage
from hakutsu.vehicle.places import WHEELS

BAY = "bay"
STAGES = list(Stage)
LEAKING = ("leaks_coolant", "leaks_steering", "leaks_brake", "leaks_fuel")
LEAST_MINUTES = 5.0
LOW_LEVEL = "under.leak_level_low"
SUSPENDED = "we caused it: counts for nothing until it was looked at again"
# Levels that a leak explains, by fluid: the key of the fluid looked at.
LEVELS = {
    LeakFluid.OIL: "engine_oil", LeakFluid.COOLANT: "coolant", LeakFluid.TRANSMISSION: "transmission",
    LeakFluid.GEAR: "gear_oil", LeakFluid.STEERING: "power_steering",
}  # fmt: skip
LOW = (FluidLevel.LOW, FluidLevel.BELOW)


@dataclass(frozen=True, slots=True)
class LeakFound:
    """A leak over all its looks: the worst stage, words of what changed, the code of its finding, whether a second
    look is due, where it shows, whether it is suspended because we caused it, what it explains, and the piece with a
    life that leaks.
    """

    fluid: LeakFluid
    origin: str
    stage: Stage
    words: str
    code: str
    again: bool
    zone: str = ""
    suspended: bool = False
    linked: tuple[str, ...] = ()
    place: str = ""
    part: str = ""

    @property
    def subject(self) -> str:
        """The leak as a thing of its own: fluid, where from, and the zone it shows in, else where it was noted."""
        return f"{self.fluid.value}:{'_'.join(self.origin.casefold().split())}:{self.zone or self.place or BAY}"

    @property
    def condemned(self) -> str:
        """The piece that has to be mended because of it; nothing where it is only wet."""
        return self.part if leak_grade(self) is Grade.FAILING else ""

    @property
    def finding(self) -> Finding:
        """What it asks for."""
        reasons = tuple(one for one in (self.words, *self.linked) if one)
        check = "look again after a known time" if self.again else ""
        one = found(self.code, self.subject, f"{self.fluid} from {self.origin}: {self.stage}", reasons, check=check,
                    why="seen once" if self.again else "", sureness=SEEN, job=self.condemned)  # fmt: skip
        return replace(one, excused="suspended" if self.suspended else "")


WETS = {
    Stage.SEEP: Grade.WORN, Stage.WEEP: Grade.WORN, Stage.DRIP: Grade.FAILING, Stage.RUN: Grade.FAILING,
}  # fmt: skip
STOPS = (LeakFluid.BRAKE, LeakFluid.FUEL)  # any wet of these condemns what it comes from


def leaking_piece(fluid: LeakFluid, origin: str, place: str) -> str:
    """The piece with a life that leaks, by the name of where it comes from; nothing where that is no such part, or one
    that sits at every corner and it is not known at which.
    """
    group = f"leaks_{fluid.value}"
    named = says(group, origin) if group in LEAKING else []
    if not named:
        return ""
    if not components()[named[0]].corners:
        return named[0]
    return f"{named[0]}:{place.removeprefix('wheel_')}" if place in WHEELS else ""


def leak_grade(leak: LeakFound) -> Grade | None:
    """What a leak makes of the part it comes from; none of a stain, of what we caused, or of no such part."""
    if not leak.part or leak.suspended or leak.stage not in WETS:
        return None
    return Grade.FAILING if leak.fluid in STOPS else WETS[leak.stage]


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
        return LeakFound(
            leak.fluid, leak.origin, leak.stage, SUSPENDED, _code(leak.fluid, leak.stage), True, leak.zone, True
        )
    every = sorted(kept, key=lambda one: one[0])
    first, last = every[0], every[-1]
    worst = max((one.stage for _, one in every), key=STAGES.index)
    minutes = (last[0] - first[0]).total_seconds() / 60
    watched = len(every) > 1 and minutes >= LEAST_MINUTES
    words = _changed(first[1], last[1], minutes) if watched else ""
    if touched and words:
        words += f"; in between somebody {', '.join(touched)}, so it proves less"
    if last[1].fluid is LeakFluid.WATER:
        return LeakFound(last[1].fluid, last[1].origin, worst, "normal", "under.water_drips", False, last[1].zone)
    again = not watched and worst not in (Stage.NONE, Stage.STAIN)
    return LeakFound(last[1].fluid, last[1].origin, worst, words, _code(last[1].fluid, worst), again, last[1].zone)


def _code(fluid: LeakFluid, stage: Stage) -> str:
    if stage is Stage.NONE:
        return "under.leak_none"
    if fluid is LeakFluid.WATER:
        return "under.water_drips"
    if fluid is LeakFluid.FUEL:
        return "under.fuel_stain" if stage is Stage.STAIN else "under.fuel_wet"
    return "under.brake_fluid_leak" if fluid is LeakFluid.BRAKE else f"under.leak_{stage.value}"


def _changed(first: Leak, last: Leak, minutes: float) -> str:
    if last.stage is Stage.NONE and first.stage is not Stage.NONE:
        return f"not again after {minutes:.0f} min"
    before, after = first.drops_a_minute, last.drops_a_minute
    if before is not None and after is not None:
        return f"{before:.3g} drops a minute, then {after:.3g} after {minutes:.0f} min"
    steps = STAGES.index(last.stage) - STAGES.index(first.stage)
    if steps > 0:
        return f"from {first.stage} to {last.stage} in {minutes:.0f} min: {60 * steps / minutes:.1f} stages an hour"
    return f"no more after {minutes:.0f} min" if steps == 0 else f"less after {minutes:.0f} min"


def linked(leak: LeakFound, levels: Mapping[str, Fluid], grades: Mapping[str, Grade], pedal_low: bool) -> LeakFound:
    """A leak with what it explains: a level that is low, hoses and pipes that are worn, a pedal that is low.

    A leak whose level is low is settled, however slow it looks.
    """
    if leak.suspended or leak.fluid is LeakFluid.WATER:
        return leak
    words, code = list[str](), leak.code
    looked = levels.get(LEVELS.get(leak.fluid, ""))
    if looked is not None and looked.level in LOW:
        words.append("its level is low: it is lost here")
        code = LOW_LEVEL
    worn = {key.split(":")[0] for key, grade in grades.items() if grade in (Grade.WORN, Grade.FAILING, Grade.FAILED)}
    if leak.fluid is LeakFluid.COOLANT:
        words += [f"{part} are worn" for part in ("coolant_hoses",) if part in worn]
    if leak.fluid is LeakFluid.BRAKE:
        words += [name for part, name in (("brake_hose", "a brake hose is worn"), ("brake_pipes", "brake pipes rust"))
                  if part in worn]  # fmt: skip
        words += ["the pedal is low"] if pedal_low else []
    return replace(leak, code=code, linked=tuple(one.replace("_", " ") for one in words))
