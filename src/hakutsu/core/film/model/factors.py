"""Likelihoods of panels by state: sums over their levels with the kernels of the car's own unknowns."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from hakutsu.core.film.model.filler import LensEvidence
from hakutsu.core.film.model.grids import Grids, Kernels
from hakutsu.core.film.model.numeric import AnyFloats, Floats
from hakutsu.core.film.parameters import FilmParameters

FLOOR = 1e-290
WHOLE_PAINTED = ("once", "bare", "twice", "filled", "filled on bare")
PAINTED = ("refinished", "rebuilt", "around", "alone")  # filled around a hit, or on a panel painted alone


@dataclass(frozen=True)
class Levels:
    """One panel's likelihood over levels and unevenness, over levels for thinned and blended towards each side, and
    over the level beside filler that shows, scaled by e^−`top`; and the chance of a film or wrap on it.
    """

    top: float
    even: Floats
    changing: Floats
    filled: Floats
    lens: LensEvidence
    cover: float


@dataclass(frozen=True)
class ByState:
    """One panel's likelihoods by state over the unknowns of the car, scaled.

    `own` has the axes (variants, baselines, spreads between panels, evenness of the factory); `changing` (1 + sides,
    variants, baselines, spreads between panels) is thinned, then blended towards each side; `painted` (how, variants,
    baselines, lifts, evenness of the painter) goes by `PAINTED`.
    """

    own: Floats
    changing: Floats
    painted: Floats


@dataclass(frozen=True)
class WholeEvidence:
    """Likelihoods on a car painted whole, scaled: `painted` (how, resprays, spreads between panels, evenness of the
    painter) goes by `WHOLE_PAINTED`, `left_out` are numbers for original, thinned and blended.
    """

    painted: Floats
    left_out: Floats


def _times(kernel: AnyFloats, columns: Sequence[Floats]) -> list[Floats]:
    """Kernels of any shape (..., levels) times (levels, columns) of several panels, as one product in single precision:
    what falls under its range is next to none.
    """
    width = columns[0].shape[1]
    every = np.concatenate(columns, axis=1).astype(np.float32)
    made = (kernel.reshape(-1, kernel.shape[-1]) @ every).astype(float)
    return [made[:, i * width : (i + 1) * width].reshape(*kernel.shape[:-1], width) for i in range(len(columns))]


def factors_of(levels: Sequence[Levels], kernel: Kernels, grid: Grids, p: FilmParameters) -> list[ByState]:
    """Factors of several panels of one kind."""
    factory = [one.even @ grid.factory_spread for one in levels]
    painter = [one.even @ grid.painter_spread for one in levels]
    pairs = list(zip(levels, factory, painter, strict=True))
    own = _times(kernel.own, [np.column_stack([mine, one.changing.T]) for one, mine, _ in pairs])
    covered, rebuilt = _times(kernel.covered, factory), _times(kernel.rebuilt, painter)
    again = [np.column_stack([theirs, one.filled]) for one, _, theirs in pairs]
    over = _times(kernel.over, again)
    out = _times(
        kernel.blended_out, [np.column_stack([mine @ grid.factory_even, one.filled]) for one, mine, _ in pairs]
    )
    found = []
    for i, one in enumerate(levels):
        changing, cover = np.moveaxis(own[i][..., factory[i].shape[1] :], -1, 0), one.cover
        mine = (1 - cover) * own[i][..., : factory[i].shape[1]] + cover * covered[i][:, :, None]
        painted = _painted(one, over[i], rebuilt[i][:, :, None], grid.bare @ again[i], out[i][:, :, None], p)
        found.append(ByState(mine + FLOOR, changing + FLOOR, painted + FLOOR))
    return found


def _painted(level: Levels, over: Floats, twice: Floats, bare: Floats, out: Floats, p: FilmParameters) -> Floats:
    """Refinished, rebuilt, filled around a hit and alone: beside filler that shows, or as if there were none.

    `over` has one more coat (variants, baselines, lifts, painters and filler), `bare` the same on metal (painters and
    filler,), `out` (variants, baselines, 1, factory and filler) film where the colour was blended out.
    """
    share, hidden = p.filled.bare_share, level.lens.hidden
    beside = (1 - share) * over + share * bare

    def filled(seen_share: float, hidden_share: float) -> Floats:
        seen = seen_share * out[..., 1:] + (1 - seen_share) * beside[..., -1:]
        unseen = hidden_share * out[..., :1] + (1 - hidden_share) * beside[..., :-1]
        return np.asarray((1 - hidden) * seen + hidden * unseen)

    q, share = p.painted, p.refinished.bare_share
    once = (1 - share) * over[..., :-1] + share * bare[:-1]
    return np.stack(
        [
            once,
            np.broadcast_to(twice, once.shape),
            filled(q.seen_blended_out, q.hidden_blended_out),
            filled(q.alone_seen_blended_out, q.alone_hidden_blended_out),
        ]
    )


def whole_of(levels: Sequence[Levels], group: str | None, grid: Grids) -> list[WholeEvidence]:
    """On a car painted whole; a panel left out has the factory's film, of which nothing else tells."""
    painter = [one.even @ grid.booth_spread for one in levels]
    again = [np.column_stack([theirs, one.filled]) for one, theirs in zip(levels, painter, strict=True)]
    once, twice = _times(grid.respray.get(group, grid.respray[None]), again), _times(grid.respray_twice, painter)
    found = []
    for i, one in enumerate(levels):
        table, bare, hidden = once[i], grid.bare @ again[i], one.lens.hidden
        even = one.even @ grid.factory_spread @ grid.factory_even
        left = grid.factory_level @ np.column_stack([even, one.changing[0], one.changing[1:].max(axis=0)])
        painted = np.empty((len(WHOLE_PAINTED), *table.shape[:2], table.shape[2] - 1))
        painted[0], painted[1], painted[2] = table[..., :-1], bare[:-1], twice[i][:, None, :]
        painted[3] = (1 - hidden) * table[..., -1:] + hidden * painted[0]
        painted[4] = (1 - hidden) * bare[-1] + hidden * bare[:-1]
        found.append(WholeEvidence(painted, left))
    return found
