"""Likelihood of one panel's readings by state, over the unknowns of the whole car."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

import numpy as np

from hakutsu.core.film.model import filler, graded
from hakutsu.core.film.model.factors import ByState, Levels, WholeEvidence, factors_of, whole_of
from hakutsu.core.film.model.grids import SPREADS, Grids, Kind, grids, group_of, kernels, kind_of
from hakutsu.core.film.model.numeric import AnyFloats, Floats, interpolation, log_mean, smooth_interpolation
from hakutsu.core.film.model.observation import Shown, clean_mass, panel_table, shown, with_misreads
from hakutsu.core.film.parameters import FilmParameters
from hakutsu.core.film.survey import Observation

GRADED = slice(1, 2)  # unevenness of film that changes across a panel: the commonest of the factory


@dataclass(frozen=True)
class PanelEvidence:
    """Likelihoods of the readings of one panel, all scaled by e^−`top`.

    `by_spread` (levels, spreads) is the likelihood by level and
    unevenness; `per_blend` and `per_cut` (gradients, levels) keep the shapes apart.
    """

    panel: str
    kind: Kind
    readings: int
    top: float
    factors: ByState
    whole: WholeEvidence
    by_spread: Floats
    lens: filler.LensEvidence
    per_blend: AnyFloats
    per_cut: AnyFloats


@lru_cache(maxsize=4)
def _to_levels(key: str) -> tuple[Floats, Floats]:
    log_level = np.log(grids(FilmParameters.model_validate_json(key)).level_um)
    blend, lens = np.log(graded.LEVELS_UM), np.log(filler.LEVELS_UM)
    return smooth_interpolation(log_level, blend), interpolation(log_level, lens)


@dataclass(frozen=True)
class _Tables:
    """What the readings of several panels say, over levels and unevenness, gradients and lenses."""

    even: Floats
    blend: AnyFloats
    cut: AnyFloats
    lifted: AnyFloats


def _tables(seen: Shown, starts: np.ndarray, grid: Grids, p: FilmParameters) -> _Tables:
    level = np.repeat(grid.level_um[:, None], len(SPREADS), axis=1)
    clean = clean_mass(seen, level, SPREADS[None, :], p)
    changed = graded.changed_table(with_misreads(seen, clean[:, :, GRADED], p), grid.level_um)
    middle = grid.factory_spread @ grid.factory_even
    spread = middle[GRADED] / middle[GRADED].sum()
    blends, cuts = graded.families(p)
    return _Tables(
        panel_table(seen, starts, clean, p),
        graded.graded_likelihoods(seen, starts, changed, blends, spread),
        graded.graded_likelihoods(seen, starts, changed, cuts, spread),
        filler.lifted_table(seen, p),
    )


def panel_evidence(
    groups: Mapping[str, Sequence[Observation]],
    unusual: Mapping[str, bool],
    cover: Mapping[str, float],
    grid: Grids,
    p: FilmParameters,
) -> dict[str, PanelEvidence]:
    """Evidence of every panel with at least one reading.

    Parameters
    ----------
    groups : the spots of each panel, at least one panel with at least one spot
    unusual : panels whose substrate is not the usual one of the car
    cover : chance that a panel carries a film or wrap nobody subtracted
    """
    seen: Shown = shown([o for group in groups.values() for o in group], p)
    ends = np.cumsum([0, *(len(group) for group in groups.values())])
    tables = _tables(seen, ends[:-1], grid, p)
    blends, cuts = graded.families(p)
    from_graded, from_lens = _to_levels(p.key)
    film = np.where(seen.censored, seen.low_um * 1.5, (seen.low_um + np.where(seen.censored, 0, seen.high_um)) / 2)
    at = np.flatnonzero(seen.placed)
    lift = filler.lenses(p).lift(seen.u[at], seen.v[at])
    weights = filler.over_excesses(lift)
    cut = log_mean(tables.cut, np.exp(cuts.log_prior))
    changed = np.concatenate([cut[:, None], graded.by_side(tables.blend, blends)], axis=1).astype(float) @ from_graded.T
    lens = [
        filler.lens_evidence(
            tables.lifted[start:end], seen.u[start:end], seen.v[start:end], film[start:end],
            (lift[:, first:last], weights[:, first:last]), p,
        )
        for (start, end), (first, last) in zip(pairwise(ends), pairwise(np.searchsorted(at, ends)), strict=True)
    ]  # fmt: skip
    filled = np.stack([one.seen for one in lens]) @ from_lens.T
    tops = np.max([tables.even.max(axis=(1, 2)), changed.max(axis=(1, 2)), filled.max(axis=1)], axis=0)
    even, changing = (np.exp(table - tops[:, None, None]) for table in (tables.even, changed))
    levels = {}
    for i, name in enumerate(groups):
        levels[name] = Levels(
            float(tops[i]), even[i], changing[i], np.exp(filled[i] - tops[i]), lens[i], cover.get(name, p.cover.share)
        )
    kinds = {name: (kind_of(name), not unusual.get(name, False)) for name in groups}
    factors: dict[str, ByState] = {}
    whole: dict[str, WholeEvidence] = {}
    for kind in dict.fromkeys(kinds.values()):
        mine = [name for name, one in kinds.items() if one == kind]
        these = [levels[name] for name in mine]
        factors |= zip(mine, factors_of(these, kernels(kind, p), grid, p), strict=True)
        whole |= zip(mine, whole_of(these, group_of(kind), grid), strict=True)
    return {
        name: PanelEvidence(
            name, kinds[name], len(group), levels[name].top, factors[name], whole[name], even[i].copy(),
            levels[name].lens, tables.blend[i].copy(), tables.cut[i].copy(),
        )
        for i, (name, group) in enumerate(groups.items())
    }  # fmt: skip
