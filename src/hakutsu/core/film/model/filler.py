"""Filler as a field under the refinish: where it may lie, how it lifts the film, and how much of a panel it covers."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from hakutsu.core.film.model.numeric import TINY, AnyFloats, Floats, hats, log_sum
from hakutsu.core.film.model.observation import Shown, mass
from hakutsu.core.film.parameters import FilmParameters, parameters

LEVELS_UM = np.geomspace(95.0, 800.0, 21)
EXCESS_UM = np.array([0.0, 12, 30, 60, 100, 160, 250, 390, 600, 920, 1400, 2200, 3600, 6000])
BETWEEN_STEPS = np.array([0.7, 0.86, 1.05, 1.28, 1.55])
BETWEEN_WEIGHTS = np.array([0.1, 0.2, 0.4, 0.2, 0.1])
MAP = 24
_EVEN = (np.arange(MAP) + 0.5) / MAP
FINE = np.stack(np.meshgrid(_EVEN, _EVEN), axis=-1).reshape(-1, 2)
DOME, FEATHERED, PLATEAU = range(3)  # how a field ends
OFFSETS = np.array([[0.0, 0.0], [0.5, 0.0], [-0.5, 0.0], [0.0, 0.5], [0.0, -0.5]])  # of a half-axis, from a reading
MOST_CENTRES = 6
LEAST_RISE, LEAST_RISE_UM = 0.08, 6.0  # a reading no higher than that above the thinnest shows no small repair
LEAST_SHARE = 1e-3  # of the likeliest: lenses below it are left out of extents
WHOLE_PANEL = 50.0  # half-axes under which a lens is as thick everywhere


@dataclass(frozen=True)
class Lenses:
    """Fields of filler: centres (c, 2), half-axes as share of the panel (c, 2), peaks [µm] (c,), form of the rim (c,)
    and log prior weights (c,). A dome has a steep rim, a feathered one runs out to nothing, a plateau is flat on top.
    """

    centre: Floats
    axes: Floats
    peak_um: Floats
    form: np.ndarray
    log_prior: Floats

    def lift(self, u: Floats, v: Floats) -> AnyFloats:
        """Film above the refinish [µm] at places, shape (c, places); 0 beyond the rim.

        With r the distance in half-axes: peak · (1 − r²)^¾ of a dome, (1 − r²)^1½ of a feathered one, and
        min(1, 2.2 · (1 − r)) of a plateau.
        """
        centre, axes = self.centre.astype(np.float32), self.axes.astype(np.float32)
        far = np.square((u.astype(np.float32) - centre[:, :1]) / axes[:, :1])
        far += np.square((v.astype(np.float32) - centre[:, 1:]) / axes[:, 1:])
        inside = np.maximum(0, 1 - far)
        root = np.sqrt(inside)
        form = self.form[:, None]
        shape = np.sqrt(root) * root
        if (self.form != DOME).any():
            flat = np.clip(2.2 * (1 - np.sqrt(far)), 0, 1)
            shape = np.where(form == DOME, shape, np.where(form == FEATHERED, root * inside, flat))
        return np.asarray(self.peak_um[:, None].astype(np.float32) * shape)

    def weights_at(self, u: Floats, v: Floats) -> AnyFloats:
        """Weights over the excesses that each lens puts at places, shape (c, places, excesses)."""
        return over_excesses(self.lift(u, v))

    def some(self, which: np.ndarray) -> Lenses:
        """A part of the family."""
        return Lenses(
            self.centre[which], self.axes[which], self.peak_um[which], self.form[which], self.log_prior[which]
        )

    @cached_property
    def lifted(self) -> AnyFloats:
        """Which cells of a MAP × MAP grid lie under film lifted by more than 150 µm, shape (c, cells)."""
        least = parameters().filled.counts_from_um
        return (self.lift(FINE[:, 0], FINE[:, 1]) > least).astype(np.float32)

    @property
    def area(self) -> Floats:
        """Share of the panel under film lifted by more than 150 µm, shape (c,)."""
        return np.asarray(self.lifted.mean(axis=1), dtype=float)

    @cached_property
    def spread(self) -> AnyFloats:
        """Distribution of lift over the panel's area for readings without position, shape (c, excesses)."""
        nearest = np.searchsorted((EXCESS_UM[1:] + EXCESS_UM[:-1]) / 2, self.lift(FINE[:, 0], FINE[:, 1]))
        return np.stack([(nearest == j).mean(axis=1) for j in range(len(EXCESS_UM))], axis=1).astype(np.float32)


