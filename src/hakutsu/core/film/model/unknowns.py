"""The unknowns of a whole car that its panels share, and the sum over them with every panel by itself."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from hakutsu.core.film.model.evidence import PanelEvidence
from hakutsu.core.film.model.factors import PAINTED, ByState
from hakutsu.core.film.model.graded import SIDES
from hakutsu.core.film.model.grids import Grids, group_of
from hakutsu.core.film.model.numeric import Floats, log_sum
from hakutsu.core.film.survey import STATES, State

LEAST_LOG = 14.0  # baselines that fall short of the best by more are left out of the sum
CHANGING = 0.02  # of panels are thinned or blended, when baselines are chosen


@dataclass(frozen=True)
class Prior:
    """Chances of a panel, by itself: original, and by `PAINTED`."""

    original: float
    painted: Floats


@dataclass(frozen=True)
class Factors:
    """Evidence of one panel at the baselines worth summing over, cues included, as in `ByState`.

    `group` names the variants the panel shares with others of its kind. Panels without readings have cues alone.
    """

    name: str
    group: str | None
    by: ByState

    def mixed(self, original: float, painted: Floats) -> Floats:
        """Σ over states of chance · evidence, without thinned and blended; `painted` are chances by `PAINTED`."""
        table = self.by.painted
        again = (painted @ table.reshape(len(painted), -1)).reshape(table.shape[1:])
        return np.asarray((original * self.by.own)[..., None, None] + again[:, :, None, None])


@dataclass(frozen=True)
class Unknowns:
    """Points of the car's own unknowns: `log_prior` over (baselines, spreads between panels, evenness of the factory,
    lifts, evenness of the painter); `at` are the indices of those baselines in the grid.
    """

    at: np.ndarray
    log_prior: Floats
    panels: tuple[Factors, ...]


@dataclass(frozen=True)
class Apart:
    """The sum with every panel by itself: log weights over the points, log weights over variants and points by group,
    and each panel's mixed evidence (variants, points).
    """

    log: Floats
    variants: Mapping[str, Floats]
    mixed: Mapping[str, Floats]

    @property
    def log_evidence(self) -> float:
        """Log evidence of all panels together."""
        return float(log_sum(self.log.ravel(), axis=0))

    def weights(self) -> Floats:
        """Weights of the points, summing to one."""
        weight = np.exp(self.log - self.log.max())
        return np.asarray(weight / weight.sum())

    def given(self, group: str) -> Floats:
        """Weights of a group's variants given each point, (variants, points)."""
        table = self.variants[group]
        return np.exp(table - log_sum(table, axis=0))


def unknowns(
    evidence: Mapping[str, PanelEvidence],
    cues: Mapping[str, Floats],
    baseline_prior: Floats,
    mixtures: Sequence[Mapping[str, Prior]],
    grid: Grids,
) -> Unknowns:
    """The points worth summing over.

    Baselines are chosen with the other unknowns at their commonest, under each of the mixtures: chances of the states
    by panel.
    """
    prior = np.log(baseline_prior)
    best = np.zeros(len(prior), dtype=bool)
    logs = {name: _coarse(one, grid) for name, one in evidence.items()}
    for chances in mixtures:
        log = prior.copy()
        for name, (own, changing, painted) in logs.items():
            log += np.log(chances[name].original * own + CHANGING * changing + chances[name].painted @ painted)
        best |= log > log.max() - LEAST_LOG
    at = np.flatnonzero(best)
    shares = (prior[at], *(np.log(one) for one in (grid.between, grid.factory_even, grid.lifts, grid.painter_even)))
    panels = [_with_cues(name, evidence.get(name), cues.get(name), at) for name in dict.fromkeys([*evidence, *cues])]
    return Unknowns(at, np.asarray(sum(np.ix_(*shares))), tuple(panels))


def _with_cues(name: str, one: PanelEvidence | None, cue: Floats | None, at: np.ndarray) -> Factors:
    if one is None:
        by = ByState(np.ones((1, 1, 1, 1)), np.ones((1 + len(SIDES), 1, 1)), np.ones((len(PAINTED), 1, 1, 1, 1)))
    else:
        by = ByState(one.factors.own[:, at], one.factors.changing[:, :, at], one.factors.painted[:, :, at])
    if cue is not None:
        ratio = dict(zip(STATES, np.exp(cue).tolist(), strict=True))
        changing = np.array([ratio[State.THINNED], *[ratio[State.BLENDED]] * len(SIDES)])
        painted = np.array([ratio[State.REFINISHED], ratio[State.REBUILT], *[ratio[State.FILLED]] * 2])
        by = ByState(
            by.own * ratio[State.ORIGINAL],
            by.changing * changing[:, None, None],
            by.painted * painted[:, None, None, None, None],
        )
    return Factors(name, group_of(one.kind) if one else None, by)


def _coarse(one: PanelEvidence, grid: Grids) -> tuple[Floats, Floats, Floats]:
    """Evidence over baselines of own, changing and (by `PAINTED`) painted film, variants summed out, the other unknowns
    at their commonest.
    """
    between, factory, lift, painter = (
        int(np.argmax(one)) for one in (grid.between, grid.factory_even, grid.lifts, grid.painter_even)
    )
    group, by = group_of(one.kind), one.factors
    weights = grid.variants[group] if group else np.ones(1)
    return (
        weights @ by.own[:, :, between, factory],
        weights @ by.changing.max(axis=0),
        weights @ by.painted[:, :, :, lift, painter],
    )


def apart(points: Unknowns, chances: Mapping[str, Prior], grid: Grids) -> Apart:
    """Sum over the points with every panel by itself, at the given chances of the states of each panel."""
    log = points.log_prior.copy()
    variants: dict[str, Floats] = {}
    mixed = {}
    for one in points.panels:
        found = one.mixed(chances[one.name].original, chances[one.name].painted)
        mixed[one.name] = found
        if one.group is None:
            log = log + np.log(found[0])
        else:
            prior = np.log(grid.variants[one.group]).reshape(-1, *(1,) * log.ndim)
            variants[one.group] = variants.get(one.group, prior) + np.log(found)
    for group, table in variants.items():
        variants[group] = np.broadcast_to(table, (len(table), *log.shape))
        log = log + log_sum(variants[group], axis=0)
    return Apart(log, variants, mixed)


def shares(points: Unknowns, found: Apart) -> dict[str, Floats]:
    """Weight of each point over each panel's mixed evidence: what the rest makes of it, (variants, points)."""
    weight, given = found.weights(), {group: found.given(group) for group in found.variants}
    return {
        one.name: (weight if one.group is None else weight * given[one.group]) / found.mixed[one.name]
        for one in points.panels
    }
