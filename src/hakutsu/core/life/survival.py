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


ONE = np.ones(1)  # lives that are taken as they stand in the table


@dataclass(frozen=True, slots=True)
class Ages:
    """Ages a part may have as distance [km] and time [years], in cases from short-lived to long-lived.

    `lives` are factors of the characteristic lives, one a case; `case` how likely each is; `weight` of the ages in each
    case [cases × ages], which sum to 1 in every case.
    """

    km: Floats
    years: Floats
    lives: Floats
    case: Floats
    weight: Floats


@dataclass(frozen=True, slots=True)
class Cases:
    """Survival over `AHEAD` in each case [cases × months], and how likely each case is; the weights sum to 1."""

    alive: Floats
    weight: Floats

    @property
    def mean(self) -> Floats:
        """Survival with the uncertainty of the life in it."""
        return np.asarray(self.weight @ self.alive)


def hazard(clocks: Clocks, km: Floats, years: Floats) -> Floats:
    """Cumulative hazard of a new part after a distance [km] and time [years]: Σ (t/η)^β, without factors."""
    total = np.zeros(np.broadcast(km, years).shape)
    if clocks.km is not None:
        total = total + (km / clocks.km) ** clocks.beta
    if clocks.years is not None:
        total = total + (years / clocks.years) ** clocks.beta
    return total


def proven_age(clocks: Clocks, km: float, years: float, lives: Floats = ONE) -> Ages:
    """An age that is known: distance [km], time [years].

    That the part has reached it speaks for the long-lived cases.
    """
    return proven_ages(clocks, [(km, years)], lives)


def proven_ages(clocks: Clocks, ages: Sequence[tuple[float, float]], lives: Floats = ONE) -> Ages:
    """Ages that are equally likely, distances [km] and times [years], such as those of a part that looks new."""
    km, years = np.array([one[0] for one in ages]), np.array([one[1] for one in ages])
    reached = np.exp(-clocks.past * _more(clocks, lives)[:, None] * hazard(clocks, km, years))
    likely = np.maximum(reached, 1e-12)
    case = likely.sum(axis=1)
    return Ages(km, years, lives, case / case.sum(), likely / case[:, None])


def _more(clocks: Clocks, lives: Floats) -> Floats:
    """What factors of the characteristic lives do to the hazard, on both clocks alike: f^−β."""
    return np.asarray(lives**-clocks.beta)


def likely_ages(clocks: Clocks, vehicles: Sequence[tuple[float, float]], lives: Floats = ONE) -> Ages:
    """Ages a part may have in vehicles of such distances [km] and ages [years], equally likely; failed ones replaced.

    Notes
    -----
    Weight of an age a: m(T − a)·S(a), with m the density of renewals and S survival under past use; and S(T) at a = T,
    the first part. The renewal equation m = f + f * m is solved in steps, in which the weights sum to 1 exactly. In
    every case some part is in use, so that all stay equally likely.
    """
    share, weights = np.arange(STEPS + 1) / STEPS, []
    for km, years in vehicles:
        used = hazard(clocks, share * km, share * years)
        alive = np.exp(-clocks.past * _more(clocks, lives)[:, None] * used)
        fails = -np.diff(alive, axis=1)
        renewed = np.zeros((len(lives), STEPS + 1))
        renewed[:, 0] = 1.0
        for i in range(1, STEPS + 1):
            renewed[:, i] = (fails[:, :i] * renewed[:, i - 1 :: -1]).sum(axis=1)
        weight = renewed[:, ::-1] * alive
        weights.append(weight / weight.sum(axis=1, keepdims=True) / len(vehicles))
    return Ages(
        np.concatenate([share * km for km, _ in vehicles]),
        np.concatenate([share * years for _, years in vehicles]),
        lives,
        np.full(len(lives), 1 / len(lives)),
        np.concatenate(weights, axis=1),
    )


def survival(clocks: Clocks, ages: Ages, km_per_year: float) -> Cases:
    """Chance that a part of these ages still works after each of the months ahead, case by case."""
    years = AHEAD / MONTHS
    reached = hazard(clocks, ages.km[:, None] + years * km_per_year, ages.years[:, None] + years)
    more = clocks.future * (reached - hazard(clocks, ages.km, ages.years)[:, None])
    alive = [weight @ np.exp(-g * more) for weight, g in zip(ages.weight, _more(clocks, ages.lives), strict=True)]
    return Cases(np.asarray(alive), ages.case)


def new_survival(clocks: Clocks, km_per_year: float, lives: Floats = ONE) -> Cases:
    """The same of a part that is new."""
    return survival(clocks, proven_age(clocks, 0.0, 0.0, lives), km_per_year)


def first_of(curves: Sequence[Cases]) -> Cases:
    """The first to fail of parts of one kind, which share their case."""
    alive = np.multiply.reduce([one.alive for one in curves])
    weight = np.multiply.reduce([one.weight for one in curves])
    return Cases(np.asarray(alive), np.asarray(weight / weight.sum()))


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
