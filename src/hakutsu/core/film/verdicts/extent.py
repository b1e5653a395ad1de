"""How far filler reaches on a panel, and to which side a blend or a polish lies."""

from __future__ import annotations

import numpy as np

from hakutsu.core.film.by_hand import by_hand_weights, mapped_share
from hakutsu.core.film.model import filler, graded
from hakutsu.core.film.model.grids import Kind, group_of, kernels, kind_of
from hakutsu.core.film.model.numeric import Floats, weighted_quantiles
from hakutsu.core.film.modelled import FilmModel
from hakutsu.core.film.parameters import Side
from hakutsu.core.film.result import FilledShare, FillerMap
from hakutsu.core.film.survey import State
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.vocabulary import Finish

SIDE_FROM = 0.6
FILLED_FROM = 0.2
_ENDS = {  # what u = 0, u = 1, v = 0 and v = 1 are, by the plane a panel lies in
    "flank": ("its front edge", "its rear edge", "its lower edge", "its upper edge"),
    "top": ("its left edge", "its right edge", "its front edge", "its rear edge"),
    "end": ("its left edge", "its right edge", "its lower edge", "its upper edge"),
}


def level_weights(model: FilmModel, finish: Finish, panel: str) -> dict[str, Floats]:
    """Weight of a panel's level within each state, before its own readings, unless the whole car was painted."""
    evidence = model.evidence.get(panel)
    kind = evidence.kind if evidence else (kind_of(panel), True)
    if (finish, kind) not in model.levels:
        model.levels[finish, kind] = _level_weights(model, finish, kind)
    return model.levels[finish, kind]


def _level_weights(model: FilmModel, finish: Finish, kind: Kind) -> dict[str, Floats]:
    car, p = model.posterior(finish), model.p
    kernel, group = kernels(kind, p), group_of(kind)
    variants = car.variants.get(group, model.grid.variants[group]) if group else np.ones(1)
    own = np.einsum("v,b,t,vbtl->l", variants, car.baseline, car.between, kernel.own, optimize=True)
    over = np.einsum("j,v,b,vbjl->l", car.lifts, variants, car.baseline, kernel.over, optimize=True)
    painted, filled = (
        (1 - share) * over + share * model.grid.bare for share in (p.refinished.bare_share, p.filled.bare_share)
    )
    twice, out = (variants @ (car.baseline @ table) for table in (kernel.rebuilt, kernel.blended_out))
    share = p.painted.seen_blended_out
    return {"original": own, "refinished": painted, "rebuilt": twice, "filled": (1 - share) * filled + share * out}


def respray_levels(model: FilmModel, finish: Finish) -> Floats:
    """Weight of a panel's level on a car painted whole."""
    grid = model.grid
    return np.asarray(model.posterior(finish).respray @ (grid.respray_between @ grid.respray[None]))


def refinish_levels(model: FilmModel, finish: Finish, panel: str) -> Floats:
    """Prior weight of the refinish level of a panel that carries filler, over the levels of the lenses."""
    car, grid = model.posterior(finish), model.grid
    local = level_weights(model, finish, panel)["filled"]
    level = (1 - car.resprayed) * local + car.resprayed * respray_levels(model, finish)
    return np.asarray(np.interp(np.log(filler.LEVELS_UM), np.log(grid.level_um), level))


def lens_weights(model: FilmModel, finish: Finish, panel: str) -> Floats | None:
    """Weights of the lenses on a panel, given that there is filler; none without readings there."""
    evidence = model.evidence.get(panel)
    if evidence is None:
        return None
    level = refinish_levels(model, finish, panel)
    return filler.lens_posterior(evidence.lens, level, evidence.readings, model.p)


def filled_extent(model: FilmModel, finish: Finish, panel: str) -> tuple[FilledShare, FillerMap | None] | None:
    """Filled share with its 80 % interval and the map of where it lies.

    A repair mapped by hand weighs in and, without readings there, speaks alone; none with neither.
    """
    weight = lens_weights(model, finish, panel)
    if weight is None:
        share = model.survey.mapped.get(panel)
        return (mapped_share(share, model.p), None) if share else None
    lenses = model.evidence[panel].lens.lenses
    if panel in model.survey.mapped:
        weight = weight * by_hand_weights(lenses.area, model.survey.mapped[panel], model.p) + 1e-300
    family, weight = filler.likely_lenses(lenses, weight)
    values, weights = filler.area_posterior(family, weight)
    low, middle, high = weighted_quantiles(values, weights, (0.1, 0.5, 0.9))
    return FilledShare(middle, low, high), FillerMap(filler.filler_map(family, weight))


def changing_side(model: FilmModel, finish: Finish, panel: str, state: State) -> tuple[Side, float] | None:
    """The likeliest side of a blended or thinned panel with its probability, from its readings' positions."""
    evidence = model.evidence.get(panel)
    if state not in (State.BLENDED, State.THINNED) or evidence is None:
        return None
    family = graded.families(model.p)[0 if state is State.BLENDED else 1]
    per_gradient = evidence.per_blend if state is State.BLENDED else evidence.per_cut
    own = level_weights(model, finish, panel)["original"]
    weight = np.interp(np.log(graded.LEVELS_UM), np.log(model.grid.level_um), own)
    sides = graded.side_weights(per_gradient, weight, family)
    if state is State.BLENDED:  # which side is expected comes from the rest of the car
        facing = dict(zip(graded.SIDES, model.posterior(finish).sides[model.names.index(panel)], strict=True))
        sides = {side: one * float(facing[side]) for side, one in sides.items()}
    side = max(sorted(sides), key=lambda one: sides[one])
    chance = sides[side] / sum(sides.values())
    return (side, chance) if chance >= SIDE_FROM else None


def side_words(panel: str, state: State, side: Side) -> str:
    """Where the film changes, in words."""
    if side is Side.ALL:
        return "the film is thinner all over"
    edge = _ENDS[panels()[panel].plane][graded.SIDES.index(side)]
    return f"the film {'rises' if state is State.BLENDED else 'thins'} towards {edge}"
