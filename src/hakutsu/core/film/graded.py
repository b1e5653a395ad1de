"""Factory film that changes across a panel: faded thicker towards one side (blended), or taken off (thinned)."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from scipy.special import ndtr

from hakutsu.core.film.numeric import blend_rows, log_sum
from hakutsu.core.film.observation import Floats, Shown, misread_mass
from hakutsu.core.film.parameters import FilmParameters, Side

TINY = 1e-30
LEVELS_UM = np.geomspace(50.0, 420.0, 38)
SPREADS = np.array([0.024, 0.042])
CHANGE_UM = np.array([-50.0, -36, -24, -14, -6, 0, 8, 18, 30, 44, 60, 80])


@dataclass(frozen=True)
class Gradients:
    """Ways film may change across a panel: the side it changes towards, where that begins (0 to 1 across), by how much
    [µm], and log prior weights; all of shape (c,). `spread` is the distribution of change over the panel for readings
    without position, over the grid of changes.
    """

    side: tuple[Side, ...]
    begins: Floats
    amount_um: Floats
    log_prior: Floats
    spread: Floats

    def change(self, u: Floats, v: Floats) -> Floats:
        """Change of film [µm] at places, shape (places, c)."""
        across = {Side.FRONT: 1 - u, Side.REAR: u, Side.LOW: 1 - v, Side.HIGH: v, Side.ALL: np.ones_like(u)}
        towards = np.stack([across[side] for side in self.side], axis=1)
        ramp = np.clip((towards - self.begins) / np.maximum(1 - self.begins, 1e-9), 0, 1)
        return np.asarray(self.amount_um * ramp)


def _make(rows: Sequence[tuple[Side, float, float, float]]) -> Gradients:
    side = tuple(row[0] for row in rows)
    begins, amount, weight = (np.array([row[i] for row in rows], dtype=float) for i in (1, 2, 3))
    bare = Gradients(side, begins, amount, np.log(weight / weight.sum()), np.empty(0))
    even = np.linspace(0.02, 0.98, 25)
    u, v = (axis.ravel() for axis in np.meshgrid(even, even))
    nearest = np.searchsorted((CHANGE_UM[1:] + CHANGE_UM[:-1]) / 2, bare.change(u, v))
    spread = np.stack([(nearest == j).mean(axis=0) for j in range(len(CHANGE_UM))], axis=1)
    return Gradients(side, begins, amount, bare.log_prior, spread)


def _blends(p: FilmParameters) -> Iterator[tuple[Side, float, float, float]]:
    for side, weight in p.blended.side_weights.items():
        for begins in p.blended.begins:
            for amount in np.linspace(p.blended.least_um, p.blended.most_um, 3):
                yield side, begins, float(amount), weight


def _cuts(p: FilmParameters) -> Iterator[tuple[Side, float, float, float]]:
    for side, weight in p.thinned.side_weights.items():
        for amount in np.linspace(p.thinned.least_um, p.thinned.most_um, 3):
            yield side, -1.0 if side is Side.ALL else p.thinned.begins, -float(amount), weight


@lru_cache(maxsize=4)
def _families(key: str) -> tuple[Gradients, Gradients]:
    p = FilmParameters.model_validate_json(key)
    return _make(list(_blends(p))), _make(list(_cuts(p)))


def families(p: FilmParameters) -> tuple[Gradients, Gradients]:
    """Blends and cuts of a parameter set, made once."""
    return _families(p.model_dump_json())


def changed_table(seen: Shown, p: FilmParameters) -> Floats:
    """Probability of each reading over levels, unevenness and changes, shape (n, changes, levels · spreads)."""
    film = np.maximum(LEVELS_UM[:, None] + CHANGE_UM[:, None, None], 15.0)
    error = p.gauge.gain_sd + p.gauge.offset_sd_um / film
    sd = np.sqrt(SPREADS**2 + error**2)
    with np.errstate(divide="ignore"):
        high = ndtr((np.log(seen.high_um)[:, None, None, None] - np.log(film)) / sd)
        low = ndtr((np.log(seen.low_um)[:, None, None, None] - np.log(film)) / sd)
    misread = seen.misread[:, None, None, None]
    table = (1 - misread) * (high - low) + misread * misread_mass(seen, p)[:, None, None, None]
    return np.asarray(table.reshape(len(seen.u), len(CHANGE_UM), -1), dtype=np.float32)


def graded_likelihoods(
    seen: Shown, starts: np.ndarray, table: Floats, family: Gradients, spread_prior: Floats
) -> Floats:
    """Log likelihood of each panel's readings, shape (panels, gradients, levels)."""
    placed = ~np.isnan(seen.u)
    per_reading = np.empty((len(seen.u), len(family.amount_um), table.shape[2]), dtype=table.dtype)
    rank = np.interp(family.change(seen.u[placed], seen.v[placed]), CHANGE_UM, np.arange(len(CHANGE_UM)))
    per_reading[placed] = blend_rows(table[placed], rank)
    per_reading[~placed] = family.spread.astype(table.dtype) @ table[~placed]
    summed = np.add.reduceat(np.log(np.maximum(per_reading, TINY)), starts, axis=0)
    by_spread = summed.reshape(*summed.shape[:2], len(LEVELS_UM), len(SPREADS))
    return np.asarray(log_sum(by_spread + np.log(spread_prior), axis=3))


def on_levels(per_gradient: Floats, level_um: Floats, family: Gradients) -> Floats:
    """Sum over gradients and carry over to the model's grid of levels: (panels, c, levels) → (panels, k)."""
    weighted = log_sum(per_gradient + family.log_prior[:, None], axis=1)
    return np.array([np.interp(np.log(level_um), np.log(LEVELS_UM), row) for row in weighted])


def side_weights(per_gradient: Floats, level_weight: Floats, family: Gradients) -> dict[Side, float]:
    """Probability of each side for one panel, given that the film changes; `level_weight` over the levels."""
    log = log_sum(per_gradient + np.log(np.maximum(level_weight, TINY)), axis=1) + family.log_prior
    weight = np.exp(log - log.max())
    found: dict[Side, float] = {}
    for side, one in zip(family.side, weight / weight.sum(), strict=True):
        found[side] = found.get(side, 0.0) + float(one)
    return found
