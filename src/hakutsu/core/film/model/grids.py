"""Grids the film model integrates over, and the prior kernels on them; computed once per parameter set."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from hakutsu.core.film.model.numeric import Floats, normal_weights
from hakutsu.core.film.parameters import FilmParameters, Whole
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.vocabulary import Finish

LEVELS_UM = np.concatenate([np.geomspace(42.0, 180.0, 83), np.geomspace(180.0, 1000.0, 58)[1:]])  # finer in own film
BASELINES = 62
SPREADS = np.geomspace(0.014, 0.24, 6)
KINDS = ("panel", "lid", "roof", "sill")
Kernels = tuple[Floats, ...]


@dataclass(frozen=True)
class Grids:
    """Levels [µm], baselines and levels of a whole respray [µm] (stretches of the levels), and prior weights over them.

    Kernels have shape (baselines, levels) and say how likely a panel's level is given the car's baseline. Those of
    `own`, `covered` (own film under a film or wrap), `refinished`, `rebuilt` and `filled` are kept by kind of panel and
    by whether its substrate is the usual one of the car; sills have one for each amount of stone guard.
    """

    level_um: Floats
    baseline_um: Floats
    respray_um: Floats
    factory_prior: Mapping[Finish, Floats]
    respray_prior: Floats
    own: Mapping[tuple[str, bool], Kernels]
    covered: Mapping[tuple[str, bool], Kernels]
    refinished: Mapping[tuple[str, bool], Kernels]
    rebuilt: Mapping[tuple[str, bool], Kernels]
    filled: Mapping[tuple[str, bool], Kernels]
    factory_level: Floats
    resprayed: Mapping[str, Floats]
    respray_rebuilt: Floats
    respray_filled: Floats
    factory_spread: Floats
    refinished_spread: Floats
    rebuilt_spread: Floats


def kind_of(panel: str) -> str:
    """What sets a panel's own film apart: sills carry stone guard, lids and roof lie flat."""
    if panel.startswith("sill"):
        return "sill"
    if panel == "roof":
        return "roof"
    return "lid" if panels()[panel].plane == "top" else "panel"


@lru_cache(maxsize=4)
def _grids_for(key: str) -> Grids:
    return make_grids(FilmParameters.model_validate_json(key))


def grids(p: FilmParameters) -> Grids:
    """The grids of a parameter set, made once."""
    return _grids_for(p.key)


def _factory_prior(log_base: Floats, finish: Finish, p: FilmParameters) -> Floats:
    known = p.baseline

    def around(more_um: float) -> Floats:
        return normal_weights(log_base, np.log(known.factory_median_um + more_um), known.factory_sd_log)

    prior = (1 - known.tricoat_share) * around(0) + known.tricoat_share * around(known.tricoat_more_um)
    if finish is Finish.PRESERVED:
        prior = (1 - known.preserved_share) * prior + known.preserved_share * around(known.preserved_more_um)
    return np.asarray(prior)


