"""Remaining life of a high-voltage pack: when its health falls to the limit, by age, full cycles and what was read.

Loss of health L = 0.03√years + 0.00012·full cycles (of a hybrid more by time, and cycles by its distance) times a
factor of the one pack, log-normal with geometric standard deviation 1.4; a health read narrows the factor by Bayes'
rule, by quadrature over the factor. No simulation.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import log

import numpy as np

from hakutsu.core.engine.electric import electric_table
from hakutsu.core.life.jobs import Basis, Job, strand
from hakutsu.core.life.survival import AHEAD, MONTHS, Floats

READ_SD = 0.02
HYBRID = "hybrid"
KEY = "pack"
NEW_YEARS = 0.0
LIMIT = electric_table().pack.limit
FACTORS = np.exp(np.linspace(-4.5, 4.5, 1201) * log(electric_table().pack.loss_gsd))


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


def loss(years: Floats | float, cycles: Floats | float, power: str = "electric") -> Floats:
    """Loss of health (0 to 1) of a usual pack of an electric or a hybrid vehicle."""
    row = electric_table().pack
    rate = row.hybrid_per_root_year if power == HYBRID else row.per_root_year
    by_time = rate * np.sqrt(np.maximum(0.0, years))
    return np.asarray(by_time + electric_table().pack.per_cycle * np.maximum(0.0, cycles))


def _cycles(given: PackGiven, km: float) -> float:
    return km / electric_table().pack.km_per_cycle[given.power]


def factor(given: PackGiven) -> Floats:
    """Cumulative chance of the pack's own factor over `FACTORS`: the population, narrowed where a health was read.

    A hybrid whose pack is done does not drive without complaint, so that one nobody read is counted as above the limit.
    """
    prior = log(electric_table().pack.loss_gsd)
    cycles = given.cycles if given.cycles is not None else _cycles(given, given.km)
    logs = -0.5 * (np.log(FACTORS) / prior) ** 2
    usual = float(loss(given.years, cycles, given.power))
    if given.health is not None:
        logs = logs - 0.5 * ((1 - given.health - usual * FACTORS) / READ_SD) ** 2
    elif given.power == HYBRID:
        logs = np.where(usual * FACTORS < 1 - LIMIT, logs, -np.inf) if usual * FACTORS[0] < 1 - LIMIT else logs
    weight = np.exp(logs - logs.max())
    return np.asarray(np.cumsum(weight) / weight.sum())


def factor_quantiles(given: PackGiven) -> tuple[float, float, float]:
    """The factor's 10, 50 and 90 % quantiles."""
    low, median, high = np.interp((0.1, 0.5, 0.9), factor(given), FACTORS)
    return float(low), float(median), float(high)


def pack_survival(given: PackGiven) -> Floats:
    """The chance that the pack still holds 70 % of its health, over the months of `AHEAD`."""
    now = given.cycles if given.cycles is not None else _cycles(given, given.km)
    later = loss(given.years + AHEAD / MONTHS, now + AHEAD / MONTHS * _cycles(given, given.km_per_year), given.power)
    allowed = (1 - LIMIT) / np.maximum(later, 1e-9)  # the factor at which the limit is just reached
    alive = np.interp(np.log(allowed), np.log(FACTORS), factor(given), left=0.0, right=1.0)
    return np.minimum.accumulate(np.asarray(alive))


def pack_job(given: PackGiven) -> Job:
    """The job of renewing the pack once it holds less than 70 % of its health."""
    new = PackGiven(given.power, NEW_YEARS, 0.0, given.km_per_year)
    read = given.health is not None
    said = (
        f"health {100 * (given.health or 0):.0f} % read"
        if read
        else "its health was not read: by age and distance, above the limit while nothing speaks against it"
    )
    low, median, high = factor_quantiles(given)
    reasons = (
        said,
        f"loses {median:.2f} times what is usual ({low:.2f} to {high:.2f})",
        f"due below {100 * LIMIT:.0f} %; population figures of our own, the maker’s warranty rules",
    )
    gone = given.health is not None and given.health < LIMIT
    alive = np.zeros(len(AHEAD)) if gone else pack_survival(given)
    basis = Basis.MEASURED if read else Basis.SURVIVAL
    return Job(KEY, "high-voltage pack", "pack", "", basis, strand(alive, pack_survival(new)), reasons, settle=gone)
