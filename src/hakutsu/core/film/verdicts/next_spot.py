"""Where to read next: the expected fall in the entropy of a panel's state, and when to stop."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from hakutsu.core.film.model import filler, graded
from hakutsu.core.film.model.grids import SPREADS
from hakutsu.core.film.model.numeric import TINY, Floats, hats, normal_cdf
from hakutsu.core.film.modelled import FilmModel
from hakutsu.core.film.result import NextSpot
from hakutsu.core.film.survey import STATES
from hakutsu.core.film.verdicts.extent import lens_weights, refinish_levels
from hakutsu.core.film.verdicts.reasons import tier
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.protocol import spot_pattern
from hakutsu.vehicle.vocabulary import Finish

TAKEN_WITHIN = 0.13
MOST_PANELS = 6
AROUND = ((-0.14, 0.0), (0.14, 0.0), (0.0, -0.14), (0.0, 0.14))
CLASSES = (0.72, 0.84, 0.92, 0.98, 1.03, 1.08, 1.16, 1.28, 1.45, 1.7, 2.1, 2.8, 4.2, 7.0)


def next_spots(model: FilmModel, finish: Finish) -> list[NextSpot]:
    """Candidate spots, the most telling first: protocol spots not yet read, and places around thick readings."""
    if not model.names:
        return []
    car = model.posterior(finish)
    base = float(car.baseline @ model.grid.baseline_um)
    foresight = _Foresight(model, np.log(base * np.array(CLASSES)))
    found = []
    unsure = sorted(
        (name for name in model.names if name not in model.survey.unreachable and not _hidden(model, name)),
        key=lambda name: -_entropy(car.states[model.names.index(name)]),
    )
    for name in unsure[:MOST_PANELS]:
        seen = _Panel(model, finish, name)
        now = car.states[model.names.index(name)]
        for u, v in _candidates(model, name):
            outcome = foresight.outcomes(seen, u, v)
            found.append(NextSpot(name, u, v, *_gain(now, outcome)))
    return sorted(found, key=lambda one: (-one.gain_bits, one.panel, one.u, one.v))


def advice(model: FilmModel, finish: Finish, ranked: list[NextSpot] | None = None) -> NextSpot | None:
    """The spot worth reading next, or none: the largest gain is below the least worth the walk, or the words would
    stay the same anyway.
    """
    p = model.p.next
    ranked = next_spots(model, finish) if ranked is None else ranked
    worth = (s for s in ranked if s.gain_bits >= p.least_gain_bits and s.words_same <= p.words_same)
    return next(worth, None)


def _hidden(model: FilmModel, name: str) -> bool:
    cover = model.survey.covers.get(name)
    return cover is not None and cover.hides


def _entropy(chances: Floats) -> float:
    kept = chances[chances > 0]
    return float(-(kept * np.log2(kept)).sum())


def _candidates(model: FilmModel, name: str) -> Iterator[tuple[float, float]]:
    read = model.survey.on_panel(name)
    taken = [(o.u, o.v) for o in read if o.u is not None and o.v is not None]
    without = len(read) - len(taken)
    pattern = list(spot_pattern(panels()[name]))
    around: list[tuple[float, float]] = []
    placed = [o for o in read if o.u is not None and o.v is not None and not o.censored]
    if placed:
        top = max(placed, key=lambda o: (o.value_um or 0.0, o.u, o.v))
        around = [(round((top.u or 0) + du, 2), round((top.v or 0) + dv, 2)) for du, dv in AROUND]
    fresh = [at for at in pattern if not any(_near(at, other) for other in taken)]
    # Readings without position most likely stood on the pattern's first spots.
    fresh = fresh[without:] if without < len(fresh) else fresh
    for u, v in [*fresh, *around]:
        if 0.04 <= u <= 0.96 and 0.04 <= v <= 0.96 and not any(_near((u, v), other) for other in taken):
            yield u, v


def _near(one: tuple[float, float], other: tuple[float, float]) -> bool:
    return max(abs(one[0] - other[0]), abs(one[1] - other[1])) < TAKEN_WITHIN


class _Panel:
    """What is known of one panel within each state, ready to foresee a reading: weights over levels and shapes."""

    def __init__(self, model: FilmModel, finish: Finish, name: str) -> None:
        car, grid, evidence = model.posterior(finish), model.grid, model.evidence
        i = evidence.panels.index(name) if evidence and name in evidence.panels else None
        kind = evidence.kinds[i] if evidence and i is not None else ("panel", True)
        flat = np.ones((len(grid.level_um), len(SPREADS)))
        like = evidence.by_spread[i] if evidence and i is not None else flat
        mean = {key: np.mean(table[kind], axis=0) for key, table in
                (("own", grid.own), ("painted", grid.refinished), ("twice", grid.rebuilt))}  # fmt: skip
        whole, resprayed = car.respray, car.resprayed
        painted = (1 - resprayed) * car.baseline @ mean["painted"] + resprayed * whole @ grid.resprayed["resprayed"]
        twice = (1 - resprayed) * car.baseline @ mean["twice"] + resprayed * whole @ grid.respray_rebuilt
        own = car.baseline @ mean["own"]
        self.even = {
            "original": _normal(own[:, None] * like * grid.factory_spread),
            "refinished": _normal(painted[:, None] * like * grid.refinished_spread),
            "rebuilt": _normal(twice[:, None] * like * grid.rebuilt_spread),
        }
        level = np.interp(np.log(graded.LEVELS_UM), np.log(grid.level_um), own)
        blends, cuts = graded.families(model.p)
        facing = car.sides[model.names.index(name)]
        sides = np.array([facing[graded.SIDES.index(side)] for side in blends.side])
        self.graded = {
            "blended": _posterior(evidence.per_blend[i] if evidence and i is not None else None,
                                  np.exp(blends.log_prior) * sides, level),
            "thinned": _posterior(evidence.per_cut[i] if evidence and i is not None else None,
                                  np.exp(cuts.log_prior), level),
        }  # fmt: skip
        levels = refinish_levels(model, finish, name)
        shapes = np.exp(filler.lenses(model.p).log_prior)
        self.lens = _posterior(evidence.per_lens[i] if evidence and i is not None else None, shapes, levels)
        weight = lens_weights(model, finish, name)
        if weight is not None:  # the shape is known no better than real filler resembles a lens
            rows = self.lens.sum(axis=1)
            self.lens = self.lens * (weight / np.maximum(rows, TINY))[:, None]
            self.lens /= self.lens.sum()


def _normal(weight: Floats) -> Floats:
    return np.asarray(weight / max(float(weight.sum()), 1e-300))


def _posterior(log_like: Floats | None, prior: Floats, level: Floats) -> Floats:
    weight = prior[:, None] * level[None, :]
    if log_like is not None:
        weight = weight * np.exp(log_like.astype(float) - float(log_like.max()))
    return _normal(weight)


class _Foresight:
    """Chance of each class of reading over levels, unevenness and shapes; made once per car."""

    def __init__(self, model: FilmModel, log_edges: Floats) -> None:
        p, grid = model.p, model.grid
        self.p = p
        self.edges = log_edges
        self.even = self._classes(grid.level_um[:, None], SPREADS[None, :])
        film = np.maximum(graded.LEVELS_UM + graded.CHANGE_UM[:, None], 15.0)
        self.changed = self._classes(film, np.full_like(film, p.unevenness.factory_median))
        self.lifted = self._classes(*filler.lifted_film(p))

    def _classes(self, film_um: Floats, own_sd: Floats) -> Floats:
        error = self.p.gauge.gain_sd + self.p.gauge.offset_sd_um / film_um
        sd = np.sqrt(own_sd**2 + error**2)[..., None]
        below = normal_cdf((self.edges - np.log(film_um)[..., None]) / sd)
        ends = np.concatenate([np.zeros_like(below[..., :1]), below, np.ones_like(below[..., :1])], axis=-1)
        misread = self.p.gauge.misread_share
        return np.asarray((1 - misread) * np.diff(ends, axis=-1) + misread / ends.shape[-1])

    def outcomes(self, panel: _Panel, u: float, v: float) -> Floats:
        """Chance of each class of reading at a place, by state: (states, classes)."""
        at_u, at_v = np.array([u]), np.array([v])
        blends, cuts = graded.families(self.p)
        found = {name: np.einsum("ks,ksb->b", weight, self.even) for name, weight in panel.even.items()}
        for name, family in (("blended", blends), ("thinned", cuts)):
            steps = len(graded.CHANGE_UM)
            rank = np.interp(family.change(at_u, at_v)[0], graded.CHANGE_UM, np.arange(steps, dtype=float))
            found[name] = np.einsum("el,elb->b", hats(rank, steps).T @ panel.graded[name], self.changed)
        lift = filler.weights_at(at_u, at_v, self.p)[0]
        found["filled"] = np.einsum("el,elb->b", lift.T.astype(float) @ panel.lens, self.lifted)
        return np.stack([found[state] for state in STATES])


def _gain(now: Floats, outcomes: Floats) -> tuple[float, float]:
    """Expected fall in entropy [bits] of the panel's state, and the chance that its words stay the same."""
    joint = now[:, None] * outcomes
    chance = joint.sum(axis=0)
    after = joint / np.maximum(chance, TINY)
    logs = np.log2(np.maximum(after, TINY))
    gain = _entropy(now) + float((chance * (after * logs).sum(axis=0)).sum())
    words = tier(now)
    same = sum(float(c) for c, column in zip(chance, after.T, strict=True) if tier(column) == words)
    return max(0.0, gain), same / float(chance.sum())