def make_grids(p: FilmParameters) -> Grids:
    """Build the grids and kernels of a parameter set."""
    level = LEVELS_UM
    log_level = np.log(level)
    base = np.geomspace(p.baseline.lowest_um, p.baseline.highest_um, BASELINES)
    whole = np.geomspace(p.baseline.lowest_respray_um, p.baseline.highest_respray_um, BASELINES)
    log_base = np.log(base)
    own = _own_kernels(log_level, base, p)
    bare = normal_weights(log_level, np.log(p.refinished.bare_median_um), p.refinished.bare_sd_log)
    over = _added(level, base, p.refinished.over_median_um, p.refinished.over_sd_log)
    painted = p.refinished.bare_share * bare + (1 - p.refinished.bare_share) * over
    twice = _added(level, base, p.rebuilt.over_median_um, p.rebuilt.over_sd_log)
    cover = _added(level, base, p.cover.median_um, p.cover.sd_log)
    usual = normal_weights(log_level, np.log(whole)[:, None], p.between.respray_panel_sd_log)
    evenly = normal_weights(log_level, np.log(whole)[:, None], p.between.respray_evenly_sd_log)
    once_more = p.rebuilt.over_median_um - p.refinished.over_median_um
    return Grids(
        level_um=level,
        baseline_um=base,
        respray_um=whole,
        factory_prior={finish: _factory_prior(log_base, finish, p) for finish in Finish},
        respray_prior=normal_weights(np.log(whole), np.log(p.baseline.respray_median_um), p.baseline.respray_sd_log),
        own=own,
        covered=_by_guard(cover, base, p),
        refinished=_by_guard(painted, base, p),
        rebuilt=_by_guard(twice, base, p),
        filled=_by_guard(p.filled.bare_share * bare + (1 - p.filled.bare_share) * over, base, p),
        factory_level=_factory_prior(log_base, Finish.FACTORY, p)[None, :] @ own["panel", True][0],
        resprayed={
            "resprayed": _respray(bare, usual, p.resprayed),
            "resprayed_evenly": _respray(bare, evenly, p.resprayed_evenly),
            "stripped": _respray(bare, usual, p.stripped),
        },
        respray_rebuilt=_added(level, whole, once_more, p.rebuilt.over_sd_log),
        respray_filled=p.filled.bare_share * bare + (1 - p.filled.bare_share) * usual,
        factory_spread=_spread_prior(p.unevenness.factory_median, p.unevenness.factory_gsd),
        refinished_spread=_spread_prior(p.unevenness.refinished_median, p.unevenness.refinished_gsd),
        rebuilt_spread=_spread_prior(p.unevenness.rebuilt_median, p.unevenness.rebuilt_gsd),
    )


def _respray(bare: Floats, over: Floats, history: Whole) -> Floats:
    return np.asarray(history.bare_share * bare + (1 - history.bare_share) * over)


def _spread_prior(median: float, gsd: float) -> Floats:
    return normal_weights(np.log(SPREADS), np.log(median), float(np.log(gsd)))


def _own_kernels(log_level: Floats, base: Floats, p: FilmParameters) -> dict[tuple[str, bool], Kernels]:
    """Where the film of the factory lies on a panel, given the car's baseline."""
    between, column = p.between, np.log(base)[:, None]
    tail = between.panel_tail_share
    found: dict[tuple[str, bool], Kernels] = {}
    for usual in (True, False):
        extra = 0.0 if usual else between.other_substrate_sd_log
        near, far = float(np.hypot(between.panel_sd_log, extra)), between.panel_tail_sd_log + extra / 2

        def around(more: float, near: float = near, far: float = far) -> Floats:
            centre = column + np.log1p(more)
            return (1 - tail) * normal_weights(log_level, centre, near) + tail * normal_weights(log_level, centre, far)

        flat, lying = around(0), around(between.horizontal_more)
        share = between.two_tone_roof_share
        found["panel", usual], found["lid", usual] = (flat,), (lying,)
        found["roof", usual] = ((1 - share) * lying + share * moved(lying, base, between.two_tone_roof_um),)
        found["sill", usual] = tuple(moved(flat, base, guard) for guard in between.stone_guard_um)
    return found


def _by_guard(kernel: Floats, base: Floats, p: FilmParameters) -> dict[tuple[str, bool], Kernels]:
    """The same kernel for every kind of panel, on sills over each amount of stone guard."""
    sill = tuple(moved(kernel, base, guard) for guard in p.between.stone_guard_um)
    return {(kind, usual): sill if kind == "sill" else (kernel,) for kind in KINDS for usual in (True, False)}


def moved(kernel: Floats, base: Floats, more_um: float) -> Floats:
    """The kernel of panels that carry `more_um` on top of the baseline's film."""
    if not more_um:
        return kernel
    place = np.interp(base + more_um, base, np.arange(len(base), dtype=float))
    below = np.minimum(place.astype(int), len(base) - 2)
    share = (place - below)[:, None]
    return np.asarray((1 - share) * kernel[below] + share * kernel[below + 1])


def _added(level: Floats, base: Floats, median_um: float, sd_log: float) -> Floats:
    """Kernel of a level that lies a log-normal amount [µm] above the baseline."""
    more = level[None, :] - base[:, None]
    with np.errstate(divide="ignore", invalid="ignore"):
        density = np.where(more > 0, np.exp(-0.5 * (np.log(more / median_um) / sd_log) ** 2) / more, 0.0)
    weight = density * np.gradient(level) + 1e-300
    return np.asarray(weight / weight.sum(axis=1, keepdims=True))
