"""The whole car at once: its history, baseline, zones of repair and the state of every panel, from the evidence."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from hakutsu.core.film.model.evidence import PanelEvidence
from hakutsu.core.film.model.factors import FLOOR, PAINTED, WHOLE_PAINTED
from hakutsu.core.film.model.grids import Grids, grids, kind_of
from hakutsu.core.film.model.in_places import InPlaces, in_places
from hakutsu.core.film.model.numeric import Floats, counted, log_sum
from hakutsu.core.film.model.shuts import Shuts, shut_evidence
from hakutsu.core.film.model.unknowns import Prior, Unknowns, apart, shares, unknowns
from hakutsu.core.film.model.zones import zone_choices
from hakutsu.core.film.parameters import IN_PLACES, MOST, WHOLE, FilmParameters, Whole
from hakutsu.core.film.survey import STATES, State
from hakutsu.vehicle.panels import walk_order
from hakutsu.vehicle.vocabulary import Finish

ALONE_ALTERED = 0.10  # painted, with every panel by itself: to find the likely points


@dataclass(frozen=True)
class CarPosterior:
    """What the readings say about the car.

    `states` has shape (panels, states), rows sum to one; panels without readings are part of it. `histories` is the
    probability of each history, `zones` of a repair in each zone given repairs in places. `baseline` holds weights
    over the grid of baselines unless the whole car was painted, `respray` over that of resprays given that it was;
    `factory` is what the factory did (usual, thin, thick, wrapped since), given that it was not. `between`, `lifts`
    and `variants` are weights of the car's other unknowns. `sides` (panels, sides) is where a blend would face.
    `expected` (panels, states) is what the rest of the car lets expect of a panel, its own readings and cues left
    aside; `for_zone` the weight [bits] of each member panel for a repair in each zone.
    """

    panels: tuple[str, ...]
    states: Floats
    histories: dict[str, float]
    zones: dict[str, float]
    baseline: Floats
    respray: Floats
    factory: dict[str, float]
    between: Floats
    lifts: Floats
    variants: Mapping[str, Floats]
    sides: Floats
    expected: Floats
    for_zone: dict[str, dict[str, float]]

    @property
    def resprayed(self) -> float:
        """Probability that the whole car was painted again."""
        return sum(self.histories[name] for name in WHOLE)

    def chances(self, panel: str) -> dict[State, float]:
        """State probabilities of one panel."""
        return self._by_panel[panel]

    @cached_property
    def _by_panel(self) -> dict[str, dict[State, float]]:
        rows = self.states.tolist()
        return {name: dict(zip(STATES, row, strict=True)) for name, row in zip(self.panels, rows, strict=True)}


@dataclass(frozen=True)
class _History:
    """One history: log evidence, states and expectations (panels, states), and weights over the level it goes by."""

    log_evidence: float
    states: Floats
    expected: Floats
    level: Floats


@dataclass(frozen=True)
class CarHistories:
    """What each history would mean for a car, before they are weighed against each other by the declared finish."""

    names: tuple[str, ...]
    local: InPlaces
    others: Mapping[str, _History]
    shut: Shuts


def car_histories(
    evidence: Mapping[str, PanelEvidence],
    names: Sequence[str],
    cues: Mapping[str, Floats],
    parts: Mapping[str, Floats],
    grid: Grids,
    p: FilmParameters,
    shut_um: Sequence[float] = (),
) -> CarHistories:
    """Sum, within each history, over what the panels of a car share.

    Parameters
    ----------
    evidence : of the panels read
    names : all metal panels of the car, also those never read
    cues : log likelihood ratios per state for panels with cues, shape (states,)
    parts : weights over baselines by what the factory did
    shut_um : film on shut faces and under lids [µm]: it speaks about the factory's level
    """
    names = tuple(names)
    cues = {name: ratios for name, ratios in cues.items() if name in names}
    shut = shut_evidence(shut_um, parts, grid, p)
    alone = dict.fromkeys(names, _prior(ALONE_ALTERED, p.painted.rebuilt, p.painted.filled, 1 / 3))
    most = {name: _most(name, p) for name in names}
    points = unknowns(evidence, cues, shut.prior, (alone, most), grid)
    choices = zone_choices(names, p.blended.model_dump_json())
    local = in_places(names, points, apart(points, alone, grid), choices, grid, p)
    others = {MOST: _painted_mostly(points, names, most, grid), **_painted_whole(evidence, names, cues, grid, p)}
    return CarHistories(names, local, others, shut)


def car_posterior(found: CarHistories, finish: Finish, p: FilmParameters) -> CarPosterior:
    """Weigh the histories of a car under the priors of a declared finish."""
    log = {IN_PLACES: found.local.log_evidence} | {name: one.log_evidence for name, one in found.others.items()}
    log = {
        name: value
        + float(np.log(p.finish[finish][name]))
        + (found.shut.painted if name in WHOLE else found.shut.factory)
        for name, value in log.items()
    }
    top = max(log.values())
    weight = {name: float(np.exp(value - top)) for name, value in log.items()}
    total = sum(weight.values())
    histories = {name: value / total for name, value in weight.items()}
    return _posterior(found.names, histories, found.local, found.others, found.shut)


def _posterior(
    names: tuple[str, ...],
    histories: dict[str, float],
    local: InPlaces,
    found: Mapping[str, _History],
    shut: Shuts,
) -> CarPosterior:
    states = histories[IN_PLACES] * local.states + sum(histories[name] * one.states for name, one in found.items())
    expected = histories[IN_PLACES] * local.expected
    expected = expected + sum(histories[name] * one.expected for name, one in found.items())
    baseline = histories[IN_PLACES] * local.baseline + histories[MOST] * found[MOST].level
    respray = np.asarray(sum(histories[name] * found[name].level for name in WHOLE))
    baseline /= max(float(baseline.sum()), 1e-300)
    between, _, lifts, _ = local.others
    return CarPosterior(
        names,
        states / states.sum(axis=1, keepdims=True),
        histories,
        local.zones,
        baseline,
        respray / max(float(respray.sum()), 1e-300),
        shut.parts(baseline),
        between,
        lifts,
        local.variants,
        local.sides,
        expected / expected.sum(axis=1, keepdims=True),
        local.for_zone,
    )


def _prior(painted: float, rebuilt: float, filled: float, alone: float = 0.0) -> Prior:
    chances = np.array([1 - rebuilt - filled, rebuilt, filled * (1 - alone), filled * alone])
    return Prior(1 - painted, painted * chances)


def _most(name: str, p: FilmParameters) -> Prior:
    q, kind = p.most, kind_of(name)
    painted = q.sill if kind == "sill" else q.upper if kind in ("roof", "pillar") else q.panel
    return _prior(painted, q.rebuilt, q.filled)


def _row(original: float, painted: Floats) -> list[float]:
    """Chances of the states, nothing thinned or blended."""
    refinished, rebuilt, around, alone = painted.tolist()
    found = {
        State.ORIGINAL: original,
        State.REFINISHED: refinished,
        State.REBUILT: rebuilt,
        State.FILLED: around + alone,
    }
    return [found.get(state, 0.0) for state in STATES]


def _painted_mostly(points: Unknowns, names: Sequence[str], chances: Mapping[str, Prior], grid: Grids) -> _History:
    """Most panels painted, each for itself; those a painter seldom reaches hold the factory's level."""
    found = apart(points, chances, grid)
    rest, factors = shares(points, found), {one.name: one.by for one in points.panels}
    states, expected = np.empty((len(names), len(STATES))), np.empty((len(names), len(STATES)))
    for i, name in enumerate(names):
        prior = chances[name]
        states[i] = expected[i] = _row(prior.original, prior.painted)
        if name in rest:
            own = float((factors[name].own * rest[name].sum(axis=(-2, -1))).sum())
            by_painter = rest[name].sum(axis=(2, 3))
            painted = (factors[name].painted * by_painter).reshape(len(PAINTED), -1).sum(axis=1)
            states[i] = _row(prior.original * own, prior.painted * painted)
            expected[i] *= float(rest[name].sum())
    level = counted(points.at, found.weights().sum(axis=(1, 2, 3, 4)), len(grid.baseline_um))
    return _History(found.log_evidence, states, expected, level)


