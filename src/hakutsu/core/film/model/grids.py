"""Grids the film model sums over, and the prior kernels on them; computed once per parameter set."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from hakutsu.core.film.model.numeric import AnyFloats, Floats, normal_weights
from hakutsu.core.film.parameters import FilmParameters, Level
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.vocabulary import Finish

LEVELS_UM = np.concatenate([np.geomspace(42.0, 180.0, 83), np.geomspace(180.0, 1000.0, 42)[1:]])  # finer in own film
BASELINES, RESPRAYS = 42, 42
SPREADS = np.geomspace(0.018, 0.19, 7)
Kind = tuple[str, bool]
SILL, UPPER, METAL = "sill", "upper", "metal"


@dataclass(frozen=True)
class Kernels:
    """How likely a panel's level is given the car's baseline, for each variant of what the car's build adds there.

    `own` has shape (variants, baselines, spreads between panels, levels), `covered` (own film under a film or wrap),
    `rebuilt` and `blended_out` (variants, baselines, levels), `over` (one more coat) (variants, baselines, lifts,
    levels).
    """

    own: AnyFloats
    covered: AnyFloats
    over: AnyFloats
    rebuilt: AnyFloats
    blended_out: AnyFloats


@dataclass(frozen=True)
class Grids:
    """Levels [µm], baselines and levels of a whole respray [µm], and prior weights over them.

    `factory_prior` (baselines,) by finish, `factory_parts` the same by what the factory did, as weights that sum to
    the prior. `between`, `factory_even`, `painter_even` and `lifts` are prior weights of the car's own spreads;
    `factory_spread` (spreads, factories), `painter_spread` and `booth_spread` (spreads, painters) what they mean for
    a panel. `variants` are prior weights by group. `respray` (resprays, spreads between panels, levels) by group, for
    what the factory had added there lies under it, `respray_twice` (resprays, levels), `bare` (levels,) are levels on
    a car painted whole, `factory_level` (levels,) of panels left out there.
    """

    level_um: Floats
    baseline_um: Floats
    respray_um: Floats
    factory_prior: Mapping[Finish, Floats]
    factory_parts: Mapping[Finish, Mapping[str, Floats]]
    respray_prior: Floats
    between: Floats
    respray_between: Floats
    factory_even: Floats
    painter_even: Floats
    booth_even: Floats
    lifts: Floats
    factory_spread: Floats
    painter_spread: Floats
    booth_spread: Floats
    variants: Mapping[str, Floats]
    bare: Floats
    respray: Mapping[str | None, AnyFloats]
    respray_twice: AnyFloats
    factory_level: Floats


def kind_of(panel: str) -> str:
    """What sets a panel's own film apart: sills carry stone guard, lids and roof lie flat, pillars go with the roof."""
    if panel.startswith("sill"):
        return "sill"
    if panel == "roof":
        return "roof"
    if "pillar" in panel:
        return "pillar"
    return "lid" if panels()[panel].plane == "top" else "panel"


@lru_cache(maxsize=4)
def _grids_for(key: str) -> Grids:
    return make_grids(FilmParameters.model_validate_json(key))


def grids(p: FilmParameters) -> Grids:
    """The grids of a parameter set, made once."""
    return _grids_for(p.key)


@lru_cache(maxsize=40)
def _kernels_for(key: str, kind: str, usual: bool) -> Kernels:
    return make_kernels(kind, usual, FilmParameters.model_validate_json(key))


def kernels(kind: Kind, p: FilmParameters) -> Kernels:
    """The kernels of a kind of panel, made once."""
    return _kernels_for(p.key, *kind)


def baselines(p: FilmParameters) -> Floats:
    """The grid of the car's own film [µm]."""
    return np.geomspace(p.baseline.lowest_um, p.baseline.highest_um, BASELINES)


def _weights(log_grid: Floats, levels: Mapping[str, Level]) -> dict[str, Floats]:
    return {
        name: one.share * normal_weights(log_grid, np.log(one.median_um), one.sd_log) for name, one in levels.items()
    }


