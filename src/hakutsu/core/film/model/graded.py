"""Factory film that changes across a panel: faded thicker towards one side (blended), or taken off (thinned)."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from hakutsu.core.film.model.numeric import (
    TINY,
    AnyFloats,
    Floats,
    hats,
    log_mean,
    log_sum,
    per_panel_sums,
    smooth_interpolation,
)
from hakutsu.core.film.model.observation import Shown
from hakutsu.core.film.parameters import FilmParameters, Side

LEVELS_UM = np.geomspace(50.0, 420.0, 60)
CHANGE_UM = np.array([-50.0, -36, -24, -14, -6, 0, 8, 18, 30, 44, 60, 80])
SIDES = (Side.FRONT, Side.REAR, Side.LOW, Side.HIGH)


@dataclass(frozen=True)
class Gradients:
    """Ways film may change across a panel: the side it changes towards, where that begins (0 to 1 across), by how much
    [µm], and log prior weights; all of shape (c,). `spread` is the distribution of change over the panel for readings
    without position, over the grid of changes. `soft` is the width of the transition, as share of the way across.
    """

    side: tuple[Side, ...]
    begins: Floats
    amount_um: Floats
    log_prior: Floats
    spread: Floats
    soft: float

    def change(self, u: Floats, v: Floats) -> Floats:
        """Change of film [µm] at places, shape (places, c): nothing before it begins, whole after the transition."""
        across = {Side.FRONT: 1 - u, Side.REAR: u, Side.LOW: 1 - v, Side.HIGH: v, Side.ALL: np.ones_like(u)}
        towards = np.stack([across[side] for side in self.side], axis=1)
        ramp = np.clip((towards - self.begins) / self.soft, 0, 1)
        return np.asarray(self.amount_um * ramp * ramp * (3 - 2 * ramp))

    def of_side(self, side: Side) -> list[int]:
        """Indices of the gradients towards a side."""
        return [i for i, one in enumerate(self.side) if one is side]


def _make(rows: Sequence[tuple[Side, float, float, float]], soft: float) -> Gradients:
    side = tuple(row[0] for row in rows)
    begins, amount, weight = (np.array([row[i] for row in rows], dtype=float) for i in (1, 2, 3))
    bare = Gradients(side, begins, amount, np.log(weight / weight.sum()), np.empty(0), soft)
    even = np.linspace(0.02, 0.98, 25)
    u, v = (axis.ravel() for axis in np.meshgrid(even, even))
    nearest = np.searchsorted((CHANGE_UM[1:] + CHANGE_UM[:-1]) / 2, bare.change(u, v))
    spread = np.stack([(nearest == j).mean(axis=0) for j in range(len(CHANGE_UM))], axis=1)
    return Gradients(side, begins, amount, bare.log_prior, spread, soft)


def _rows(
    sides: dict[Side, float], begins: Sequence[float], amounts: Floats
) -> Iterator[tuple[Side, float, float, float]]:
    for side, weight in sides.items():
        for begin in begins if side is not Side.ALL else (-1.0,):
            for amount in amounts:
                yield side, begin, float(amount), weight / (len(begins) if side is not Side.ALL else 1)


@lru_cache(maxsize=4)
def _families(key: str) -> tuple[Gradients, Gradients]:
    p = FilmParameters.model_validate_json(key)
    up, down = p.blended, p.thinned
    blends = _rows(dict.fromkeys(SIDES, 1.0), up.begins, np.linspace(up.least_um, up.most_um, 3))
    cuts = _rows(down.side_weights, down.begins, -np.linspace(down.least_um, down.most_um, 4))
    return _make(list(blends), up.soft), _make(list(cuts), down.soft)


def families(p: FilmParameters) -> tuple[Gradients, Gradients]:
    """Blends and cuts of a parameter set, made once. Blends weigh all sides alike: which side is asked elsewhere."""
    return _families(p.key)


@lru_cache(maxsize=4)
def _reads(levels: tuple[float, ...]) -> AnyFloats:
    """Matrix that reads every (change, level) off a function on the model's grid of levels."""
    film = np.maximum(LEVELS_UM + CHANGE_UM[:, None], levels[0]).ravel()
    return smooth_interpolation(np.log(film), np.log(np.array(levels))).astype(np.float32)


def changed_table(table: Floats, level_um: Floats) -> AnyFloats:
    """Log probability of each reading over changes, levels and unevenness: (n, k, s) → (n, changes, levels · s).

    `table` is the readings' probability over the model's levels [µm] and a few values of unevenness.
    """
    log = np.log(np.maximum(table, TINY)).astype(np.float32)
    read = _reads(tuple(level_um)) @ log
    count, _, spreads = log.shape
    return read.reshape(count, len(CHANGE_UM), len(LEVELS_UM) * spreads)


def graded_likelihoods(
    seen: Shown, starts: np.ndarray, table: AnyFloats, family: Gradients, spread_prior: Floats
) -> AnyFloats:
    """Log likelihood of each panel's readings, shape (panels, gradients, levels)."""
    placed = seen.placed
    rank = np.interp(family.change(seen.u[placed], seen.v[placed]), CHANGE_UM, np.arange(len(CHANGE_UM), dtype=float))
    weights = hats(rank.T.astype(table.dtype), len(CHANGE_UM))
    unplaced = np.log(np.maximum(family.spread.astype(table.dtype) @ np.exp(table[~placed]), TINY))
    summed = per_panel_sums(weights, table, placed, starts, unplaced)
    by_spread = summed.reshape(-1, len(LEVELS_UM), len(spread_prior)).transpose(0, 2, 1)
    return log_mean(by_spread, spread_prior).reshape(*summed.shape[:2], len(LEVELS_UM))


def by_side(per_gradient: AnyFloats, family: Gradients) -> AnyFloats:
    """Sum over the gradients of each side: (panels, c, levels) → (panels, sides, levels)."""
    found = []
    for side in SIDES:
        which = family.of_side(side)
        weight = np.exp(family.log_prior[which])
        found.append(log_mean(per_gradient[:, which], weight / weight.sum()))
    return np.stack(found, axis=1)


def side_weights(per_gradient: AnyFloats, level_weight: Floats, family: Gradients) -> dict[Side, float]:
    """Probability of each side for one panel, given that the film changes; `level_weight` over the levels."""
    log = log_sum(per_gradient + np.log(np.maximum(level_weight, TINY)), axis=1) + family.log_prior
    weight = np.exp(log - log.max())
    found: dict[Side, float] = {}
    for side, one in zip(family.side, weight / weight.sum(), strict=True):
        found[side] = found.get(side, 0.0) + float(one)
    return found
