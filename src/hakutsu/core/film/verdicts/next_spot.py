"""Where to read next: the expected fall in the entropy of a panel's state, and when to stop."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from hakutsu.core.film.model import filler, graded
from hakutsu.core.film.model.grids import SPREADS, kind_of
from hakutsu.core.film.model.numeric import TINY, AnyFloats, Floats, hats, normal_cdf
from hakutsu.core.film.modelled import FilmModel
from hakutsu.core.film.result import NextSpot
from hakutsu.core.film.survey import STATES
from hakutsu.core.film.verdicts.extent import level_weights, refinish_levels, respray_levels
from hakutsu.core.film.verdicts.reasons import CONSISTENT, LIKELY, tier
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.protocol import spot_pattern
from hakutsu.vehicle.vocabulary import Finish

TAKEN_WITHIN = 0.13
MOST_PANELS = 5
AROUND = ((-0.14, 0.0), (0.14, 0.0), (0.0, -0.14), (0.0, 0.14))
CLASSES = (0.72, 0.84, 0.92, 0.98, 1.03, 1.08, 1.16, 1.28, 1.45, 1.7, 2.1, 2.8, 4.2, 7.0)


def next_spots(model: FilmModel, finish: Finish) -> list[NextSpot]:
    """Candidate spots, the most telling first: protocol spots not yet read, and places around thick readings."""
    if not model.names:
        return []
    car = model.posterior(finish)
    rows = dict(zip(car.panels, car.states, strict=True))
    open_to = [name for name in model.names if name not in model.survey.unreachable and not _hidden(model, name)]
    unsure = sorted(open_to, key=lambda name: -_entropy(rows[name]))[:MOST_PANELS]
    foresight = _Foresight(model, finish)
    found = []
    for name in unsure:
        places = list(_candidates(model, name))
        if places:
            gains, same = _gain(rows[name], foresight.outcomes(name, np.array(places)))
            found += [
                NextSpot(name, u, v, float(gain), float(keep))
                for (u, v), gain, keep in zip(places, gains, same, strict=True)
            ]
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


class _Foresight:
    """What a reading would show on a panel, by state: chances of classes of thickness."""

    def __init__(self, model: FilmModel, finish: Finish) -> None:
        self.model, self.finish, self.car = model, finish, model.posterior(finish)
        p, grid = model.p, model.grid
        base = float(self.car.baseline @ grid.baseline_um)
        self.edges = np.log(base * np.array(CLASSES))
        self.even = self._classes(grid.level_um[:, None], SPREADS[None, :])
        film = np.maximum(graded.LEVELS_UM + graded.CHANGE_UM[:, None], 15.0)
        self.changed = self._classes(
            film, np.full_like(film, float(np.dot(p.unevenness.factory, p.unevenness.factory_weights)))
        )
        self.lifted = self._classes(*filler.lifted_film(p))
        self._levels: dict[tuple[str, bool], dict[str, Floats]] = {}
        self.painter = grid.painter_spread @ grid.painter_even
        self.factory = grid.factory_spread @ grid.factory_even

    def _classes(self, film_um: Floats, own_sd: Floats) -> Floats:
        """Chance of each class over mean film and its own spread, flattened: (film · spreads, classes)."""
        gauge = self.model.p.gauge
        error = gauge.gain_sd + gauge.offset_sd_um / film_um
        sd = np.sqrt(own_sd**2 + error**2)[..., None]
        below = normal_cdf((self.edges - np.log(film_um)[..., None]) / sd)
        ends = np.concatenate([np.zeros_like(below[..., :1]), below, np.ones_like(below[..., :1])], axis=-1)
        share = np.diff(ends, axis=-1).reshape(-1, len(self.edges) + 1)
        return np.asarray((1 - gauge.misread_share) * share + gauge.misread_share / share.shape[1])

    def levels(self, name: str, kind: tuple[str, bool]) -> dict[str, Floats]:
        """Weight of a panel's level within each state, before its own readings; kept by kind of panel."""
        if kind not in self._levels:
            whole = self.car.resprayed
            found = level_weights(self.model, self.finish, name)
            again = respray_levels(self.model, self.finish)
            twice = self.car.respray @ self.model.grid.respray_twice
            found["refinished"] = (1 - whole) * found["refinished"] + whole * again
            found["rebuilt"] = (1 - whole) * found["rebuilt"] + whole * twice
            self._levels[kind] = found
        return self._levels[kind]

    def outcomes(self, name: str, places: Floats) -> Floats:
        """Chance of each class of reading at places (places, 2), by state: (places, states, classes)."""
        model, evidence, count = self.model, self.model.evidence.get(name), len(places)
        kind = evidence.kind if evidence is not None else (kind_of(name), True)
        like = evidence.by_spread if evidence is not None else 1.0
        levels, grid = self.levels(name, kind), model.grid
        spreads = {"original": self.factory, "refinished": self.painter, "rebuilt": self.painter}
        found = {}
        for state, spread in spreads.items():
            weight = _normal(levels[state][:, None] * like * spread)
            found[state] = np.broadcast_to(weight.ravel() @ self.even, (count, self.even.shape[1]))
        level = np.interp(np.log(graded.LEVELS_UM), np.log(grid.level_um), levels["original"])
        blends, cuts = graded.families(model.p)
        facing = dict(zip(graded.SIDES, self.car.sides[self.car.panels.index(name)], strict=True))
        sides = np.array([facing[side] for side in blends.side])
        for state, family, log, weigh in (
            ("blended", blends, evidence.per_blend if evidence is not None else None, sides),
            ("thinned", cuts, evidence.per_cut if evidence is not None else None, 1.0),
        ):
            posterior = _posterior(log, np.exp(family.log_prior) * weigh, level)
            steps = len(graded.CHANGE_UM)
            change = family.change(places[:, 0], places[:, 1])
            rank = np.interp(change, graded.CHANGE_UM, np.arange(steps, dtype=float))
            found[state] = _spread_over(hats(rank.T, steps), posterior) @ self.changed
        lenses = evidence.lens.lenses if evidence is not None else filler.lenses(model.p)
        lifts = lenses.weights_at(places[:, 0], places[:, 1])
        found["filled"] = _spread_over(lifts, self._lens(name)) @ self.lifted
        return np.stack([found[state] for state in STATES], axis=1)

    def _lens(self, name: str) -> Floats:
        """Weights over lenses and refinish levels, given that there is filler."""
        model = self.model
        levels = refinish_levels(model, self.finish, name)
        evidence = model.evidence.get(name)
        if evidence is None:
            return _posterior(None, np.exp(filler.lenses(model.p).log_prior), levels)
        joint = _posterior(evidence.lens.log_like, np.exp(evidence.lens.lenses.log_prior), levels)
        weight = filler.lens_posterior(evidence.lens, levels, evidence.readings, model.p)
        # The shape is known no better than real filler resembles a lens.
        return _normal(joint * (weight / np.maximum(joint.sum(axis=1), TINY))[:, None])


