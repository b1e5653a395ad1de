"""Marginal likelihood of one car's readings per panel and state, over the grids of baselines."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from hakutsu.core.film.model import filler, graded
from hakutsu.core.film.model.grids import SPREADS, Grids, Kernels, grids, kind_of
from hakutsu.core.film.model.numeric import (
    AnyFloats,
    Floats,
    interpolation,
    log_mean,
    over_kernel,
    smooth_interpolation,
)
from hakutsu.core.film.model.observation import Shown, reading_table, shown
from hakutsu.core.film.parameters import WHOLE, FilmParameters
from hakutsu.core.film.survey import Observation, State

TINY = 1e-300
OWN = ("original", "thinned")
GRADED = slice(1, 3)  # unevenness of film that changes across a panel: the two commonest of the factory


@dataclass(frozen=True)
class PanelEvidence:
    """Log likelihoods of the readings of each panel.

    By level [(panels, levels) of the grid]: `even`, `uneven`, `twice` for film of the factory, refinished and rebuilt
    unevenness, `thinned`, `filled`, and `blended` (panels, sides, levels). `by_spread` (panels, levels, spreads) is
    the likelihood by unevenness too, scaled by each panel's best. `per_lens` (panels, lenses, refinish
    levels), `per_blend` and `per_cut` (panels, gradients, levels) keep the shapes apart.

    By the car's baseline and the stone guard, `local`: arrays (panels, baselines, guards) by state, `blended` with
    sides in second place. By the level of a whole respray, `whole`: for each history (panels, states, levels).
    """

    panels: tuple[str, ...]
    kinds: tuple[tuple[str, bool], ...]
    readings: tuple[int, ...]
    even: Floats
    uneven: Floats
    twice: Floats
    thinned: Floats
    blended: Floats
    filled: Floats
    by_spread: Floats
    per_lens: AnyFloats
    per_blend: AnyFloats
    per_cut: AnyFloats
    local: Mapping[str, Floats]
    whole: Mapping[str, Floats]


@lru_cache(maxsize=4)
def _to_levels(key: str) -> tuple[Floats, Floats]:
    log_level = np.log(grids(FilmParameters.model_validate_json(key)).level_um)
    blend, lens = np.log(graded.LEVELS_UM), np.log(filler.LEVELS_UM)
    return smooth_interpolation(log_level, blend), interpolation(log_level, lens)


def _product(table: Floats, starts: np.ndarray, priors: Sequence[Floats]) -> tuple[list[Floats], Floats]:
    """Log likelihood of each panel's readings over levels, for each prior of unevenness; and by unevenness."""
    per_panel = np.add.reduceat(np.log(np.maximum(table, TINY)), starts, axis=0)
    top = per_panel.max(axis=-1, keepdims=True)
    by_prior = np.log(np.exp(per_panel - top) @ np.stack(priors, axis=1)) + top
    by_spread = np.exp(per_panel - per_panel.max(axis=(1, 2), keepdims=True))
    return [by_prior[..., i] for i in range(len(priors))], by_spread


def panel_evidence(
    groups: Mapping[str, Sequence[Observation]],
    unusual: Mapping[str, bool],
    cover: Mapping[str, float],
    grid: Grids,
    p: FilmParameters,
) -> PanelEvidence:
    """Evidence of every panel with at least one reading.

    Parameters
    ----------
    groups : the spots of each panel, at least one panel with at least one spot
    unusual : panels whose substrate is not the usual one of the car
    cover : chance that a panel carries a film or wrap nobody subtracted
    """
    names = tuple(groups)
    kinds = tuple((kind_of(name), not unusual.get(name, False)) for name in names)
    seen: Shown = shown([o for group in groups.values() for o in group], p)
    starts = np.cumsum([0, *(len(group) for group in groups.values())])[:-1]
    table = reading_table(seen, grid.level_um, SPREADS, p)
    priors = (grid.factory_spread, grid.refinished_spread, grid.rebuilt_spread)
    (even, uneven, twice), by_spread = _product(table, starts, priors)
    spread = grid.factory_spread[GRADED]
    changed = graded.changed_table(table[:, :, GRADED], grid.level_um)
    blends, cuts = graded.families(p)
    per_blend, per_cut = (
        graded.graded_likelihoods(seen, starts, changed, family, spread / spread.sum()) for family in (blends, cuts)
    )
    per_lens = filler.lens_likelihoods(seen, starts, p)
    from_graded, from_lens = _to_levels(p.key)
    cut_levels = log_mean(per_cut, np.exp(cuts.log_prior))
    thinned = cut_levels.astype(float) @ from_graded.T
    blended = graded.by_side(per_blend, blends).astype(float) @ from_graded.T
    filled = filler.over_lenses(per_lens, p).astype(float) @ from_lens.T
    covered = np.array([cover.get(name, p.cover.share) for name in names])
    levels = {"original": even, "thinned": thinned, "refinished": uneven, "rebuilt": twice, "filled": filled}
    local = _local(kinds, levels, blended, covered, grid)
    whole = _whole(levels, blended, grid)
    counts = tuple(len(group) for group in groups.values())
    return PanelEvidence(
        names, kinds, counts, even, uneven, twice, thinned, blended, filled, by_spread, per_lens, per_blend, per_cut,
        local, whole,
    )  # fmt: skip