def over_excesses(lift: AnyFloats) -> AnyFloats:
    """Weights over the excesses, by straight lines between them."""
    rank = np.interp(lift, EXCESS_UM, np.arange(len(EXCESS_UM), dtype=float))
    return hats(rank.astype(np.float32), len(EXCESS_UM))


@lru_cache(maxsize=4)
def _lenses(key: str) -> Lenses:
    return make_lenses(FilmParameters.model_validate_json(key))


def lenses(p: FilmParameters) -> Lenses:
    """The lenses any panel may carry, of a hand's size and more, and skims over all of it; made once."""
    return _lenses(p.key)


def make_lenses(p: FilmParameters) -> Lenses:
    """Every combination of centre, size and peak, with prior weights: filler sits low more often than high."""
    q = p.filled
    peak_at = np.array([-1.4, -0.2, 1.1, 2.7])
    peaks = q.large_median_um * np.exp(q.large_sd_log * peak_at)
    peak_weight = np.exp(-0.5 * peak_at**2)
    rows = [
        (u, v, *axes, peak, (q.low_weight * (1 - v) + q.high_weight * v) * size_weight * weight)
        for u in (0.1, 0.3, 0.5, 0.7, 0.9)
        for v in (0.12, 0.32, 0.52, 0.75)
        for axes, size_weight in zip(q.half_axes, q.size_weights, strict=True)
        for peak, weight in zip(peaks, peak_weight, strict=True)
    ]
    large = np.array(rows)
    large[:, 5] *= (1 - q.skim_share) * (1 - q.small_share) / large[:, 5].sum()
    over = EXCESS_UM[(EXCESS_UM >= 100) & (EXCESS_UM <= 3000)]
    weight = np.exp(-0.5 * ((np.log(over) - np.log(q.skim_median_um)) / q.skim_sd_log) ** 2)
    skim = np.array([(0.5, 0.5, WHOLE_PANEL, WHOLE_PANEL, peak, 0.0) for peak in over])
    skim[:, 5] = q.skim_share * weight / weight.sum()
    table = np.concatenate([large, skim])
    return Lenses(table[:, :2], table[:, 2:4], table[:, 4], np.full(len(table), DOME), np.log(table[:, 5]))


def small_lenses(u: Floats, v: Floats, film_um: Floats, p: FilmParameters) -> tuple[Lenses | None, float]:
    """Lenses of a hand's size about the thickest of a panel's readings, and the share of such that none would show.

    About every reading lie lenses centred on it and half an axis off, each weighing by the area in which the reading
    would meet it; about thin readings they are left out, where they could explain nothing.
    """
    q, count = p.filled, len(u)
    size = np.array(q.small_half_axes)
    met = np.minimum(0.5 / count, np.pi * size.prod(axis=1) / len(OFFSETS)) * np.array(q.small_size_weights)
    hidden = max(q.small_hidden_least, 1 - float(met.sum()) * len(OFFSETS) * count)
    order = np.argsort(-film_um, kind="stable")[:MOST_CENTRES]
    chosen = order[film_um[order] > film_um.min() * (1 + LEAST_RISE) + LEAST_RISE_UM]
    if not len(chosen):
        return None, hidden
    grid = [axis.ravel() for axis in np.indices((len(chosen), len(size), len(OFFSETS), 2, len(q.peaks_um)))]
    reading, kind, offset, form, peak = grid
    axes = size[kind]
    centre = np.stack([u[chosen], v[chosen]], axis=1)[reading] + OFFSETS[offset] * axes
    weight = met[kind] * np.array(q.peak_weights)[peak] / 2
    share = (1 - q.skim_share) * q.small_share * (1 - hidden) / (float(met.sum()) * len(OFFSETS) * count)
    made = Lenses(
        centre, axes, np.array(q.peaks_um)[peak], np.where(form == 0, FEATHERED, PLATEAU), np.log(weight * share)
    )
    return made, hidden


def together(one: Lenses, other: Lenses) -> Lenses:
    """Two families as one."""
    return Lenses(
        np.concatenate([one.centre, other.centre]),
        np.concatenate([one.axes, other.axes]),
        np.concatenate([one.peak_um, other.peak_um]),
        np.concatenate([one.form, other.form]),
        np.concatenate([one.log_prior, other.log_prior]),
    )


def lifted_film(p: FilmParameters) -> tuple[Floats, Floats]:
    """Mean film [µm] over excesses and refinish levels, and its own relative spread: filler is uneven by itself."""
    film = LEVELS_UM + EXCESS_UM[:, None]
    own = p.filled.beside_unevenness
    return film, np.sqrt(own**2 + (p.filled.unevenness * EXCESS_UM[:, None] / film) ** 2)


