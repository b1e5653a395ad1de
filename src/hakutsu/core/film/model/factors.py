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
    variants, baselines) is thinned, then blended towards each side; `painted` (how, variants,
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


def _times(kernel: AnyFloats, columns: Floats) -> Floats:
    """Kernels of any shape (..., levels) times (panels, levels, columns), as one product: (panels, ..., columns).

    In single precision: what falls under its range is next to none.
    """
    count, size, width = columns.shape
    every = columns.astype(np.float32).transpose(1, 0, 2).reshape(size, count * width)
    made = (kernel.reshape(-1, size) @ every).reshape(-1, count, width).transpose(1, 0, 2)
    return made.astype(float).reshape(count, *kernel.shape[:-1], width)


@dataclass(frozen=True)
class _Columns:
    """Likelihoods over levels of several panels: (panels, levels, columns), and their numbers (panels,)."""

    even: Floats
    filled: Floats
    changing: Floats
    hidden: Floats
    cover: Floats


def _columns(levels: Sequence[Levels]) -> _Columns:
    return _Columns(
        np.stack([one.even for one in levels]),
        np.stack([one.filled for one in levels])[..., None],
        np.stack([one.changing.T for one in levels]),
        np.array([one.lens.hidden for one in levels]),
        np.array([one.cover for one in levels]),
    )


def factors_of(levels: Sequence[Levels], kernel: Kernels, grid: Grids, p: FilmParameters) -> list[ByState]:
    """Factors of several panels of one kind."""
    seen = _columns(levels)
    factory, painter = seen.even @ grid.factory_spread, seen.even @ grid.painter_spread
    cover = seen.cover.reshape(-1, 1, 1, 1, 1)
    own = (1 - cover) * _times(kernel.own, factory) + cover * _times(kernel.covered, factory)[:, :, :, None]
    between = np.tensordot(grid.between.astype(np.float32), kernel.own, (0, 2))
    changing = np.moveaxis(_times(between, seen.changing), -1, 1)
    again = np.concatenate([painter, seen.filled], axis=2)
    out = np.concatenate([(factory @ grid.factory_even)[..., None], seen.filled], axis=2)
    painted = _painted(
        _times(kernel.over, again),
        _times(kernel.rebuilt, painter),
        grid.bare @ again,
        _times(kernel.blended_out, out),
        seen.hidden,
        p,
    )
    made = [table + FLOOR for table in (own, changing, painted)]
    # Each panel has arrays of its own, so that the others need not be held for it.
    return [ByState(*(table[i].copy() for table in made)) for i in range(len(levels))]


def _painted(over: Floats, twice: Floats, bare: Floats, out: Floats, hidden: Floats, p: FilmParameters) -> Floats:
    """Refinished, rebuilt, filled around a hit and alone: beside filler that shows, or as if there were none.

    `over` has one more coat (panels, variants, baselines, lifts, painters and filler), `twice` two (panels, variants,
    baselines, painters), `bare` one on metal (panels, painters and filler), `out` film where the colour was blended out
    (panels, variants, baselines, factory and filler). The result has `PAINTED` after the panels.
    """
    share, unseen = p.filled.bare_share, hidden.reshape(-1, 1, 1, 1, 1)
    metal, out = bare[:, None, None, None], out[:, :, :, None]
    beside = (1 - share) * over + share * metal
    q, share = p.painted, p.refinished.bare_share
    made = np.empty((len(over), len(PAINTED), *over.shape[1:-1], over.shape[-1] - 1))
    made[:, 0] = (1 - share) * over[..., :-1] + share * metal[..., :-1]
    made[:, 1] = twice[:, :, :, None]
    ends = ((q.seen_blended_out, q.hidden_blended_out), (q.alone_seen_blended_out, q.alone_hidden_blended_out))
    for i, (shown, not_shown) in enumerate(ends, 2):
        seen = shown * out[..., 1:] + (1 - shown) * beside[..., -1:]
        made[:, i] = (1 - unseen) * seen + unseen * (not_shown * out[..., :1] + (1 - not_shown) * beside[..., :-1])
    return made


def whole_of(levels: Sequence[Levels], group: str | None, grid: Grids) -> list[WholeEvidence]:
    """On a car painted whole; a panel left out has the factory's film, of which nothing else tells."""
    seen = _columns(levels)
    painter = seen.even @ grid.booth_spread
    again = np.concatenate([painter, seen.filled], axis=2)
    table, twice = _times(grid.respray.get(group, grid.respray[None]), again), _times(grid.respray_twice, painter)
    bare, hidden = grid.bare @ again, seen.hidden.reshape(-1, 1, 1, 1)
    painted = np.empty((len(levels), len(WHOLE_PAINTED), *table.shape[1:-1], table.shape[-1] - 1))
    painted[:, 0], painted[:, 1], painted[:, 2] = table[..., :-1], bare[:, None, None, :-1], twice[:, :, None]
    painted[:, 3] = (1 - hidden) * table[..., -1:] + hidden * table[..., :-1]
    painted[:, 4] = (1 - hidden) * bare[:, None, None, -1:] + hidden * bare[:, None, None, :-1]
    even = seen.even @ grid.factory_spread @ grid.factory_even
    left = np.stack([even, seen.changing[..., 0], seen.changing[..., 1:].max(axis=2)], axis=2)
    left_out = grid.factory_level @ left
    return [WholeEvidence(painted[i].copy(), left_out[i].copy()) for i in range(len(levels))]