def _local(
    kinds: Sequence[tuple[str, bool]], levels: Mapping[str, Floats], blended: Floats, covered: Floats, grid: Grids
) -> dict[str, Floats]:
    """Over the car's own baseline and stone guard."""
    guards = len(grid.own["sill", True])
    shape = (len(kinds), len(grid.baseline_um), guards)
    kernels: dict[str, Mapping[tuple[str, bool], Kernels]] = {
        "refinished": grid.refinished, "rebuilt": grid.rebuilt, "filled": grid.filled, "covered": grid.covered,
    }  # fmt: skip
    own = np.concatenate([np.stack([levels[name] for name in OWN], axis=1), blended], axis=1)
    found = {"own": np.empty((shape[0], own.shape[1], *shape[1:]))} | {
        name: np.empty((shape[0], 1, *shape[1:])) for name in kernels
    }

    def fill(name: str, members: list[int], table: Floats, stack: Kernels) -> None:
        by_guard = over_kernel(table[members], np.concatenate(stack))
        found[name][members] = by_guard.reshape(*by_guard.shape[:2], len(stack), shape[1]).swapaxes(2, 3)

    for kind in dict.fromkeys(kinds):
        fill("own", [i for i, one in enumerate(kinds) if one == kind], own, grid.own[kind])
    # What was painted on top does not depend on the kind of panel, but for the stone guard under it.
    sills = [i for i, (kind, _) in enumerate(kinds) if kind == "sill"]
    for members in (sills, [i for i in range(len(kinds)) if i not in sills]):
        for name, table in kernels.items():
            if members:
                fill(
                    name,
                    members,
                    levels["original" if name == "covered" else name][:, None, :],
                    table[kinds[members[0]]],
                )
    single = {name: table[:, 0] for name, table in found.items() if name != "own"}
    single |= {name: found["own"][:, i] for i, name in enumerate(OWN)} | {"blended": found["own"][:, len(OWN) :]}
    chance, under = covered[:, None, None], single.pop("covered")
    plain = single["original"] + np.log1p(-chance)
    single["original"] = np.logaddexp(plain, under + np.log(np.maximum(chance, TINY)))
    return single


def _whole(levels: Mapping[str, Floats], blended: Floats, grid: Grids) -> dict[str, Floats]:
    """Over the level of a whole respray; a panel left out has the factory's film, of which nothing else tells."""
    left = over_kernel(np.stack([*(levels[name] for name in OWN), blended.max(axis=1)]), grid.factory_level)
    left_out = dict(zip((*OWN, "blended"), left, strict=True))
    twice = over_kernel(levels["rebuilt"], grid.respray_rebuilt)
    filled = over_kernel(levels["filled"], grid.respray_filled)
    kernels = np.concatenate([grid.resprayed[history] for history in WHOLE])
    found = {}
    for history, once in zip(WHOLE, np.split(over_kernel(levels["refinished"], kernels), len(WHOLE), 1), strict=True):
        by_state = left_out | {"refinished": once, "filled": filled, "rebuilt": twice}
        found[history] = np.stack([np.broadcast_to(by_state[state], twice.shape) for state in State], axis=1)
    return found