def lifted_table(seen: Shown, p: FilmParameters) -> AnyFloats:
    """Log probability of each reading over excesses and refinish levels, shape (n, excesses, levels)."""
    film, sd = lifted_film(p)
    return np.log(np.maximum(mass(seen, film, sd, p), TINY)).astype(np.float32)


@dataclass(frozen=True)
class LensEvidence:
    """What one panel's readings say of filler: log likelihood (c, levels) by lens and refinish level, the evidence of
    the lenses that a reading would show (levels,), and the share of repairs that none would.
    """

    lenses: Lenses
    log_like: AnyFloats
    seen: Floats
    hidden: float


def lens_evidence(
    table: AnyFloats, u: Floats, v: Floats, film_um: Floats, excess_at: tuple[AnyFloats, AnyFloats], p: FilmParameters
) -> LensEvidence:
    """Evidence of one panel's readings.

    Parameters
    ----------
    table : log probabilities of its readings (n, excesses, levels)
    u, v : their places (n,), NaN where not known
    film_um : what they showed (n,)
    excess_at : lifts of the lenses any panel may carry at those places (c, placed), and their weights over the excesses
    """
    q, placed, family = p.filled, ~np.isnan(u), lenses(p)
    lift, weights = excess_at
    like = _likelihood(weights, table[placed])
    if not placed.all():
        like = like + np.log(np.maximum(family.spread @ np.exp(table[~placed]), TINY)).sum(axis=0)
    prior = np.exp(family.log_prior)
    shown = (lift >= q.seen_from_um).any(axis=1)
    large = (1 - q.skim_share) * (1 - q.small_share)
    hidden = float(prior[~shown].sum()) if placed.all() else q.unplaced_hidden * large
    weigh = np.where(shown, prior, 0.0) if placed.all() else prior * (1 - q.unplaced_hidden)
    every = family
    if placed.any():
        small, unseen = small_lenses(u[placed], v[placed], film_um[placed], p)
    else:
        small, unseen = None, 1.0
    if small is not None:
        near = _likelihood(small.weights_at(u[placed], v[placed]), table[placed])
        near = near + table[~placed, 0].sum(axis=0)
        like, every = np.concatenate([like, near]), together(family, small)
        weigh = np.concatenate([weigh, np.exp(small.log_prior)])
    hidden += (1 - q.skim_share) * q.small_share * unseen
    top = like.max(axis=0)
    seen = np.log(np.maximum(weigh.astype(like.dtype) @ np.exp(like - top), TINY)) + top - np.log(1 - hidden)
    return LensEvidence(every, like, seen.astype(float), hidden)


def _likelihood(weights: AnyFloats, table: AnyFloats) -> AnyFloats:
    """Sum over readings of weights over the excesses · log table: (c, n, e) and (n, e, k) give (c, k)."""
    count = len(weights)
    return np.asarray(weights.reshape(count, weights.shape[1] * weights.shape[2]) @ table.reshape(-1, table.shape[2]))


def lens_posterior(found: LensEvidence, level_weight: Floats, readings: int, p: FilmParameters) -> Floats:
    """Weights of the lenses of one panel, given that there is filler that counts, shape (lenses,).

    `level_weight` is the prior weight of the refinish levels. Real filler is no lens: readings on one repair share its
    deviation from that shape, so together they count as at most `shape_readings` independent ones.
    """
    tempered = found.log_like.astype(float) * min(1.0, p.filled.shape_readings / readings)
    log = log_sum(tempered + np.log(np.maximum(level_weight, TINY)), axis=1) + found.lenses.log_prior
    weight = np.exp(log - log.max()) * (found.lenses.peak_um > p.filled.counts_from_um)
    return np.asarray(weight / weight.sum())


def likely_lenses(family: Lenses, weight: Floats) -> tuple[Lenses, Floats]:
    """The lenses that carry the weight, with theirs: few, of many."""
    which = np.flatnonzero(weight > weight.max() * LEAST_SHARE)
    return family.some(which), weight[which] / weight[which].sum()


def area_posterior(family: Lenses, weight: Floats) -> tuple[Floats, Floats]:
    """Filled share of one panel as rising values and their weights, from the weights of its lenses."""
    # The sizes of the family are steps; true sizes lie between them.
    area = np.clip(np.outer(BETWEEN_STEPS, family.area), 0, 1).ravel()
    spread = np.outer(BETWEEN_WEIGHTS, weight).ravel()
    order = np.argsort(area, kind="stable")
    return area[order], spread[order]


def filler_map(family: Lenses, weight: Floats) -> Floats:
    """Probability of more than 150 µm of filler over the panel, shape (MAP rows along v, MAP columns along u)."""
    return np.asarray((weight.astype(np.float32) @ family.lifted).reshape(MAP, MAP), dtype=float)
