"""The whole car at once: regime, baseline and the state of every panel, from the panels' evidence."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from hakutsu.core.film.grids import Grids
from hakutsu.core.film.numeric import log_sum
from hakutsu.core.film.observation import Floats
from hakutsu.core.film.panel_evidence import PanelEvidence
from hakutsu.core.film.parameters import FilmParameters
from hakutsu.core.film.survey import STATES
from hakutsu.vehicle.vocabulary import Finish

RESPRAYED = "resprayed"


@dataclass(frozen=True)
class CarPosterior:
    """What the readings say about the car.

    `states` has shape (panels, states), rows sum to one. `baseline` holds weights over the grid of baselines given
    that the car was not resprayed whole, `respray` given that it was.
    """

    panels: tuple[str, ...]
    states: Floats
    regimes: dict[str, float]
    baseline: Floats
    respray: Floats

    @property
    def resprayed(self) -> float:
        """Probability that the whole car was resprayed."""
        return self.regimes[RESPRAYED]


def state_prior(finish: Finish, p: FilmParameters) -> Floats:
    """State probabilities of a panel about which nothing is known, over the regimes of a declared finish."""
    mean = sum(weight * _row(p.regime[name]) for name, weight in p.finish[finish].items())
    return np.asarray(mean)


def _row(priors: dict[str, float]) -> Floats:
    return np.array([priors[state] for state in STATES])


def car_posterior(evidence: PanelEvidence, finish: Finish, grid: Grids, p: FilmParameters) -> CarPosterior:
    """Sum over regimes, baselines and stone guard.

    P(regime, baseline, guard | readings) ∝ prior · Π over panels of Σ over states of P(state | regime) · evidence;
    a panel's states follow by averaging its conditional posterior over that.
    """
    guards = p.between.stone_guard_um
    guard_share = p.between.stone_guard_share
    guard_prior = np.array([1 - guard_share, *[guard_share / (len(guards) - 1)] * (len(guards) - 1)])
    factory_prior = np.log(grid.factory_prior)[:, None] + np.log(guard_prior)
    joint: dict[str, Floats] = {}
    given: dict[str, Floats] = {}
    for regime, weight in p.finish[finish].items():
        table = evidence.resprayed[..., None] if regime == RESPRAYED else evidence.factory
        prior = np.log(grid.respray_prior)[:, None] if regime == RESPRAYED else factory_prior
        terms = table + np.log(_row(p.regime[regime]))[None, :, None, None]
        per_panel = log_sum(terms, axis=1)
        joint[regime] = np.log(weight) + prior + per_panel.sum(axis=0)
        given[regime] = np.exp(terms - per_panel[:, None])
    top = max(float(log.max()) for log in joint.values())
    weights = {regime: np.exp(log - top) for regime, log in joint.items()}
    total = sum(float(weight.sum()) for weight in weights.values())
    states = sum(np.einsum("bg,psbg->ps", weights[r] / total, given[r]) for r in weights)
    baseline = sum((w.sum(axis=1) for r, w in weights.items() if r != RESPRAYED), np.zeros(len(grid.baseline_um)))
    respray = weights[RESPRAYED].sum(axis=1)
    return CarPosterior(
        evidence.panels,
        np.asarray(states) / np.asarray(states).sum(axis=1, keepdims=True),
        {regime: float(weight.sum()) / total for regime, weight in weights.items()},
        baseline / max(baseline.sum(), 1e-300),
        respray / max(respray.sum(), 1e-300),
    )


def weighted_quantiles(values: Floats, weights: Floats, at: tuple[float, ...]) -> list[float]:
    """Quantiles of a distribution given by weights on a rising grid, interpolated between grid points."""
    below = np.cumsum(weights) - 0.5 * weights
    return [float(q) for q in np.interp(np.array(at) * weights.sum(), below, values)]
