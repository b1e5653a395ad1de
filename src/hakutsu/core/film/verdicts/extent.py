"""How far filler reaches on a panel, and to which side a blend or a polish lies."""

from __future__ import annotations

import numpy as np

from hakutsu.core.film.model import filler, graded
from hakutsu.core.film.model.numeric import Floats, weighted_quantiles
from hakutsu.core.film.modelled import FilmModel
from hakutsu.core.film.parameters import Side
from hakutsu.core.film.result import FilledShare, FillerMap
from hakutsu.core.film.survey import State
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.vocabulary import Finish

SIDE_FROM = 0.6
FILLED_FROM = 0.05
_ENDS = {  # what u = 0, u = 1, v = 0 and v = 1 are, by the plane a panel lies in
    "flank": ("its front edge", "its rear edge", "its lower edge", "its upper edge"),
    "top": ("its left edge", "its right edge", "its front edge", "its rear edge"),
    "end": ("its left edge", "its right edge", "its lower edge", "its upper edge"),
}


def refinish_levels(model: FilmModel, finish: Finish, panel: str) -> Floats:
    """Prior weight of the refinish level of a panel that carries filler, over the levels of the lenses."""
    car, grid = model.posterior(finish), model.grid
    evidence = model.evidence
    kind = evidence.kinds[evidence.panels.index(panel)] if evidence and panel in evidence.panels else ("panel", True)
    local = np.mean([car.baseline @ kernel for kernel in grid.filled[kind]], axis=0)
    level = (1 - car.resprayed) * local + car.resprayed * car.respray @ grid.respray_filled
    return np.asarray(np.interp(np.log(filler.LEVELS_UM), np.log(grid.level_um), level))


def lens_weights(model: FilmModel, finish: Finish, panel: str) -> Floats | None:
    """Weights of the lenses on a panel, given that there is filler; none without readings there."""
    evidence = model.evidence
    if evidence is None or panel not in evidence.panels:
        return None
    i = evidence.panels.index(panel)
    level = refinish_levels(model, finish, panel)
    return filler.lens_posterior(evidence.per_lens[i], level, evidence.readings[i], model.p)


def filled_extent(model: FilmModel, finish: Finish, panel: str) -> tuple[FilledShare, FillerMap] | None:
    """Filled share with its 80 % interval and the map of where it lies; none without readings there."""
    weight = lens_weights(model, finish, panel)
    if weight is None:
        return None
    values, weights = filler.area_posterior(weight, model.p)
    low, middle, high = weighted_quantiles(values, weights, (0.1, 0.5, 0.9))
    return FilledShare(middle, low, high), FillerMap(filler.filler_map(weight, model.p))


def changing_side(model: FilmModel, finish: Finish, panel: str, state: State) -> tuple[Side, float] | None:
    """The likeliest side of a blended or thinned panel with its probability, from its readings' positions."""
    evidence = model.evidence
    if state not in (State.BLENDED, State.THINNED) or evidence is None or panel not in evidence.panels:
        return None
    i = evidence.panels.index(panel)
    family = graded.families(model.p)[0 if state is State.BLENDED else 1]
    per_gradient = (evidence.per_blend if state is State.BLENDED else evidence.per_cut)[i]
    grid = model.grid
    baseline = model.posterior(finish).baseline
    own = np.mean([baseline @ kernel for kernel in grid.own[evidence.kinds[i]]], axis=0)
    weight = np.interp(np.log(graded.LEVELS_UM), np.log(grid.level_um), own)
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
