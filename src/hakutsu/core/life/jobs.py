"""Jobs that wait on a vehicle: what is due when, with an interval and a basis. Several parts may make one job.

A job's time is kept as survival over months ahead (`survival.AHEAD`), so that parts compete in closed form: independent
parts by the product, parts that wear together (both tyres of an axle) by the least.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from enum import StrEnum

import numpy as np

from hakutsu.core.estimate import Estimate
from hakutsu.core.life.survival import AHEAD, MONTHS, Cases, Floats, quantiles


class Basis(StrEnum):
    """From what a time was computed."""

    MEASURED = "measured"
    SURVIVAL = "age and distance"
    SCHEDULED = "by the calendar"
    NOT_MEASURED = "not measured"
    FOUND = "found"


@dataclass(frozen=True, slots=True)
class Strand:
    """One way a job comes due: survival as it is shown, the same without what all parts of a vehicle share (the next
    owner's factor), and survival of what replaces it.

    Where the life is itself uncertain `own` and `new` have a row for each case, and `weight` says how likely each is;
    jobs of one `kind` share their case.
    """

    alive: Floats
    own: Floats
    new: Floats
    weight: Floats | None = None
    kind: str = ""


@dataclass(frozen=True, slots=True)
class Job:
    """One job: what, which row of the cost table, from what it is told, and when.

    `major` is a strand that comes with a larger job, such as discs with their pads; it is taken when that strand ends
    within a year of the first. `due` [months]: it is known when, and `every` how often it comes again; `cap`: at the
    latest then. `settle`: it is due now and was found, so that it is settled before paying.
    """

    key: str
    name: str
    cost: str
    labour: str
    basis: Basis
    strand: Strand
    reasons: tuple[str, ...] = ()
    major: Strand | None = None
    major_cost: str = ""
    every: float | None = None
    due: float | None = None
    cap: float | None = None
    settle: bool = False
    limited_by: str = "wear"
    places: tuple[str, ...] = field(default=())

    @property
    def alive(self) -> Floats:
        """Survival of the whole job: the earlier of its strands, which wear together."""
        return self.strand.alive if self.major is None else np.minimum(self.strand.alive, self.major.alive)

    def months(self) -> Estimate:
        """When it is due [months from now], 80 % interval."""
        found = [self.due] * 3 if self.due is not None else quantiles(self.alive)
        low, median, high = found if self.cap is None else [min(one, self.cap) for one in found]
        return Estimate(median, low, high, basis=self.reasons)

    def km(self, km_per_year: float) -> Estimate:
        """The same as distance [km]."""
        return self.months().scaled(km_per_year / MONTHS)

    def chance(self, months: float) -> float:
        """The chance that it is due within so many months."""
        known = self.due if self.due is not None else self.cap
        if known is not None and known <= months:
            return 1.0
        return 0.0 if self.due is not None else float(1 - np.interp(months, AHEAD, self.alive))


def due_at(months: float) -> Floats:
    """Survival of something that is due at a known time: before it all, after it nothing."""
    return np.where(months > AHEAD, 1.0, 0.0)


def together(curves: Sequence[Floats]) -> Floats:
    """Survival of the first of parts that wear together."""
    return np.asarray(np.minimum.reduce(list(curves)))


def apart(curves: Sequence[Floats]) -> Floats:
    """Survival of the first of parts that fail independently."""
    return np.asarray(np.multiply.reduce(list(curves)))


def in_cases(alive: Cases, new: Floats, kind: str) -> Strand:
    """A strand of a part whose characteristic life is uncertain; `new` has a row for each case."""
    return Strand(alive.mean, alive.alive, new, alive.weight, kind)


def strand(alive: Floats, new: Floats, own: Floats | None = None) -> Strand:
    """A strand; without `own` nothing is shared."""
    return Strand(alive, alive if own is None else own, new)
