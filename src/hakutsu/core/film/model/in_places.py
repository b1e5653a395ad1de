"""Repairs in places: the sum over every combination of zones of repair, at the likely points of the car's unknowns."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from hakutsu.core.film.model.factors import PAINTED
from hakutsu.core.film.model.graded import SIDES
from hakutsu.core.film.model.grids import Grids
from hakutsu.core.film.model.numeric import Floats, counted
from hakutsu.core.film.model.unknowns import Apart, Factors, Unknowns
from hakutsu.core.film.model.zones import ZoneChoices
from hakutsu.core.film.parameters import FilmParameters
from hakutsu.core.film.survey import STATES, State
from hakutsu.vehicle.panels import panels

FIRST_POINTS, KEPT_POINTS = 220, 110
LEAST_WEIGHT = 1e-4
HOW_FILLED = ("around", "alone")


@dataclass(frozen=True)
class InPlaces:
    """What repairs in places would mean: log evidence, states and expectations of every panel (panels, states), zones,
    weights over the grid of baselines and of the other unknowns, sides of blends, and what speaks for each zone.
    """

    log_evidence: float
    states: Floats
    expected: Floats
    zones: dict[str, float]
    baseline: Floats
    others: tuple[Floats, ...]
    variants: Mapping[str, Floats]
    sides: Floats
    for_zone: dict[str, dict[str, float]]


@dataclass(frozen=True)
class _Points:
    """The points kept: indices by axis, those of the variants by group, log priors, and the share of the sum left."""

    axes: tuple[np.ndarray, ...]
    variants: Mapping[str, np.ndarray]
    log_prior: Floats
    share: float


def _likely(points: Unknowns, first: Apart, grid: Grids) -> _Points:
    """The points, with their variants, that carry most of the sum with every panel by itself."""
    flat = first.log.ravel()
    order = np.argsort(-flat, kind="stable")[:FIRST_POINTS]
    log, prior = flat[order], points.log_prior.ravel()[order]
    groups = list(first.variants)
    for i, group in enumerate(groups):
        table = first.variants[group].reshape(len(first.variants[group]), -1)[:, order]
        chance = table - np.logaddexp.reduce(table, axis=0)
        shape = (-1, *(1,) * i, len(order))
        log = log + chance.reshape(shape)
        prior = prior + np.log(grid.variants[group]).reshape(-1, *(1,) * (i + 1))
    ranks = np.argsort(-log.ravel(), kind="stable")[:KEPT_POINTS]
    value = log.ravel()[ranks]
    kept = ranks[value > value[0] + np.log(LEAST_WEIGHT)]
    *which, point = np.unravel_index(kept, log.shape)
    chosen = order[point]
    share = float(np.exp(log.ravel()[kept] - flat.max()).sum() / np.exp(flat - flat.max()).sum())
    # Later groups were put before earlier ones.
    variants = dict(zip(reversed(groups), which, strict=True))
    return _Points(
        np.unravel_index(chosen, points.log_prior.shape),
        variants,
        np.broadcast_to(prior, log.shape).ravel()[kept],
        share,
    )


def _like(one: Factors, kept: _Points) -> tuple[dict[str, Floats], float]:
    """Evidence of a panel at the points by state, scaled by its largest, and the log of that."""
    by = one.by
    if by.own.size == 1:  # cues alone
        own, changing, painted = by.own[:, 0, 0], by.changing[:, 0], by.painted[:, 0, 0, 0]
    else:
        variant = kept.variants[one.group] if one.group else np.zeros_like(kept.axes[0])
        base, between, factory, lift, painter = kept.axes
        own = by.own[variant, base, between, factory]
        changing = by.changing[:, variant, base]
        painted = by.painted[:, variant, base, lift, painter]
    scale = float(max(own.max(), changing.max(), painted.max()))
    found = dict(zip(PAINTED, painted / scale, strict=True))
    found |= {"original": own / scale, "thinned": changing[0] / scale, "blended": changing[1:] / scale}
    return found, float(np.log(scale))


def zone_chances(i: int, name: str, choices: ZoneChoices, p: FilmParameters) -> dict[str, Floats]:
    """A panel's chances of every state but blended, by its rows of the combinations of zones."""
    untouched, painted, alone = choices.untouched[i], choices.painted[i], choices.alone[i]
    less = p.painted.filled_small if panels()[name].size == "small" else 1.0
    around, own = (1 - alone) * p.painted.filled * less, alone * p.painted.filled_alone * less
    return {
        "original": untouched * (1 - p.thinned.share),
        "thinned": untouched * p.thinned.share,
        "refinished": painted * (1 - p.painted.rebuilt - around - own),
        "rebuilt": painted * p.painted.rebuilt,
        "around": painted * around,
        "alone": painted * own,
    }


