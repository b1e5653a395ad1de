"""What a vehicle will ask for in the months after buying it: quantiles of the total, means by job.

Draws are fixed by the seed and the name of a job, so that moving a control moves the answer and not the dice.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from zlib import crc32

import numpy as np
from numpy.typing import NDArray

from hakutsu.core.life.jobs import Job, Strand
from hakutsu.core.life.survival import AHEAD, Floats

DRAWS, SEED = 2000, 20261125
HORIZONS = (12, 24, 36)
VEHICLE_GSD, COST_GSD = 1.2, 1.25
WINDOW_MONTHS = 3.0
TOGETHER_MONTHS = 12.0
MOST_RENEWALS = 60
LEAST_MONTHS = 0.01  # between two turns of a job


@dataclass(frozen=True, slots=True)
class Price:
    """What a job usually costs: labour and materials, each in money."""

    labour: float
    materials: float

    @property
    def total(self) -> float:
        """Both."""
        return self.labour + self.materials


@dataclass(frozen=True, slots=True)
class Driver:
    """A job's part in the spending at one horizon: the chance that it falls due at all, its share of the mean [money],
    and how often it is expected.
    """

    key: str
    name: str
    chance: float
    share: float
    times: float = 0.0


@dataclass(frozen=True, slots=True)
class Spending:
    """Spending within so many months: its mean, quantiles of the total (which do not add up), drivers by share."""

    months: int
    mean: float
    p10: float
    p50: float
    p90: float
    drivers: tuple[Driver, ...]


@lru_cache(maxsize=4096)
def _dice(key: str, turn: int) -> tuple[Floats, Floats]:
    """For one job and its turn: standard exponentials for its life and factors for its cost."""
    rng = np.random.default_rng([SEED, crc32(key.encode()), turn])
    life, cost = rng.standard_exponential(DRAWS), COST_GSD ** rng.standard_normal(DRAWS)
    life.setflags(write=False)
    cost.setflags(write=False)
    return life, cost


@lru_cache(maxsize=1)
def _vehicle() -> Floats:
    """The factor that all lives of a vehicle share."""
    return np.asarray(VEHICLE_GSD ** np.random.default_rng([SEED, 1]).standard_normal(DRAWS))


@lru_cache(maxsize=512)
def _case_dice(kind: str) -> Floats:
    """For one kind of part: where each draw stands among the cases of its life, uniform on 0 to 1."""
    die = np.random.default_rng([SEED, 2, crc32(kind.encode())]).permutation((np.arange(DRAWS) + 0.5) / DRAWS)
    die.setflags(write=False)
    return die


def _months(ends: Strand, *, first: bool, dice: Floats, draws: NDArray[np.int64]) -> Floats:
    """Months at which survival falls to e^−dice, each draw in its own case of the life."""
    curves = ends.own if first else ends.new
    if ends.weight is None:
        return _fall(curves, dice)
    case = np.searchsorted(np.cumsum(ends.weight)[:-1], _case_dice(ends.kind)[draws])
    found = np.empty(len(dice))
    for k in range(len(ends.weight)):
        mine = case == k
        found[mine] = _fall(curves[k], dice[mine])
    return found


def _fall(alive: Floats, dice: Floats) -> Floats:
    spent = -np.log(np.clip(alive, 1e-12, 1.0))
    return np.asarray(np.interp(dice, spent, AHEAD, left=0.0))


@dataclass(frozen=True, slots=True)
class _Events:
    """Turns of jobs that fall due, a row each: job, whether its first, draw, month, labour and materials [money]."""

    job: NDArray[np.int64]
    first: NDArray[np.bool_]
    draw: NDArray[np.int64]
    at: Floats
    labour: Floats
    materials: Floats


def _turns(job: Job, most: float, prices: Mapping[str, Price], index: int) -> list[_Events]:
    """A job's turns within `most` months; after each, a new part goes on."""
    small, large = prices[job.cost], prices.get(job.major_cost) or prices[job.cost]
    live, total, found = np.arange(DRAWS), np.zeros(DRAWS), []
    for turn in range(MOST_RENEWALS):
        dice, cost = _dice(job.key, turn)
        could = dice[live] <= _reach(job, turn, most)
        live, total = live[could], total[could]
        gap, major = _gap(job, turn, dice[live], live)
        total = total + np.maximum(gap, LEAST_MONTHS if turn else 0.0)
        keep = total <= most
        live, total, major = live[keep], total[keep], major[keep]
        if not len(live):
            break
        factor = cost[live]
        labour = np.where(major, large.labour, small.labour) * factor
        materials = np.where(major, large.materials, small.materials) * factor
        found.append(_Events(np.full(len(live), index), np.full(len(live), turn == 0), live, total, labour, materials))
    return found


