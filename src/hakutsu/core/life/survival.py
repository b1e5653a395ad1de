"""Survival of parts that are not measured: competing Weibull clocks, conditional on the age of the part.

References
----------
W. Weibull, A Statistical Distribution Function of Wide Applicability, J. Appl. Mech. 18 (1951).
D. R. Cox, Renewal Theory (1962): density of renewals and the age of the part in use.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

Floats = NDArray[np.float64]
MONTHS = 12.0
STEPS = 32
# Months ahead at which survival is kept: dense where money is counted, out to sixty years.
AHEAD = np.concatenate([[0.0], np.geomspace(0.05, 720.0, 96)])
AT = (0.1, 0.5, 0.9)


@dataclass(frozen=True, slots=True)
class Clocks:
    """Characteristic lives η by distance [km] and time [years] with one shape; hazards of past and future use.

    `future` is everything that multiplies the hazard from now on: use, grade, pieces.
    """

    km: float | None
    years: float | None
    beta: float
    past: float = 1.0
    future: float = 1.0


@dataclass(frozen=True, slots=True)
class Ages:
    """Possible ages of a part as distance [km] and time [years], with weights that sum to 1."""

    km: Floats
    years: Floats
    weight: Floats


def hazard(clocks: Clocks, km: Floats, years: Floats) -> Floats:
    """Cumulative hazard of a new part after a distance [km] and time [years]: Σ (t/η)^β, without factors."""
    total = np.zeros(np.broadcast(km, years).shape)
    if clocks.km is not None:
        total = total + (km / clocks.km) ** clocks.beta
    if clocks.years is not None:
        total = total + (years / clocks.years) ** clocks.beta
    return total


def proven_age(km: float, years: float) -> Ages:
    """An age that is known."""
    return Ages(np.array([km]), np.array([years]), np.array([1.0]))


def likely_ages(clocks: Clocks, km: float, years: float) -> Ages:
    """Ages a part may have in a vehicle of a distance [km] and age [years], parts that failed having been replaced.

    Notes
    -----
    Weight of an age a: m(T − a)·S(a), with m the density of renewals and S survival under past use; and S(T) at a = T,
    the first part. The renewal equation m = f + f * m is solved in steps, in which the weights sum to 1 exactly.
    """
    share = np.arange(STEPS + 1) / STEPS
    alive = np.exp(-clocks.past * hazard(clocks, share * km, share * years))
    fails = -np.diff(alive)
    renewed = np.zeros(STEPS + 1)
    renewed[0] = 1.0
    for i in range(1, STEPS + 1):
        renewed[i] = fails[:i] @ renewed[i - 1 :: -1]
    weight = renewed[::-1] * alive
    return Ages(share * km, share * years, weight / weight.sum())


def mixed(ages: Sequence[Ages]) -> Ages:
    """Several vehicles equally likely."""
    return Ages(
        np.concatenate([one.km for one in ages]),
        np.concatenate([one.years for one in ages]),
        np.concatenate([one.weight for one in ages]) / len(ages),
    )


def survival(clocks: Clocks, ages: Ages, km_per_year: float, ahead: Floats = AHEAD) -> Floats:
    """Chance that a part of these ages still works after each number of months ahead."""
    years = ahead / MONTHS
    reached = hazard(clocks, ages.km[:, None] + years * km_per_year, ages.years[:, None] + years)
    used = hazard(clocks, ages.km, ages.years)[:, None]
    return np.asarray(ages.weight @ np.exp(-clocks.future * (reached - used)))


def new_survival(clocks: Clocks, km_per_year: float, ahead: Floats = AHEAD) -> Floats:
    """The same of a part that is new."""
    return survival(clocks, proven_age(0.0, 0.0), km_per_year, ahead)


def one_clock(t: float, eta: float, beta: float, alive: float, factor: float = 1.0) -> float:
    """How much longer a part of age t lasts at survival `alive`, on one clock: η[(t/η)^β − ln S/g]^(1/β) − t."""
    return float(eta * ((t / eta) ** beta - np.log(alive) / factor) ** (1 / beta) - t)


def failing(months: float, gsd: float, ahead: Floats = AHEAD) -> Floats:
    """Survival of a part that is failing: log-normal about a median of `months`."""
    with np.errstate(divide="ignore"):
        return np.asarray(ndtr(-np.log(ahead / months) / np.log(gsd)))


def quantiles(alive: Floats, at: Sequence[float] = AT, ahead: Floats = AHEAD) -> list[float]:
    """Months at which the chance to have failed reaches each of `at`.

    Between points it is straight in ln(−ln S) against ln t, where a Weibull life is a straight line.
    """
    spent = -np.log(np.clip(alive, 1e-300, 1.0))
    found = []
    for chance in at:
        want = -np.log1p(-chance)
        i = int(np.searchsorted(spent, want))
        if i == 0 or alive[0] <= 1 - chance:
            found.append(0.0)
        elif i >= len(ahead):
            found.append(float(ahead[-1]))
        elif i == 1 or spent[i - 1] <= 0:
            span = spent[i] - spent[i - 1]
            found.append(float(ahead[i - 1] + (ahead[i] - ahead[i - 1]) * (want - spent[i - 1]) / span))
        else:
            share = np.log(want / spent[i - 1]) / np.log(spent[i] / spent[i - 1])
            found.append(float(ahead[i - 1] * (ahead[i] / ahead[i - 1]) ** share))
    return found