def _spread_over(weights: AnyFloats, posterior: Floats) -> Floats:
    """Weights (shapes, places, steps) and a posterior over (shapes, levels) give (places, steps · levels)."""
    shapes, places = weights.shape[:2]
    spread = weights.reshape(shapes, -1).T.astype(float) @ posterior
    return np.asarray(spread.reshape(places, -1))


def _normal(weight: Floats) -> Floats:
    return np.asarray(weight / max(float(weight.sum()), 1e-300))


def _posterior(log_like: AnyFloats | None, prior: Floats, level: Floats) -> Floats:
    weight = prior[:, None] * level[None, :]
    if log_like is not None:
        weight = weight * np.exp(log_like.astype(float) - float(log_like.max()))
    return _normal(weight)


def _gain(now: Floats, outcomes: Floats) -> tuple[Floats, Floats]:
    """Expected fall in entropy [bits] of the panel's state at each place, and the chance that its words stay."""
    joint = now[:, None] * outcomes
    chance = joint.sum(axis=1)
    after = joint / np.maximum(chance, TINY)[:, None]
    entropy = -(after * np.log2(np.maximum(after, TINY))).sum(axis=1)
    gain = _entropy(now) - (chance * entropy).sum(axis=1)
    first, sure = tier(now)
    best = after.max(axis=1)
    tiers = (best >= LIKELY).astype(int) + (best >= CONSISTENT)
    same = (after.argmax(axis=1) == first) & (tiers == sure)
    return np.maximum(gain, 0.0), (chance * same).sum(axis=1) / chance.sum(axis=1)