def _reach(job: Job, turn: int, most: float) -> float:
    """The largest die with which a turn can still fall within `most` months: larger ones need no looking up."""
    if job.due is not None or (turn == 0 and job.cap is not None):
        return float("inf")
    curves = [one.own if turn == 0 else one.new for one in (job.strand, job.major) if one is not None]
    latest = most / float(_vehicle().min())
    rows = [row for curve in curves for row in np.atleast_2d(curve)]
    return max(-float(np.log(max(np.interp(latest, AHEAD, row), 1e-12))) for row in rows) + 1e-9


def _gap(job: Job, turn: int, dice: Floats, live: NDArray[np.int64]) -> tuple[Floats, NDArray[np.bool_]]:
    """Months to a job's next turn, and whether the larger job comes with it."""
    small = np.zeros(len(dice), bool)
    if job.due is not None:
        return np.full(len(dice), job.due if turn == 0 else job.every or np.inf), small
    shared, first = _vehicle()[live], turn == 0
    gap = _months(job.strand, first=first, dice=dice, draws=live) * shared
    if job.major is not None:
        large = _months(job.major, first=first, dice=dice, draws=live) * shared
        small, gap = large <= gap + TOGETHER_MONTHS, np.minimum(gap, large)
    if turn == 0 and job.cap is not None:
        gap = np.minimum(gap, job.cap)
    return gap, small


def _charged(jobs: Sequence[Job], prices: Mapping[str, Price], most: float) -> _Events:
    """Every turn of every job, with labour of one group charged once in its window."""
    rows = [one for i, job in enumerate(jobs) for one in _turns(job, most, prices, i)]
    if not rows:
        nothing = np.zeros(0)
        return _Events(np.zeros(0, int), np.zeros(0, bool), np.zeros(0, int), nothing, nothing, nothing)
    columns = ("job", "first", "draw", "at", "labour", "materials")
    job, first, draw, at, labour, materials = (np.concatenate([getattr(row, name) for row in rows]) for name in columns)
    names = {name: i for i, name in enumerate(dict.fromkeys(one.labour or one.key for one in jobs))}
    group = np.array([names[one.labour or one.key] for one in jobs])[job] * DRAWS + draw
    order = np.lexsort((at, group))
    return _Events(job, first, draw, at, _shared_labour(group, at, labour, order), materials)


def _shared_labour(group: NDArray[np.int64], at: Floats, labour: Floats, order: NDArray[np.int64]) -> Floats:
    """Labour as it is charged: within a window only what goes beyond the most already charged in it."""
    sorted_group = group[order]
    first = np.flatnonzero(np.concatenate([[True], np.diff(sorted_group) != 0]))
    rank = np.arange(len(order)) - np.repeat(first, np.diff(np.append(first, len(order))))
    charged = labour.copy()
    begun, paid = at.copy(), labour.copy()  # by event: when its window began, and the most charged in it so far
    for step in range(1, int(rank.max(initial=0)) + 1):
        places = np.flatnonzero(rank == step)
        here, before = order[places], order[places - 1]
        inside = at[here] - begun[before] <= WINDOW_MONTHS
        charged[here] = np.where(inside, np.maximum(labour[here] - paid[before], 0.0), labour[here])
        begun[here] = np.where(inside, begun[before], at[here])
        paid[here] = np.where(inside, np.maximum(paid[before], labour[here]), labour[here])
    return charged


def spending(jobs: Sequence[Job], prices: Mapping[str, Price], horizons: Sequence[int] = HORIZONS) -> list[Spending]:
    """Spending within each horizon [months].

    Notes
    -----
    First lives are conditional on the age of the part, later ones new. All lives of a vehicle share one factor (gsd
    1.2), every job's cost varies (gsd 1.25), and labour of one group is charged once within three months. Quantiles are
    of the total; mean shares add up to the mean.
    """
    events = _charged(jobs, prices, max(horizons))
    amount = events.labour + events.materials
    found = []
    for months in horizons:
        due = events.at <= months
        job, draw, paid = events.job[due], events.draw[due], amount[due]
        totals = np.bincount(draw, paid, DRAWS)
        shares = np.bincount(job, paid, len(jobs)) / DRAWS
        times = np.bincount(job, minlength=len(jobs)) / DRAWS
        chances = np.bincount(events.job[due & events.first], minlength=len(jobs)) / DRAWS
        drivers = [
            Driver(one.key, one.name, float(chances[i]), float(shares[i]), float(times[i]))
            for i, one in enumerate(jobs)
            if chances[i]
        ]
        drivers.sort(key=lambda one: -one.share)
        low, median, high = (float(one) for one in np.quantile(totals, (0.1, 0.5, 0.9)))
        found.append(Spending(months, sum(one.share for one in drivers), low, median, high, tuple(drivers)))
    return found
