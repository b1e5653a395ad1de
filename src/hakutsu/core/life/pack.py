"""Remaining life of a high-voltage pack: when its health falls to the limit, by age, full cycles and what was read.

Loss of health L = 0.03√years + 0.00012·full cycles times a factor of the one pack, log-normal with geometric standard
deviation 1.4; a health read narrows the factor by Bayes' rule for normal variables. All in closed form.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, hypot, log

import numpy as np
from scipy.special import ndtr

from hakutsu.core.engine.electric import PACK_LOSS_GSD, PACK_PER_CYCLE, PACK_PER_ROOT_YEAR, Z80
from hakutsu.core.life.jobs import Basis, Job, strand
from hakutsu.core.life.survival import AHEAD, MONTHS, Floats

LIMIT = 0.70
READ_SD = 0.02
KM_PER_CYCLE = {"electric": 280.0, "hybrid": None}
KEY = "pack"
NEW_YEARS = 0.0


@dataclass(frozen=True, slots=True)
class PackGiven:
    """What is known of a pack: power of the vehicle, age [years], distance [km], health read (0 to 1), full cycles,
    and the buyer's distance [km a year].
    """

    power: str
    years: float
    km: float
    km_per_year: float
    health: float | None = None
    cycles: float | None = None


def loss(years: Floats | float, cycles: Floats | float) -> Floats:
    """Loss of health (0 to 1) of a usual pack."""
    by_time = PACK_PER_ROOT_YEAR * np.sqrt(np.maximum(0.0, years))
    return np.asarray(by_time + PACK_PER_CYCLE * np.maximum(0.0, cycles))


def _cycles(given: PackGiven, km: float) -> float:
    per = KM_PER_CYCLE.get(given.power)
    return km / per if per else 0.0


def factor(given: PackGiven) -> tuple[float, float]:
    """The pack's own factor: mean and standard deviation of its logarithm, narrowed where a health was read."""
    prior = log(PACK_LOSS_GSD)
    cycles = given.cycles if given.cycles is not None else _cycles(given, given.km)
    usual = float(loss(given.years, cycles))
    if given.health is None or usual <= 0:
        return 0.0, prior
    lost = max(1 - given.health, READ_SD)
    read, read_sd = log(lost / usual), READ_SD / lost
    weight = prior**2 / (prior**2 + read_sd**2)
    return weight * read, prior * read_sd / hypot(prior, read_sd)


def pack_survival(given: PackGiven) -> Floats:
    """The chance that the pack still holds 70 % of its health, over the months of `AHEAD`."""
    mean, sd = factor(given)
    now = given.cycles if given.cycles is not None else _cycles(given, given.km)
    later = loss(given.years + AHEAD / MONTHS, now + AHEAD / MONTHS * _cycles(given, given.km_per_year))
    with np.errstate(divide="ignore"):
        alive = ndtr((np.log((1 - LIMIT) / np.maximum(later, 1e-9)) - mean) / sd)
    return np.minimum.accumulate(np.asarray(alive))


def pack_job(given: PackGiven) -> Job:
    """The job of renewing the pack once it holds less than 70 % of its health."""
    new = PackGiven(given.power, NEW_YEARS, 0.0, given.km_per_year)
    read = given.health is not None
    said = f"health {100 * (given.health or 0):.0f} % read" if read else "its health was not read: by age and distance"
    mean, sd = factor(given)
    reasons = (
        said,
        f"loses {exp(mean):.2f} times what is usual ({exp(mean - Z80 * sd):.2f} to {exp(mean + Z80 * sd):.2f})",
        f"due below {100 * LIMIT:.0f} %; population figures of our own, the maker’s warranty rules",
    )
    gone = given.health is not None and given.health < LIMIT
    alive = np.zeros(len(AHEAD)) if gone else pack_survival(given)
    basis = Basis.MEASURED if read else Basis.SURVIVAL
    return Job(KEY, "high-voltage pack", "pack", "", basis, strand(alive, pack_survival(new)), reasons, settle=gone)
