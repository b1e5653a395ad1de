"""Lives whose characteristic life is itself uncertain: each part in several cases, from short-lived to long-lived.

A cumulative hazard of shape β with characteristic lives times f is the hazard times f^−β, on both clocks alike, so that
all cases come from one reckoning. Source: ours.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache

import numpy as np
from scipy.special import ndtri

from hakutsu.core.life.components import life_table
from hakutsu.core.life.survival import AHEAD, MONTHS, STEPS, Clocks, Floats, hazard


@dataclass(frozen=True, slots=True)
class Cases:
    """Survival over `AHEAD` in each case [cases × months], and how likely each case is; the weights sum to 1."""

    alive: Floats
    weight: Floats

    @property
    def mean(self) -> Floats:
        """Survival with the table's uncertainty in it."""
        return np.asarray(self.weight @ self.alive)


@dataclass(frozen=True, slots=True)
class CaseAges:
    """Ages a part may have [km, years], their weights in each case [cases × ages], and how likely each case is."""

    km: Floats
    years: Floats
    weight: Floats
    case: Floats


@cache
def life_factors() -> Floats:
    """Factors of the characteristic life in equally likely cases, log-normal about 1."""
    count = life_table().cases
    middle = ndtri((np.arange(count) + 0.5) / count)
    return np.asarray(np.exp(float(life_table().ln_sd) * middle / middle.std()))


def hazards(beta: float) -> Floats:
    """What each case does to a cumulative hazard of shape β."""
    return np.asarray(life_factors() ** -beta)


def likely_in_cases(clocks: Clocks, vehicles: Sequence[tuple[float, float]]) -> CaseAges:
    """Ages a part may have in vehicles of such distances [km] and ages [years], equally likely, case by case.

    Notes
    -----
    As `survival.likely_ages`: renewal of what failed, solved in steps. That the part at hand is of this age tells
    nothing of the case, since in every case some part is in use.
    """
    g = hazards(clocks.beta)
    share = np.arange(STEPS + 1) / STEPS
    weights = []
    for km, years in vehicles:
        alive = np.exp(-clocks.past * g[:, None] * hazard(clocks, share * km, share * years))
        fails = -np.diff(alive, axis=1)
        renewed = np.zeros((len(g), STEPS + 1))
        renewed[:, 0] = 1.0
        for i in range(1, STEPS + 1):
            renewed[:, i] = (fails[:, :i] * renewed[:, i - 1 :: -1]).sum(axis=1)
        weight = renewed[:, ::-1] * alive
        weights.append(weight / weight.sum(axis=1, keepdims=True) / len(vehicles))
    return CaseAges(
        np.concatenate([share * km for km, _ in vehicles]),
        np.concatenate([share * years for _, years in vehicles]),
        np.concatenate(weights, axis=1),
        np.full(len(g), 1 / len(g)),
    )


def proven_in_cases(clocks: Clocks, km: float, years: float) -> CaseAges:
    """A known age; the part has reached it, which speaks for the long-lived cases."""
    g = hazards(clocks.beta)
    reached = np.exp(-clocks.past * g * hazard(clocks, np.array([km]), np.array([years])))
    case = np.maximum(reached, 1e-12)
    return CaseAges(np.array([km]), np.array([years]), np.ones((len(g), 1)), case / case.sum())


def survival_in_cases(clocks: Clocks, ages: CaseAges, km_per_year: float) -> Cases:
    """Chance that a part of these ages still works after each of the months ahead, case by case."""
    years = AHEAD / MONTHS
    reached = hazard(clocks, ages.km[:, None] + years * km_per_year, ages.years[:, None] + years)
    more = clocks.future * (reached - hazard(clocks, ages.km, ages.years)[:, None])
    alive = [ages.weight[k] @ np.exp(-g * more) for k, g in enumerate(hazards(clocks.beta))]
    return Cases(np.asarray(alive), ages.case)


def new_in_cases(clocks: Clocks, km_per_year: float) -> Floats:
    """The same of a part that is new [cases × months]."""
    return survival_in_cases(clocks, proven_in_cases(clocks, 0.0, 0.0), km_per_year).alive


def first_of(curves: Sequence[Cases]) -> Cases:
    """The first to fail of parts of one kind, which share their case."""
    alive = np.multiply.reduce([one.alive for one in curves])
    weight = np.multiply.reduce([one.weight for one in curves])
    return Cases(np.asarray(alive), np.asarray(weight / weight.sum()))