def _factory_parts(log_base: Floats, finish: Finish, p: FilmParameters) -> dict[str, Floats]:
    parts = _weights(log_base, p.baseline.factory)
    if finish is Finish.PRESERVED:
        share = p.baseline.preserved_share
        parts = {name: (1 - share) * weight for name, weight in parts.items()}
        parts["preserved"] = share * _weights(log_base, {"": p.baseline.preserved})[""]
    return parts


def make_grids(p: FilmParameters) -> Grids:
    """Build the grids and the priors of a parameter set."""
    level, base = LEVELS_UM, baselines(p)
    log_level = np.log(level)
    whole = np.geomspace(p.baseline.lowest_respray_um, p.baseline.highest_respray_um, RESPRAYS)
    between, uneven, twice = p.between, p.unevenness, p.rebuilt
    parts = {finish: _factory_parts(np.log(base), finish, p) for finish in Finish}
    prior = {finish: np.asarray(sum(found.values())) for finish, found in parts.items()}
    once_more = twice.over_median_um - float(np.dot(p.refinished.lift_um, p.refinished.lift_weights))
    usual = normal_weights(
        log_level, np.log(base)[:, None], float(np.dot(between.panel_sd_log, between.panel_sd_weights))
    )
    return Grids(
        level_um=level,
        baseline_um=base,
        respray_um=whole,
        factory_prior=prior,
        factory_parts=parts,
        respray_prior=np.asarray(sum(_weights(np.log(whole), p.baseline.respray).values())),
        between=np.array(between.panel_sd_weights),
        respray_between=np.array(between.respray_sd_weights),
        factory_even=np.array(uneven.factory_weights),
        painter_even=np.array(uneven.painter_weights),
        booth_even=np.array(uneven.booth_weights),
        lifts=np.array(p.refinished.lift_weights),
        factory_spread=_spreads(uneven.factory, uneven.panel_sd_log),
        painter_spread=_spreads(uneven.painter, uneven.panel_sd_log),
        booth_spread=_spreads(uneven.booth, uneven.panel_sd_log),
        variants={
            SILL: np.array(between.stone_guard_weights),
            UPPER: np.array(between.two_tone_weights),
            METAL: np.array(between.other_metal_weights),
        },
        bare=_bare(log_level, p),
        respray={
            group: _mixture([_evenly(whole + more, p) for more in added], weights)
            for group, (added, weights) in {
                None: ((0.0,), (1.0,)),
                SILL: (between.stone_guard_um, _showing(between.stone_guard_weights, between.guard_shows)),
                UPPER: (between.two_tone_um, _showing(between.two_tone_weights, between.guard_shows)),
            }.items()
        },
        respray_twice=_ending(_added(level, whole, once_more, twice.over_sd_log), level, whole, p).astype("f4"),
        factory_level=prior[Finish.FACTORY] @ usual,
    )


def _showing(weights: Sequence[float], share: float) -> tuple[float, ...]:
    """Weights of variants, the first being none, of which a share only still shows."""
    rest = [share * one for one in weights[1:]]
    return (1 - sum(rest), *rest)


def _mixture(tables: Sequence[Floats], weights: Sequence[float]) -> AnyFloats:
    return np.tensordot(np.array(weights), np.stack(tables), 1).astype(np.float32)


def _evenly(whole: Floats, p: FilmParameters) -> Floats:
    column, log_level = np.log(whole)[:, None], np.log(LEVELS_UM)
    return np.stack([normal_weights(log_level, column, sd) for sd in p.between.respray_sd_log], axis=1)


def _spreads(medians: Sequence[float], sd_log: float) -> Floats:
    return np.stack([normal_weights(np.log(SPREADS), np.log(one), sd_log) for one in medians], axis=1)


def _bare(log_level: Floats, p: FilmParameters) -> Floats:
    return normal_weights(log_level, np.log(p.refinished.bare_median_um), p.refinished.bare_sd_log)