def _painted_whole(
    evidence: Mapping[str, PanelEvidence],
    names: Sequence[str],
    cues: Mapping[str, Floats],
    grid: Grids,
    p: FilmParameters,
) -> dict[str, _History]:
    """The whole car painted: one level, one painter and one spread between panels, with some panels stripped first."""
    some = list(dict.fromkeys([*evidence, *cues]))
    prior = (np.log(grid.respray_prior), np.log(grid.respray_between), np.log(grid.booth_even))
    shape = tuple(len(one) for one in prior)
    painted = np.ones((len(some), len(WHOLE_PAINTED), int(np.prod(shape))))
    left = np.ones((len(some), 3))
    for i, name in enumerate(some):
        if name in evidence:
            painted[i] = evidence[name].whole.painted.reshape(len(WHOLE_PAINTED), -1)
            left[i] = evidence[name].whole.left_out
    ratios = np.array([np.exp(cues.get(name, np.zeros(len(STATES)))) for name in some]).reshape(-1, len(STATES))
    log_prior = np.asarray(sum(np.ix_(*prior))).ravel()
    found = {}
    for history in WHOLE:
        chances, over = _whole_chances(getattr(p, history), ratios, p)
        mixed = (over[:, None] @ painted)[:, 0] + (chances[:, :3] * left).sum(axis=1)[:, None] + FLOOR
        log = log_prior + np.log(mixed).sum(axis=0)
        total = float(log_sum(log, axis=0))
        weight = np.exp(log - total)
        share = weight / mixed
        told = over * (painted @ share[:, :, None])[:, :, 0]
        states = np.tile(np.array(getattr(p, history).states), (len(names), 1))
        expected = states.copy()
        for i, name in enumerate(some):
            row, rest = names.index(name), float(share[i].sum())
            states[row] = [
                *chances[i, :3] * left[i] * rest,
                told[i, 0] + told[i, 1],
                told[i, 2],
                told[i, 3] + told[i, 4],
            ]
            expected[row] *= rest
        level = weight.reshape(shape).sum(axis=(1, 2))
        found[history] = _History(total, states, expected, level)
    return found


def _whole_chances(how: Whole, ratios: Floats, p: FilmParameters) -> tuple[Floats, Floats]:
    """Chances of the states of panels with their cues (panels, states), and by `WHOLE_PAINTED`."""
    chances = np.array(how.states) * ratios
    refinished, rebuilt, filled = (chances[:, STATES.index(state)] for state in STATES[3:])
    bare = how.bare_share
    under = bare * p.filled.bare_share / p.refinished.bare_share
    over = (refinished * (1 - bare), refinished * bare, rebuilt, filled * (1 - under), filled * under)
    return chances, np.stack(over, axis=1)


def expected_of_finish(finish: Finish, p: FilmParameters) -> Floats:
    """State probabilities of an ordinary panel on a car of a declared finish of which nothing is known, (states,)."""
    return _expected_of_finish(finish, p.key)


@lru_cache(maxsize=16)
def _expected_of_finish(finish: Finish, key: str) -> Floats:
    p = FilmParameters.model_validate_json(key)
    names = walk_order("hatch", 5)
    grid = grids(p)
    car = car_posterior(car_histories({}, names, {}, grid.factory_parts[finish], grid, p), finish, p)
    return np.asarray(car.states.mean(axis=0))
