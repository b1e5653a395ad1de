"""Filler as a lens under the refinish: where it may lie, how it lifts the film, and how much of the panel it covers."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from hakutsu.core.film.model.numeric import TINY, AnyFloats, Floats, hats, log_mean, log_sum, per_panel_sums
from hakutsu.core.film.model.observation import Shown, mass
from hakutsu.core.film.parameters import Filled, FilmParameters, parameters

LEVELS_UM = np.geomspace(95.0, 800.0, 26)
EXCESS_UM = np.array([0.0, 12, 30, 60, 100, 160, 250, 390, 600, 920, 1400, 2200, 3600, 6000])
BETWEEN_STEPS = np.array([0.7, 0.86, 1.05, 1.28, 1.55])
BETWEEN_WEIGHTS = np.array([0.1, 0.2, 0.4, 0.2, 0.1])
MAP = 24
_EVEN = (np.arange(MAP) + 0.5) / MAP
FINE = np.stack(np.meshgrid(_EVEN, _EVEN), axis=-1).reshape(-1, 2)


@dataclass(frozen=True)
class Lenses:
    """A family of lenses: centres (c, 2), half-axes as share of the panel (c, 2), peaks [µm] (c,), log prior weights
    (c,), and `lifted`: which cells of a MAP × MAP grid lie under film lifted by more than 150 µm, shape (c, cells).
    `spread` is the distribution of lift over the panel's area for readings without position, shape (c, excesses).
    """

    centre: Floats
    axes: Floats
    peak_um: Floats
    log_prior: Floats
    lifted: AnyFloats
    spread: AnyFloats

    @property
    def area(self) -> Floats:
        """Share of the panel under film lifted by more than 150 µm, shape (c,)."""
        return np.asarray(self.lifted.mean(axis=1), dtype=float)

    def lift(self, u: Floats, v: Floats) -> Floats:
        """Film above the refinish [µm] at places, shape (c, places): peak · (1 − r²)^¾ within the rim, else 0."""
        far = ((u - self.centre[:, :1]) / self.axes[:, :1]) ** 2
        far += ((v - self.centre[:, 1:]) / self.axes[:, 1:]) ** 2
        inside = np.sqrt(np.maximum(0, 1 - far))
        return np.asarray(self.peak_um[:, None] * inside * np.sqrt(inside))


@lru_cache(maxsize=4)
def _lenses(key: str) -> Lenses:
    return make_lenses(FilmParameters.model_validate_json(key).filled)


def lenses(p: FilmParameters) -> Lenses:
    """The lenses of a parameter set, made once."""
    return _lenses(p.key)


def make_lenses(p: Filled) -> Lenses:
    """Every combination of centre, size and peak, with prior weights: filler sits low more often than high."""
    peak_at = np.array([-1.4, -0.2, 1.1, 2.7])
    peaks = p.excess_median_um * np.exp(p.excess_sd_log * peak_at)
    peak_weight = np.exp(-0.5 * peak_at**2)
    rows = [
        (u, v, *axes, peak, p.low_weight * (1 - v) + p.high_weight * v, size_weight * weight)
        for u in (0.1, 0.3, 0.5, 0.7, 0.9)
        for v in (0.12, 0.32, 0.52, 0.75)
        for axes, size_weight in zip(p.half_axes, p.size_weights, strict=True)
        for peak, weight in zip(peaks, peak_weight, strict=True)
    ]
    table = np.array(rows)
    prior = table[:, 5] * table[:, 6]
    nothing = np.empty(0)
    made = Lenses(table[:, :2], table[:, 2:4], table[:, 4], np.log(prior / prior.sum()), nothing, nothing)
    lift = made.lift(FINE[:, 0], FINE[:, 1])
    nearest = np.searchsorted((EXCESS_UM[1:] + EXCESS_UM[:-1]) / 2, lift)
    spread = np.stack([(nearest == j).mean(axis=1) for j in range(len(EXCESS_UM))], axis=1)
    lifted = (lift > parameters().filled.counts_from_um).astype(np.float32)
    return Lenses(made.centre, made.axes, made.peak_um, made.log_prior, lifted, spread.astype(np.float32))


def lifted_film(p: FilmParameters) -> tuple[Floats, Floats]:
    """Mean film [µm] over excesses and refinish levels, and its own relative spread: filler is uneven by itself."""
    film = LEVELS_UM + EXCESS_UM[:, None]
    own = p.unevenness.refinished_median
    return film, np.sqrt(own**2 + (p.filled.unevenness * EXCESS_UM[:, None] / film) ** 2)


def lifted_table(seen: Shown, p: FilmParameters) -> AnyFloats:
    """Log probability of each reading over excesses and refinish levels, shape (n, excesses, levels)."""
    film, sd = lifted_film(p)
    return np.log(np.maximum(mass(seen, film, sd, p), TINY)).astype(np.float32)


def weights_at(u: Floats, v: Floats, p: FilmParameters) -> AnyFloats:
    """Weights over the excesses that each lens puts at places, shape (c, places, excesses)."""
    rank = np.interp(lenses(p).lift(u, v), EXCESS_UM, np.arange(len(EXCESS_UM), dtype=float))
    return hats(rank.astype(np.float32), len(EXCESS_UM))


def lens_likelihoods(seen: Shown, starts: np.ndarray, p: FilmParameters) -> AnyFloats:
    """Log likelihood of each panel's readings, shape (panels, lenses, levels).

    `starts` are the indices of the panels' first readings.
    """
    table, placed = lifted_table(seen, p), seen.placed
    weights = weights_at(seen.u[placed], seen.v[placed], p)
    unplaced = np.log(np.maximum(lenses(p).spread @ np.exp(table[~placed]), TINY))
    return per_panel_sums(weights, table, placed, starts, unplaced)


def over_lenses(per_lens: AnyFloats, p: FilmParameters) -> AnyFloats:
    """Sum over lenses: (panels, lenses, levels) → (panels, levels)."""
    return log_mean(per_lens, np.exp(lenses(p).log_prior))


def lens_posterior(per_lens: AnyFloats, level_weight: Floats, readings: int, p: FilmParameters) -> Floats:
    """Weights of the lenses of one panel, given that there is filler, shape (lenses,).

    `per_lens` has shape (lenses, levels); `level_weight` is the prior weight of the refinish levels. Real filler is no
    lens: readings on one repair share its deviation from that shape, so together they count as at most
    `shape_readings` independent ones.
    """
    tempered = per_lens * min(1.0, p.filled.shape_readings / readings)
    log = log_sum(tempered + np.log(np.maximum(level_weight, TINY)), axis=1) + lenses(p).log_prior
    weight = np.exp(log - log.max()) * lenses(p).lifted.any(axis=1)
    return np.asarray(weight / weight.sum())


def area_posterior(weight: Floats, p: FilmParameters) -> tuple[Floats, Floats]:
    """Filled share of one panel as rising values and their weights, from the weights of its lenses."""
    # The sizes of the family are steps; true sizes lie between them.
    area = np.clip(np.outer(BETWEEN_STEPS, lenses(p).area), 0, 1).ravel()
    spread = np.outer(BETWEEN_WEIGHTS, weight).ravel()
    order = np.argsort(area, kind="stable")
    return area[order], spread[order]


def filler_map(weight: Floats, p: FilmParameters) -> Floats:
    """Probability of more than 150 µm of filler over the panel, shape (MAP rows along v, MAP columns along u)."""
    return np.asarray((weight.astype(np.float32) @ lenses(p).lifted).reshape(MAP, MAP), dtype=float)