def group_of(kind: Kind) -> str | None:
    """The variants a kind of panel shares with others: stone guard, two-tone, or the level of a second metal."""
    name, usual = kind
    shared = {"sill": SILL, "roof": UPPER, "pillar": UPPER}.get(name)
    return shared or (None if usual else METAL)


def _under(kind: str, usual: bool, p: FilmParameters) -> list[list[tuple[float, Floats, float]]]:
    """What lies under new paint: for each variant, shares, levels [µm] over the baselines, and how much less surely."""
    between, base, doubt = p.between, baselines(p), p.between.added_sd_log
    flat = 1 + between.horizontal_more if kind in ("lid", "roof") else 1.0
    metals = list(zip(between.other_metal_weights, np.exp(between.other_metal_log), strict=True))
    more = {"sill": between.stone_guard_um, "roof": between.two_tone_um, "pillar": between.two_tone_um}.get(
        kind, (0.0,)
    )
    if usual:
        return [[(1.0, base * flat + one, doubt if one else 0.0)] for one in more]
    if kind in ("panel", "lid"):
        return [[(1.0, base * flat * metal, 0.0)] for _, metal in metals]
    return [[(share, base * flat * metal + one, doubt) for share, metal in metals] for one in more]


def make_kernels(kind: str, usual: bool, p: FilmParameters) -> Kernels:
    """Build the kernels of a kind of panel, of the usual metal of the car or of another."""
    level, filled = LEVELS_UM, p.filled
    log_level = np.log(level)
    variants = _under(kind, usual, p)
    tail = p.between.panel_tail_share

    def own(under: Floats, extra: float) -> Floats:
        """Own film about what the build lets expect, less surely where it adds something."""
        centre, parts = np.log(under)[:, None], []
        for sd in np.hypot(p.between.panel_sd_log, extra).tolist():
            near, far = (normal_weights(log_level, centre, width) for width in (sd, 2 * sd))
            parts.append((1 - tail) * near + tail * far)
        return np.stack(parts, axis=1)

    def over(under: Floats, _: float) -> Floats:
        lifts, sd = p.refinished.lift_um, p.refinished.lift_sd_log
        return np.stack([_added(level, under, lift, sd) for lift in lifts], axis=1)

    def every(make: Callable[[Floats, float], Floats]) -> AnyFloats:
        made = [np.asarray(sum(share * make(under, extra) for share, under, extra in parts)) for parts in variants]
        return np.stack(made).astype(np.float32)

    def twice(under: Floats, _: float) -> Floats:
        return _ending(_added(level, under, p.rebuilt.over_median_um, p.rebuilt.over_sd_log), level, under, p)

    usual_own = int(np.argmax(p.between.panel_sd_weights))

    def out(under: Floats, extra: float) -> Floats:
        thin = _added(level, under, filled.blended_out_um, filled.blended_out_sd_log)
        return filled.blended_out_bare * own(under, extra)[:, usual_own] + (1 - filled.blended_out_bare) * thin

    return Kernels(
        own=every(own),
        covered=every(lambda under, _: _added(level, under, p.cover.median_um, p.cover.sd_log)),
        over=every(over),
        rebuilt=every(twice),
        blended_out=every(out),
    )


def _added(level: Floats, base: Floats, median_um: float, sd_log: float) -> Floats:
    """Kernel of a level that lies a log-normal amount [µm] above the baseline."""
    more = level[None, :] - base[:, None]
    with np.errstate(divide="ignore", invalid="ignore"):
        density = np.where(more > 0, np.exp(-0.5 * (np.log(more / median_um) / sd_log) ** 2) / more, 0.0)
    weight = density * np.gradient(level) + 1e-300
    return np.asarray(weight / weight.sum(axis=1, keepdims=True))


def _ending(kernel: Floats, level: Floats, base: Floats, p: FilmParameters) -> Floats:
    """Nobody keeps painting beyond a height over the old film."""
    beyond = (level[None, :] - base[:, None] - p.rebuilt.ends_um) / p.rebuilt.ends_soft_um
    weight = kernel / (1 + np.exp(np.minimum(beyond, 500.0)))
    return np.asarray(weight / weight.sum(axis=1, keepdims=True))
