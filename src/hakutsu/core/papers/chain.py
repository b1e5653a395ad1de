"""Records in a row: what each interval says if all others stand, for one thing that may have happened at a time."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from scipy.special import beta, betainc, ndtr

from hakutsu.core.papers.records import A_DAY, DELIVERY, KM_PER_MILE, PER_UNIT, Record, written_wrong
from hakutsu.core.papers.running import BLUR, GRID, NEVER, YEARLY, Floats, Running, density, log_of
from hakutsu.core.papers.tables import DistanceTable

HALF_A_DAY = A_DAY / 2
MOST_TURNS = 60  # of a dial that begins again
TURNS_AT_ONCE = 12
SELDOM_KM = 500_000  # a dial that shows so much has begun again only where it falls by most of that
SMALLEST_SLIP = 0.01  # a record off by less of itself still stands for the distance
OTHER_PLACES = 9  # at which a record that went wrong some other way may stand
FASTEST = 100_000  # distance in a year [km] up to which a last record may have meant something else
ZERO_SD = 5.0  # error of the distance at first use [km]
IMPOSSIBLE = 1e-15  # density [1/km] of an interval, given those before it, that no running explains
NO = -1e9  # log weight of what cannot be


@dataclass(slots=True)
class Parts:
    """What may be true: distances on the last day [km], their errors [km], log weights; each of a kind and event."""

    km: Floats
    sd: Floats
    weight: Floats
    kind: Any
    event: Any


class Chain:
    """Forward and backward passes over the records of one vehicle, in the order of their days."""

    def __init__(self, records: Sequence[Record], start_years: float | None, table: DistanceTable) -> None:
        """`start_years`: from first use to the first record, none if not told."""
        self.table, self.model = table, Running(table.running, table.record)
        self.records, self.size = records, len(records)
        self.told = start_years is not None
        self.km = np.array([one.km for one in records])
        gaps = np.diff([one.on.toordinal() for one in records]) * A_DAY
        self.years = np.maximum(np.concatenate([[start_years or 0.0], gaps]), HALF_A_DAY)
        self.sd = np.maximum(float(table.record.error) * np.abs(self.km), 1.0)
        self.before = np.concatenate([[0.0 if self.told else self.km[0]], self.km[:-1]])
        self.run = self.km - self.before
        self.noise = np.hypot(self.sd, np.concatenate([[ZERO_SD], self.sd[:-1]]))
        self.age = np.cumsum(self.years)
        self.far = YEARLY[None, :] * self.years[:, None]
        self._pass()

    def _pass(self) -> None:
        size = self.size
        self.moves = self.model.moves(self.years)
        self.found = self._runs(np.arange(size), self.km)
        self.pre, self.pre_log = np.empty_like(self.far), np.zeros(size)
        self.post, self.post_log = np.ones_like(self.far), np.zeros(size)
        self.pre[0] = self.model.first(float(self.years[0]))
        for at in range(size - 1):
            ahead = (self.pre[at] * self.found[at]) @ self.moves[at]
            total = float(ahead.sum())
            self.pre[at + 1], self.pre_log[at + 1] = ahead / total, self.pre_log[at] + np.log(total)
        for at in range(size - 2, -1, -1):
            back = self.moves[at] @ (self.found[at + 1] * self.post[at + 1])
            total = float(back.max())
            self.post[at], self.post_log[at] = back / total, self.post_log[at + 1] + np.log(total)

    def _runs(self, at: Any, km: Floats) -> Floats:
        """Density of intervals that end at records standing at other distances. A first record of a vehicle just handed
        over says nothing of how far it runs in a year; nor does a first one where first use is not told.
        """
        found = self.model.run(self.years[at], km - self.before[at], self.noise[at])
        first = at == 0
        if not self.told:
            found[first] = 1.0
        elif self.records[0].source == DELIVERY:
            row = self.table.delivery
            there = np.maximum(km[first], 1.0)
            away = density(np.log(there / float(row.median)), float(row.spread)) / there
            found[first] = np.maximum(away, NEVER)[:, None]
        return found

    def impossible(self, event: int, *, slip: bool) -> list[Record]:
        """Records beside intervals that no running explains, once an event at a record has explained its own."""
        explained = {event, event + 1} if slip else {event}
        seen = (self.pre * self.found).sum(axis=1)
        odd = [at for at in range(self.size) if at not in explained and seen[at] < IMPOSSIBLE]
        beside = dict.fromkeys(one for at in odd for one in (at - 1, at) if one >= 0)
        return [self.records[at] for at in beside]

    def consistent(self) -> Parts:
        """All records stand."""
        weight = np.log((self.pre[-1] * self.found[-1]).sum()) + self.pre_log[-1]
        return self._parts(self.km[-1:], self.sd[-1:], np.array([weight]), np.array([-1]))

    def rolled_back(self) -> Parts:
        """Distance was taken off within an interval, and the dial ran on from there; by interval and state."""
        row = self.table.rolled_back
        off = self.far - self.run[:, None]
        there = np.maximum(self.before, 0.0)[:, None] + self.far / 2
        part = self.age / self.age[-1]
        when = np.diff(betainc(*(float(one) for one in row.age), np.concatenate([[0.0], part])))
        share = beta_density(off / there, *(float(one) for one in row.share))
        return self._within(self.km[-1] + off, share / there * when[:, None])

    def replaced(self) -> Parts:
        """Another cluster was put in within an interval, at nothing or at the figure of another vehicle."""
        row = self.table.replaced
        shown = self.km[:, None]
        wide = np.hypot(self.sd[:, None], BLUR * self.far)
        nothing = ndtr((self.far - shown) / wide) / self.far
        other = np.zeros_like(self.far)
        for share in (1 / 6, 1 / 2, 5 / 6):
            came = np.maximum(shown - share * self.far, 1e-9)
            other += density(np.log(came / float(row.median)), float(row.spread)) / came / 3
        chance = float(row.from_nothing) * nothing + (1 - float(row.from_nothing)) * other
        since = self.km[-1] - shown
        return self._within(self.before[:, None] + self.far + since, chance * (self.years / self.age[-1])[:, None])

    def _within(self, true: Floats, chance: Floats) -> Parts:
        """Something within one interval, which the others leave open."""
        weight = log_of(self.pre * self.post * chance) + (self.pre_log + self.post_log)[:, None]
        if not self.told:
            weight[0] = NO
        sd = np.hypot(BLUR * self.far, self.sd[-1])
        return self._parts(true.ravel(), sd.ravel(), weight.ravel(), np.repeat(np.arange(self.size), GRID.size))

    def slips(self) -> tuple[Parts, Parts]:
        """One record is in the other unit; one record was written wrongly."""
        every = np.arange(self.size)
        ratio = np.array([KM_PER_MILE if one.unit == "km" else 1 / KM_PER_MILE for one in self.records])
        meant = [self._meant(at) for at in range(self.size)]
        at = np.concatenate([every, *(np.full(km.size, one) for one, (km, _) in enumerate(meant))])
        km = np.concatenate([self.km * ratio, *(km for km, _ in meant)])
        chance = np.concatenate([ratio, *(share for _, share in meant)])
        which = np.array([float(self.table.slip.sources.get(one.source, 1.0)) for one in self.records])
        weight = self._instead(at, km) + np.log(chance) + np.log(which / which.sum())[at]
        true = np.where(at == self.size - 1, km, self.km[-1])
        sd = np.full(km.size, self.sd[-1])
        ends = (slice(self.size), slice(self.size, None))
        unit, digit = (self._parts(true[one], sd[one], weight[one], at[one]) for one in ends)
        return unit, digit

    def _meant(self, at: int) -> tuple[Floats, Floats]:
        """Distances [km] that a record written wrongly may have meant, between its neighbours, and their chances."""
        record, ways = self.records[at], self.table.slip.ways
        unit = PER_UNIT[record.unit]
        meant, chance = written_wrong(record.value, ways)
        low = float(self.before[at])
        high = float(low + FASTEST * self.years[at] if at + 1 == self.size else self.km[at + 1])
        far = 0.004 * max(low, high, 1.0)
        km = meant * unit
        near = (km >= low - far) & (km <= high + far) & (np.abs(meant - record.value) >= SMALLEST_SLIP * record.value)
        km, chance = km[near], chance[near]
        step = (high - low) / (OTHER_PLACES + 1)
        if step > unit:
            each = float(ways["other"]) * step / unit / 10.0 ** len(str(int(record.value)))
            km = np.concatenate([km, low + step * np.arange(1, OTHER_PLACES + 1)])
            chance = np.concatenate([chance, np.full(OTHER_PLACES, each)])
        return km, chance

    def _instead(self, at: Any, km: Floats) -> Floats:
        """Log evidence with records at other distances, one at a time."""
        weight = self.pre[at] * self._runs(at, km)
        last = at == self.size - 1
        ahead: Floats = np.empty(km.size)
        ahead[last] = weight[last].sum(axis=1)
        inner = np.flatnonzero(~last)
        after = at[inner] + 1
        then = self.model.run(self.years[after], self.km[after] - km[inner], self.noise[after]) * self.post[after]
        for one in range(self.size - 1):
            here = np.flatnonzero(at[inner] == one)
            ahead[inner[here]] = ((weight[inner[here]] @ self.moves[one]) * then[here]).sum(axis=1)
        log: Floats = log_of(ahead) + self.pre_log[at]
        log[inner] += self.post_log[after]
        return log

    def rolled_over(self, capacity: float) -> Parts:
        """A dial that began again at nothing, once or more; `capacity` [km] from where."""
        if capacity >= SELDOM_KM and self.run.min() > -capacity / 2:
            return self._parts(np.empty(0), np.empty(0), np.empty(0), np.empty(0, int))
        counts = np.zeros((MOST_TURNS + 1, GRID.size))
        counts[0] = self.pre[0]
        log = 0.0
        turns = np.arange(TURNS_AT_ONCE + 1)
        for at in range(self.size):
            if at:
                counts = counts @ self.moves[at - 1]
            by = self._runs(np.full(turns.size, at), self.km[at] + turns * capacity)
            ahead = np.zeros_like(counts)
            for turn in turns:
                ahead[turn:] += counts[: MOST_TURNS + 1 - turn] * by[turn]
            total = float(ahead.sum())
            counts, log = ahead / total, log + float(np.log(total))
        weight = counts.sum(axis=1)[1:]
        km = self.km[-1] + np.arange(1, MOST_TURNS + 1) * capacity
        return self._parts(km, np.full(MOST_TURNS, self.sd[-1]), log_of(weight) + log, np.full(MOST_TURNS, -1))

    def _parts(self, km: Floats, sd: Floats, weight: Floats, event: Any) -> Parts:
        return Parts(km, sd, weight, np.zeros(km.size, int), event)


def beta_density(share: Floats, a: float, b: float) -> Floats:
    """Density of a beta distribution, nought at and outside its ends."""
    inside = (share > 0) & (share < 1)
    safe = np.where(inside, share, 0.5)
    from_end = np.exp((a - 1) * np.log(safe) + (b - 1) * np.log1p(-safe))
    return np.where(inside, from_end / float(beta(a, b)), 0.0)
