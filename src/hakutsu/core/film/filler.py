"""Filler as a dome under the refinish: where it may lie, how it lifts the film, and how much of the panel it covers."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.special import ndtr

from hakutsu.core.film.numeric import blend_rows, log_sum
from hakutsu.core.film.observation import Floats, Shown, misread_mass
from hakutsu.core.film.parameters import Filled, FilmParameters

TINY = 1e-30
FILLER_FROM_UM = 150.0
LEVELS_UM = np.geomspace(95.0, 800.0, 26)
EXCESS_UM = np.array([0.0, 12, 30, 60, 100, 160, 250, 390, 600, 920, 1400, 2200, 3600, 6000])
BETWEEN_STEPS = np.array([0.7, 0.83, 1.0, 1.2, 1.42])
BETWEEN_WEIGHTS = np.array([0.1, 0.2, 0.4, 0.2, 0.1])
FINE = np.stack(np.meshgrid(np.linspace(0.02, 0.98, 25), np.linspace(0.02, 0.98, 25)), axis=-1).reshape(-1, 2)


@dataclass(frozen=True)
class Domes:
    """A family of domes: centres (c, 2), radii (c,), peaks [µm] (c,), log prior weights (c,), and the share of the
    panel under film lifted by more than 150 µm (c,). `spread` is the distribution of lift over the panel's area for
    readings without position, over the grid of excesses, shape (c, excesses).
    """

    centre: Floats
    radius: Floats
    peak_um: Floats
    log_prior: Floats
    area: Floats
    spread: Floats

    def lift(self, u: Floats, v: Floats) -> Floats:
        """Film above the refinish [µm] at places, shape (places, domes): peak · exp(−d² / 2 radius²)."""
        far = (u[:, None] - self.centre[:, 0]) ** 2 + (v[:, None] - self.centre[:, 1]) ** 2
        return np.asarray(self.peak_um * np.exp(-far / (2 * self.radius**2)))


@lru_cache(maxsize=4)
def _domes(key: str) -> Domes:
    return make_domes(Filled.model_validate_json(key))


def domes(p: Filled) -> Domes:
    """The domes of a parameter set, made once."""
    return _domes(p.model_dump_json())


def make_domes(p: Filled) -> Domes:
    """Every combination of centre, radius and peak, with prior weights: filler sits low more often than high."""
    peak_at = np.array([-1.5, -0.7, 0.1, 0.9, 1.8, 2.8])
    peaks = p.excess_median_um * np.exp(p.excess_sd_log * peak_at)
    peak_weight = np.exp(-0.5 * peak_at**2)
    rows = [
        (u, v, radius, peak, p.low_weight * (1 - v) + p.high_weight * v, radius_weight * weight)
        for u in (0.12, 0.37, 0.63, 0.88)
        for v in (0.12, 0.32, 0.55, 0.8)
        for radius, radius_weight in zip(p.radii, p.radius_weights, strict=True)
        for peak, weight in zip(peaks, peak_weight, strict=True)
    ]
    table = np.array(rows)
    prior = table[:, 4] * table[:, 5]
    made = Domes(table[:, :2], table[:, 2], table[:, 3], np.log(prior / prior.sum()), np.empty(0), np.empty(0))
    lift = made.lift(FINE[:, 0], FINE[:, 1])
    nearest = np.searchsorted((EXCESS_UM[1:] + EXCESS_UM[:-1]) / 2, lift)
    spread = np.stack([(nearest == j).mean(axis=0) for j in range(len(EXCESS_UM))], axis=1)
    area = (lift > FILLER_FROM_UM).mean(axis=0)
    return Domes(made.centre, made.radius, made.peak_um, made.log_prior, area, spread)


def lifted_table(seen: Shown, p: FilmParameters) -> Floats:
    """Probability of each reading over refinish levels and excesses, shape (n, levels, excesses).

    Filler is uneven by itself; its spread adds to that of the refinish and to gauge error.
    """
    film = LEVELS_UM[:, None] + EXCESS_UM
    own = p.unevenness.refinished_median
    error = p.gauge.gain_sd + p.gauge.offset_sd_um / film
    sd = np.sqrt(own**2 + error**2 + (p.filled.unevenness * EXCESS_UM / film) ** 2)
    with np.errstate(divide="ignore"):
        high = ndtr((np.log(seen.high_um)[:, None, None] - np.log(film)) / sd)
        low = ndtr((np.log(seen.low_um)[:, None, None] - np.log(film)) / sd)
    misread = seen.misread[:, None, None]
    return np.asarray((1 - misread) * (high - low) + misread * misread_mass(seen, p)[:, None, None])


def dome_likelihoods(seen: Shown, starts: np.ndarray, p: FilmParameters) -> Floats:
    """Log likelihood of each panel's readings, shape (panels, domes, levels).

    `starts` are the indices of the panels' first readings.
    """
    family = domes(p.filled)
    table = np.asarray(lifted_table(seen, p).transpose(0, 2, 1), dtype=np.float32)
    placed = ~np.isnan(seen.u)
    per_reading = np.empty((len(seen.u), len(family.radius), len(LEVELS_UM)), dtype=table.dtype)
    rank = np.interp(family.lift(seen.u[placed], seen.v[placed]), EXCESS_UM, np.arange(len(EXCESS_UM)))
    per_reading[placed] = blend_rows(table[placed], rank)
    per_reading[~placed] = family.spread.astype(table.dtype) @ table[~placed]
    return np.asarray(np.add.reduceat(np.log(np.maximum(per_reading, TINY)), starts, axis=0))


def on_levels(per_dome: Floats, level_um: Floats, p: Filled) -> Floats:
    """Sum over domes and carry over to the model's grid of levels: (panels, domes, levels) → (panels, k)."""
    weighted = log_sum(per_dome + domes(p).log_prior[:, None], axis=1)
    at = np.log(LEVELS_UM)
    # Below and above the refinish levels the prior kernel has no weight worth speaking of.
    return np.array([np.interp(np.log(level_um), at, row) for row in weighted])


def area_posterior(per_dome: Floats, level_weight: Floats, readings: int, p: Filled) -> tuple[Floats, Floats]:
    """Filled share of one panel as values and weights, given that there is filler.

    `per_dome` has shape (domes, levels); `level_weight` is the prior weight of the refinish levels. Real filler is no
    dome: readings on one repair share its deviation from that shape, so together they count as at most
    `shape_readings` independent ones.
    """
    tempered = per_dome * min(1.0, p.shape_readings / readings)
    log = log_sum(tempered + np.log(np.maximum(level_weight, TINY)), axis=1) + domes(p).log_prior
    weight = np.exp(log - log.max()) * (domes(p).area > 0)
    # The radii of the family are steps; true sizes lie between them.
    area = np.clip(np.outer(BETWEEN_STEPS, domes(p).area), 0, 1).ravel()
    weight = np.outer(BETWEEN_WEIGHTS, weight).ravel()
    order = np.argsort(area, kind="stable")
    return area[order], weight[order] / weight.sum()