def in_places(
    names: Sequence[str], points: Unknowns, first: Apart, choices: ZoneChoices, grid: Grids, p: FilmParameters
) -> InPlaces:
    """Sum over zones and points; panels without readings or cues are judged by the rest of the car alone."""
    kept = _likely(points, first, grid)
    told = {one.name: _like(one, kept) for one in points.panels}
    rows = []
    for i, name in enumerate(names):
        chances = zone_chances(i, name, choices, p)
        if name in told:
            like = told[name][0]
            by_state = {state: chance[:, None] * like[state] for state, chance in chances.items()}
            by_state["blended"] = choices.blended[i] @ like["blended"]
        else:
            by_state = {state: chance[:, None] for state, chance in chances.items()}
            by_state["blended"] = choices.blended[i].sum(axis=1)[:, None]
        rows.append((by_state, np.maximum(sum(by_state.values()), 1e-290)))
    log = choices.log_prior[:, None] + kept.log_prior
    for i, (_, sums) in enumerate(rows):
        if names[i] in told:
            log = log + np.log(sums)[choices.which[i]]
    top = float(log.max())
    weight = np.exp(log - top)
    total = float(weight.sum())
    weight /= total
    evidence = top + float(np.log(total)) + sum(scale for _, scale in told.values()) - float(np.log(kept.share))
    states, expected = np.empty((len(names), len(STATES))), np.empty((len(names), len(STATES)))
    sides = np.empty((len(names), len(SIDES)))
    for i, (by_state, sums) in enumerate(rows):
        mine = choices.onehot[i] @ weight
        share = mine / sums
        states[i] = _by_state({state: float((share * table).sum()) for state, table in by_state.items()})
        facing = mine.sum(axis=1) @ choices.blended[i]
        sides[i] = facing / facing.sum()
        # What the others let expect of it: its own evidence divided out, on the scale it was given.
        rest = share.sum(axis=1) * np.exp(-told[names[i]][1] if names[i] in told else 0.0)
        chances = zone_chances(i, names[i], choices, p) | {"blended": choices.blended[i].sum(axis=1)}
        expected[i] = _by_state({state: float(rest @ chance) for state, chance in chances.items()})
    per_point = weight.sum(axis=0)
    best = int(per_point.argmax())
    read = {name: rows[i][1][:, min(best, rows[i][1].shape[1] - 1)] for i, name in enumerate(names) if name in told}
    return InPlaces(
        evidence,
        states,
        expected,
        dict(zip((zone.key for zone in choices.zones), (weight.sum(axis=1) @ choices.on).tolist(), strict=True)),
        counted(points.at[kept.axes[0]], per_point, len(grid.baseline_um)),
        tuple(
            counted(axis, per_point, size) for axis, size in zip(kept.axes[1:], points.log_prior.shape[1:], strict=True)
        ),
        {group: counted(which, per_point, len(grid.variants[group])) for group, which in kept.variants.items()},
        sides,
        _for_zones(names, read, choices),
    )


def _by_state(found: Mapping[str, float]) -> list[float]:
    filled = sum(found[how] for how in HOW_FILLED)
    return [filled if state is State.FILLED else found[state] for state in STATES]


def _for_zones(names: Sequence[str], sums: Mapping[str, Floats], choices: ZoneChoices) -> dict[str, dict[str, float]]:
    """Weight [bits] of each read member for a repair in its zone, at the likeliest point.

    log2 of the panel's evidence with the zone repaired over that without, other zones at their prior.
    """
    found: dict[str, dict[str, float]] = {zone.key: {} for zone in choices.zones}
    for i, name in enumerate(names):
        if name not in sums:
            continue
        having, lacking = choices.having[i] @ sums[name], choices.lacking[i] @ sums[name]
        for zone, bits in zip(choices.zones, np.log2(having / lacking), strict=True):
            if name in zone.members:
                found[zone.key][name] = float(bits)
    return found
