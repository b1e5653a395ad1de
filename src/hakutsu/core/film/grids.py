"""Grids the film model integrates over, and the prior kernels on them; computed once per parameter set."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from hakutsu.core.film.observation import Floats
from hakutsu.core.film.parameters import FilmParameters

LOWEST_LEVEL_UM = 42.0
HIGHEST_LEVEL_UM = 1500.0
LEVELS = 132
SPREADS = np.geomspace(0.014, 0.24, 6)


@dataclass(frozen=True)
class Grids:
    """Levels [µm], baselines [µm] (a stretch of the levels), and prior weights over them.

    Kernels have shape (baselines, levels) and say how likely a panel's level is given the car's baseline. `own` holds
    those of the car's own film by kind of panel (panel, roof, sill) and by whether its substrate is the usual one of
    the car; sills have one for each amount of stone guard.
    """

    level_um: Floats
    baseline_um: Floats
    factory_prior: Floats
    respray_prior: Floats
    own: dict[tuple[str, bool], tuple[Floats, ...]]
    factory_level: Floats
    refinished: Floats
    rebuilt: Floats
    resprayed: Floats
    respray_rebuilt: Floats
    factory_spread: Floats
    refinished_spread: Floats
    rebuilt_spread: Floats


def _bump(log_x: Floats, log_centre: Floats | float, sd: float) -> Floats:
    """Log-normal weights over the last axis of a log-spaced grid, summing to one."""
    weight = np.exp(-0.5 * ((log_x - log_centre) / sd) ** 2) + 1e-300
    return np.asarray(weight / weight.sum(axis=-1, keepdims=True))


def _spread_prior(median: float, gsd: float) -> Floats:
    return _bump(np.log(SPREADS), np.log(median), np.log(gsd))


@lru_cache(maxsize=4)
def _grids_for(key: str) -> Grids:
    return make_grids(FilmParameters.model_validate_json(key))


def grids(p: FilmParameters) -> Grids:
    """The grids of a parameter set, made once."""
    return _grids_for(p.model_dump_json())


def make_grids(p: FilmParameters) -> Grids:
    """Build the grids and kernels of a parameter set."""
    level = np.geomspace(LOWEST_LEVEL_UM, HIGHEST_LEVEL_UM, LEVELS)
    log_level = np.log(level)
    base = level[(level >= p.baseline.lowest_um) & (level <= p.baseline.highest_um)]
    log_base = np.log(base)
    column = log_base[:, None]
    factory = (1 - p.baseline.tricoat_share) * _bump(
        log_base, np.log(p.baseline.factory_median_um), p.baseline.factory_sd_log
    ) + p.baseline.tricoat_share * _bump(
        log_base, np.log(p.baseline.factory_median_um + p.baseline.tricoat_more_um), p.baseline.factory_sd_log
    )
    tail = p.between.panel_tail_share
    other = p.between.other_substrate_sd_log

    def around(sd: float, tail_sd: float) -> Floats:
        return (1 - tail) * _bump(log_level, column, sd) + tail * _bump(log_level, column, tail_sd)

    bare = _bump(log_level, np.log(p.refinished.bare_median_um), p.refinished.bare_sd_log)
    over = _added(level, base, p.refinished.over_median_um, p.refinished.over_sd_log)
    rebuilt = _added(level, base, p.rebuilt.over_median_um, p.rebuilt.over_sd_log)
    usual = around(p.between.panel_sd_log, p.between.panel_tail_sd_log)
    wide = around(float(np.hypot(p.between.panel_sd_log, other)), p.between.panel_tail_sd_log + other / 2)
    own = _own_kernels(usual, base, True, p) | _own_kernels(wide, base, False, p)
    once_more = p.rebuilt.over_median_um - p.refinished.over_median_um
    return Grids(
        level_um=level,
        baseline_um=base,
        factory_prior=factory,
        respray_prior=_bump(log_base, np.log(p.baseline.respray_median_um), p.baseline.respray_sd_log),
        own=own,
        factory_level=factory[None, :] @ own["panel", True][0],
        refinished=p.refinished.bare_share * bare + (1 - p.refinished.bare_share) * over,
        rebuilt=rebuilt,
        resprayed=_bump(log_level, column, p.between.respray_panel_sd_log),
        respray_rebuilt=_added(level, base, once_more, p.rebuilt.over_sd_log),
        factory_spread=_spread_prior(p.unevenness.factory_median, p.unevenness.factory_gsd),
        refinished_spread=_spread_prior(p.unevenness.refinished_median, p.unevenness.refinished_gsd),
        rebuilt_spread=_spread_prior(p.unevenness.rebuilt_median, p.unevenness.rebuilt_gsd),
    )


def _own_kernels(
    kernel: Floats, base: Floats, usual: bool, p: FilmParameters
) -> dict[tuple[str, bool], tuple[Floats, ...]]:
    guards = p.between.stone_guard_um
    share = p.between.two_tone_roof_share
    roof = (1 - share) * kernel + share * _moved(kernel, base, p.between.two_tone_roof_um)
    return {
        ("panel", usual): (kernel,),
        ("roof", usual): (roof,),
        ("sill", usual): tuple(_moved(kernel, base, guard) if guard else kernel for guard in guards),
    }


def _moved(kernel: Floats, base: Floats, more_um: float) -> Floats:
    """The kernel of panels that carry `more_um` on top of the baseline's film."""
    place = np.interp(base + more_um, base, np.arange(len(base)))
    below = np.minimum(place.astype(int), len(base) - 2)
    share = (place - below)[:, None]
    return np.asarray((1 - share) * kernel[below] + share * kernel[below + 1])


def _added(level: Floats, base: Floats, median_um: float, sd_log: float) -> Floats:
    """Kernel of a level that lies a log-normal amount [µm] above the baseline."""
    more = level[None, :] - base[:, None]
    with np.errstate(divide="ignore", invalid="ignore"):
        density = np.where(more > 0, np.exp(-0.5 * (np.log(more / median_um) / sd_log) ** 2) / more, 0.0)
    # The grid is even in the logarithm of the level, so a density per µm is weighted by the level.
    weight = density * level[None, :] + 1e-300
    return np.asarray(weight / weight.sum(axis=1, keepdims=True))
