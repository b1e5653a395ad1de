"""The whole car at once: its history, baseline, zones of repair and the state of every panel, from the evidence."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from hakutsu.core.film.model.evidence import PanelEvidence
from hakutsu.core.film.model.graded import SIDES
from hakutsu.core.film.model.grids import Grids, grids
from hakutsu.core.film.model.numeric import Floats, log_sum
from hakutsu.core.film.model.zones import ZoneChoices, zone_choices
from hakutsu.core.film.parameters import IN_PLACES, WHOLE, FilmParameters
from hakutsu.core.film.survey import STATES, State
from hakutsu.vehicle.panels import walk_order
from hakutsu.vehicle.vocabulary import Finish

KEPT_POINTS = 24
LEAST_WEIGHT = 1e-4


@dataclass(frozen=True)
class CarPosterior:
    """What the readings say about the car.

    `states` has shape (panels, states), rows sum to one; panels without readings are part of it. `histories` is the
    probability of each history, `zones` of a repair in each zone given repairs in places. `baseline` holds weights
    over the grid of baselines given repairs in places, `respray` over that of resprays given one of the whole car.
    `sides` (panels, sides) is where a blend would face. `expected` (panels, states) is what the rest of the car lets
    expect of a panel, its own readings and cues left aside; `for_zone` the weight [bits] of each member panel for a
    repair in each zone.
    """

    panels: tuple[str, ...]
    states: Floats
    histories: dict[str, float]
    zones: dict[str, float]
    baseline: Floats
    respray: Floats
    sides: Floats
    expected: Floats
    for_zone: dict[str, dict[str, float]]

    @property
    def resprayed(self) -> float:
        """Probability that the whole car was painted again."""
        return 1 - self.histories[IN_PLACES]

    def chances(self, panel: str) -> dict[State, float]:
        """State probabilities of one panel."""
        row = self.states[self.panels.index(panel)]
        return dict(zip(STATES, (float(x) for x in row), strict=True))


@dataclass(frozen=True)
class _InPlaces:
    log_evidence: float
    states: Floats
    zones: dict[str, float]
    baseline: Floats
    sides: Floats
    expected: Floats
    scale: Floats
    for_zone: dict[str, dict[str, float]]


def car_posterior(
    evidence: PanelEvidence | None,
    names: Sequence[str],
    cues: Mapping[str, Floats],
    finish: Finish,
    grid: Grids,
    p: FilmParameters,
) -> CarPosterior:
    """Sum over histories, baselines, stone guard and zones of repair.

    P(history, baseline, guard, zones | all) ∝ prior · Π over panels of Σ over states of P(state | zones) · evidence ·
    cue ratios; a panel's states follow by averaging its conditional posterior over that.

    Parameters
    ----------
    evidence : of the panels read, none without readings
    names : all metal panels of the car, also those never read
    cues : log likelihood ratios per state for panels with cues, shape (states,)
    """
    terms = _Terms(evidence, tuple(names), cues, grid)
    local = _in_places(terms, finish, grid, p)
    found = {name: _painted_whole(terms, name, local.scale, grid, p) for name in WHOLE}
    log = {IN_PLACES: local.log_evidence} | {name: one[0] for name, one in found.items()}
    log = {name: value + float(np.log(p.finish[finish][name])) for name, value in log.items()}
    top = max(log.values())
    weight = {name: float(np.exp(value - top)) for name, value in log.items()}
    total = sum(weight.values())
    histories = {name: value / total for name, value in weight.items()}
    states = histories[IN_PLACES] * local.states + sum(histories[name] * found[name][1] for name in WHOLE)
    respray = np.asarray(sum(weight[name] * found[name][2] for name in WHOLE))
    expected = histories[IN_PLACES] * local.expected + sum(histories[name] * found[name][3] for name in WHOLE)
    return CarPosterior(
        terms.names,
        states / states.sum(axis=1, keepdims=True),
        histories,
        local.zones,
        local.baseline,
        respray / max(float(respray.sum()), 1e-300),
        local.sides,
        expected / expected.sum(axis=1, keepdims=True),
        local.for_zone,
    )


def expected_of_finish(finish: Finish, p: FilmParameters) -> Floats:
    """State probabilities of an ordinary panel on a car of a declared finish of which nothing is known, (states,)."""
    return _expected_of_finish(finish, p.key)


@lru_cache(maxsize=16)
def _expected_of_finish(finish: Finish, key: str) -> Floats:
    p = FilmParameters.model_validate_json(key)
    names = walk_order("hatch", 5)
    car = car_posterior(None, names, {}, finish, grids(p), p)
    return np.asarray(car.states.mean(axis=0))


class _Terms:
    """The evidence of the panels read, with cues, and the rest of the panels, about which nothing was measured."""

    def __init__(
        self, evidence: PanelEvidence | None, names: tuple[str, ...], cues: Mapping[str, Floats], grid: Grids
    ) -> None:
        self.evidence, self.names, self.grid = evidence, names, grid
        self.cues = np.stack([cues.get(name, np.zeros(len(STATES))) for name in names])
        self.cued = bool(cues)
        self.read = [names.index(name) for name in evidence.panels] if evidence else []

    def local(self, points: tuple[np.ndarray, np.ndarray], panels: Sequence[int]) -> dict[str, Floats]:
        """Log evidence by state at points of (baseline, guard): (panels, points), `blended` (panels, sides, points)."""
        found = {}
        for i, state in enumerate(STATES):
            sides = (len(SIDES),) if state is State.BLENDED else ()
            table = np.zeros((len(self.names), *sides, len(points[0])))
            if self.evidence:
                table[self.read] = self.evidence.local[state][..., points[0], points[1]]
            if self.cued:
                table += self.cues[:, i].reshape(-1, *(1,) * (table.ndim - 1))
            found[str(state)] = table if len(panels) == len(self.names) else table[panels]
        return found

    def whole(self, history: str) -> Floats:
        """Log evidence (panels, states, levels) of a history."""
        table = np.zeros((len(self.names), len(STATES), len(self.grid.respray_um)))
        if self.evidence:
            table[self.read] = self.evidence.whole[history]
        return table + self.cues[..., None]


def _painted_whole(
    terms: _Terms, history: str, scale: Floats, grid: Grids, p: FilmParameters
) -> tuple[float, Floats, Floats, Floats]:
    """Log evidence of a history, states given it, weights over the level of the respray, and what the rest expects."""
    log_prior = np.log(np.array(getattr(p, history).states))
    joint = terms.whole(history) + log_prior[None, :, None]
    per_panel = log_sum(joint, axis=1)
    log = np.log(grid.respray_prior) + per_panel.sum(axis=0)
    total = float(log_sum(log, axis=0))
    weight = np.exp(log - total)
    states = np.einsum("psb,b->ps", np.exp(joint - per_panel[:, None]), weight)
    rest = np.exp(np.minimum(scale[:, None] - per_panel, 600)) @ weight
    return total, states, weight, rest[:, None] * np.exp(log_prior)


def _likely_points(
    terms: _Terms, choices: ZoneChoices, finish: Finish, grid: Grids, p: FilmParameters
) -> tuple[tuple[np.ndarray, np.ndarray], Floats]:
    """The (baseline, guard) points worth the whole sum over zones, and their log priors.

    They are found by the same sum with every panel on its own.
    """
    guards, share = p.between.stone_guard_um, p.between.stone_guard_share
    guard_prior = np.array([1 - share, *[share / (len(guards) - 1)] * (len(guards) - 1)])
    prior = np.log(grid.factory_prior[finish])[:, None] + np.log(guard_prior)
    every = tuple(axis.ravel() for axis in np.indices(prior.shape))
    log = prior.ravel().copy()
    if terms.evidence:
        average = [choices.average[i] for i in terms.read]
        untouched, painted, blended = (
            np.stack([row @ table[i] for row, i in zip(average, terms.read, strict=True)])
            for table in (choices.untouched, choices.painted, choices.blended)
        )
        chances = _state_chances(untouched[:, None], painted[:, None], p)
        table = terms.local((every[0], every[1]), terms.read)
        found = [table[state] + np.log(chance) for state, chance in chances.items()]
        sides = table["blended"] + np.log(blended)[..., None]
        log += log_sum(np.concatenate([np.stack(found, axis=1), sides], axis=1), axis=1).sum(axis=0)
    order = np.argsort(-log, kind="stable")[:KEPT_POINTS]
    kept = order[log[order] > log[order[0]] + np.log(LEAST_WEIGHT)]
    return (every[0][kept], every[1][kept]), prior.ravel()[kept]


def _state_chances(untouched: Floats, painted: Floats, p: FilmParameters) -> dict[str, Floats]:
    """Chance of every state but blended, whose chance goes by side."""
    return {
        "original": untouched * (1 - p.thinned.share),
        "thinned": untouched * p.thinned.share,
        "refinished": painted * p.painted.refinished,
        "rebuilt": painted * p.painted.rebuilt,
        "filled": painted * p.painted.filled,
    }


def _in_places(terms: _Terms, finish: Finish, grid: Grids, p: FilmParameters) -> _InPlaces:
    """Repairs in places: the sum over every combination of zones at the likely baselines."""
    choices = zone_choices(terms.names, p.blended.model_dump_json())
    points, log_prior = _likely_points(terms, choices, finish, grid, p)
    every = range(len(terms.names))
    table = terms.local(points, list(every))
    scale = np.max([one.reshape(len(every), -1).max(axis=1) for one in table.values()], axis=0)
    like = {state: np.exp(one - scale.reshape(-1, *(1,) * (one.ndim - 1))) for state, one in table.items()}
    rows = [_row_terms(like, i, choices, p) for i in every]
    log = choices.log_prior[:, None] + log_prior
    for i, (_, sums) in enumerate(rows):
        log = log + np.log(sums)[choices.which[i]]
    top = float(log.max())
    weight = np.exp(log - top)
    total = float(weight.sum())
    weight /= total
    # Every panel's terms were scaled by its best point; the scale is added back here.
    evidence = top + float(np.log(total)) + float(scale.sum())
    states = np.empty((len(terms.names), len(STATES)))
    sides = np.empty((len(terms.names), len(SIDES)))
    expected = np.empty_like(states)
    for i, (by_state, sums) in enumerate(rows):
        share = (choices.onehot[i] @ weight) / sums
        states[i] = [(share * by_state[state]).sum() for state in STATES]
        facing = (choices.onehot[i] @ weight.sum(axis=1)) @ choices.blended[i]
        sides[i] = facing / facing.sum()
        rest = share.sum(axis=1)
        chances = _state_chances(choices.untouched[i], choices.painted[i], p)
        chances["blended"] = choices.blended[i].sum(axis=1)
        expected[i] = [rest @ chances[state] for state in STATES]
    zones = dict(zip((zone.key for zone in choices.zones), (weight.sum(axis=1) @ choices.on).tolist(), strict=True))
    baseline = np.zeros(len(grid.baseline_um))
    np.add.at(baseline, points[0], weight.sum(axis=0))
    best = int(weight.sum(axis=0).argmax())
    for_zone = _for_zones([sums[:, best] for _, sums in rows], choices, terms)
    return _InPlaces(evidence, states, zones, baseline, sides, expected, scale, for_zone)


def _for_zones(sums: Sequence[Floats], choices: ZoneChoices, terms: _Terms) -> dict[str, dict[str, float]]:
    """Weight [bits] of each read member for a repair in its zone, at the likeliest baseline.

    log2 of the panel's evidence with the zone repaired over that without, other zones at their prior.
    """
    found: dict[str, dict[str, float]] = {zone.key: {} for zone in choices.zones}
    for i in terms.read:
        having, lacking = choices.having[i] @ sums[i], choices.lacking[i] @ sums[i]
        for zone, bits in zip(choices.zones, np.log2(having / lacking), strict=True):
            if terms.names[i] in zone.members:
                found[zone.key][terms.names[i]] = float(bits)
    return found


def _row_terms(
    like: Mapping[str, Floats], i: int, choices: ZoneChoices, p: FilmParameters
) -> tuple[dict[str, Floats], Floats]:
    """One panel's prior times evidence by state and in sum, (rows, points), scaled by its best point."""
    chances = _state_chances(choices.untouched[i][:, None], choices.painted[i][:, None], p)
    by_state = {state: chance * like[state][i] for state, chance in chances.items()}
    by_state["blended"] = choices.blended[i] @ like["blended"][i]
    return by_state, np.maximum(sum(by_state.values()), 1e-290)
