"""Scores of an analysis against the truth of a simulated car; bench and tests use the same."""

from __future__ import annotations

import numpy as np

from hakutsu.core.film import FilmAnalysis, State
from hakutsu.core.film.simulate import PaintedCar

UNTOUCHED = (State.ORIGINAL, State.THINNED)
WRONG_FLAGS = 0.02


def log_score(car: PaintedCar, analysis: FilmAnalysis) -> float:
    """Mean over panels of −ln of the probability given to what is true, for altered and for filled [nats]."""
    total = []
    for panel in analysis.panels:
        true = car.panels[panel.panel].state
        for chance, happened in (
            (panel.altered, true not in UNTOUCHED),
            (panel.probabilities[State.FILLED], true is State.FILLED),
        ):
            total.append(-np.log(np.clip(chance if happened else 1 - chance, 1e-6, 1)))
    return float(np.mean(total))


def found_at(score: np.ndarray, positive: np.ndarray, wrong: float = WRONG_FLAGS) -> float:
    """Share of the positive found when a share `wrong` of the others is flagged."""
    return float((score[positive] > np.quantile(score[~positive], 1 - wrong)).mean())


def area_under_curve(score: np.ndarray, positive: np.ndarray) -> float:
    """Chance that a positive scores above one that is not."""
    order = np.argsort(np.argsort(score))
    hits, misses = positive.sum(), (~positive).sum()
    return float((order[positive].sum() - hits * (hits - 1) / 2) / (hits * misses))


def calibration_error(score: np.ndarray, positive: np.ndarray, bins: int = 10) -> float:
    """Mean distance between chance given and share that came true, over equal-width bins weighted by their panels."""
    which = np.minimum((score * bins).astype(int), bins - 1)
    return float(
        sum(
            abs(score[which == b].mean() - positive[which == b].mean()) * (which == b).mean()
            for b in set(which.tolist())
        )
    )
