"""The plan against what is proven: missed, last done, next due, by distance and by time, whichever comes first."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from uuid import UUID

from hakutsu.entries.service import PlanRow
from hakutsu.vehicle.service import ByWhom, ProofOf

MONTH_DAYS = 30.44
GRACE = 0.2  # of an interval by which a service may be late and still be the one of that interval
DUE_THEN = 0.75  # of an interval gone from which a service by the plan had the item done
OIL = "engine_oil"  # what every service by a plan includes
USUAL_KM_A_YEAR = 13_000.0


@dataclass(frozen=True, slots=True)
class Work:
    """Something that was done: day and distance [km] (none where not told), by whom, proof, items, and its entry."""

    on: date | None
    km: float | None
    by: ByWhom
    proof: ProofOf
    items: tuple[str, ...]
    whole: bool
    entry: UUID

    @property
    def counts(self) -> bool:
        """Whether it resets anything: proven, and no mere check before delivery."""
        return self.proof is not ProofOf.SAID and self.by is not ByWhom.DELIVERY


@dataclass(frozen=True, slots=True)
class Life:
    """The vehicle's own clock: first use, today, and what it has run by now [km]; none where not known."""

    first: date | None
    today: date
    km: float | None

    @property
    def km_per_day(self) -> float:
        """Its own distance a day [km]; the usual one where that is not known."""
        days = (self.today - self.first).days if self.first else 0
        return self.km / days if self.km and days > 0 else USUAL_KM_A_YEAR / 365.25

    def spot(self, on: date | None, km: float | None) -> tuple[float, float]:
        """Day (ordinal) and distance [km] of something, what was not told by the vehicle's own rate."""
        begin = (self.first or self.today).toordinal()
        if on is None and km is not None:
            return begin + km / self.km_per_day, km
        day = float((on or self.today).toordinal())
        return day, km if km is not None else max(0.0, (day - begin) * self.km_per_day)


@dataclass(frozen=True, slots=True)
class ItemStands:
    """How an item stands: its interval, how often it was proven and how often missed before, when it was last done,
    when it is due next, and how far the running interval has gone (1: due).
    """

    item: str
    row: PlanRow
    done: tuple[Work, ...]
    missed: int
    last_on: date | None
    last_km: float | None
    next_on: date
    next_km: float | None
    gone: float
    gaps: tuple[tuple[float, float, int], ...]  # from and to (ordinals), intervals missed within

    @property
    def overdue(self) -> bool:
        """Whether it is past its interval today."""
        return self.gone > 1.0


def twice(works: Sequence[Work], numbers: Mapping[UUID, str]) -> set[UUID]:
    """Entries that say what an earlier one says: the same invoice, or the same day, distance and items."""
    seen: dict[object, UUID] = {}
    again = set()
    for one in works:
        number = numbers.get(one.entry, "").casefold()
        key: object = (number, one.on) if number else (one.on, one.km, frozenset(one.items), one.whole)
        if key in seen:
            again.add(one.entry)
        seen.setdefault(key, one.entry)
    return again


def stands(rows: Sequence[PlanRow], works: Sequence[Work], life: Life, km_per_year: float) -> list[ItemStands]:
    """Every item of a plan, in the order of the plan.

    Parameters
    ----------
    rows : the plan
    works : what was done, in any order
    life : the vehicle's own clock
    km_per_year : the buyer's distance from today on [km]
    """
    counting = sorted((one for one in works if one.counts), key=lambda one: life.spot(one.on, one.km)[0])
    return [_stands(row, counting, life, km_per_year) for row in rows]


def _stands(row: PlanRow, works: Sequence[Work], life: Life, km_per_year: float) -> ItemStands:
    begin = life.spot(life.first, 0.0 if life.first else None)
    before = begin if life.first else (float(life.today.toordinal()), life.km or 0.0)
    done, gaps = list[Work](), list[tuple[float, float, int]]()
    for one in works:
        spot = life.spot(one.on, one.km)
        gone = _gone(row, before, spot)
        if row.item in one.items or (one.whole and (row.item == OIL or gone >= DUE_THEN)):
            if done or life.first:
                gaps.append((before[0], spot[0], _missed(gone)))
            done.append(one)
            before = spot
    today = (float(life.today.toordinal()), life.km if life.km is not None else life.spot(life.today, None)[1])
    gone = _gone(row, before, today) if done or life.first else 0.0
    gaps.append((before[0], today[0], max(0, int(gone - GRACE))))
    next_on, next_km = _next(row, before, life, km_per_year)
    last = done[-1] if done else None
    return ItemStands(
        row.item, row, tuple(done), sum(count for *_, count in gaps[:-1]), last.on if last else None,
        last.km if last else None, next_on, next_km, gone, tuple(gaps),
    )  # fmt: skip


def _gone(row: PlanRow, before: tuple[float, float], after: tuple[float, float]) -> float:
    """How many intervals lie between two spots, by the clock that ran more."""
    by_km = (after[1] - before[1]) / row.km if row.km else 0.0
    by_time = (after[0] - before[0]) / (row.months * MONTH_DAYS) if row.months else 0.0
    return max(by_km, by_time, 0.0)


def _missed(gone: float) -> int:
    """Intervals that should have been ended by a service in between."""
    return max(0, int(gone - GRACE) if gone > 1 + GRACE else 0)


def _next(row: PlanRow, last: tuple[float, float], life: Life, km_per_year: float) -> tuple[date, float | None]:
    """The day it is due by, and the distance [km] it is due at."""
    days = []
    at_km = last[1] + row.km if row.km else None
    if row.months:
        days.append(last[0] + row.months * MONTH_DAYS)
    if at_km is not None and life.km is not None:
        days.append(life.today.toordinal() + (at_km - life.km) / max(km_per_year, 1.0) * 365.25)
    soonest = min(days, default=float(life.today.toordinal()))
    low, high = date(1886, 1, 1).toordinal(), (life.today + timedelta(days=36_500)).toordinal()
    return date.fromordinal(int(min(max(soonest, low), high))), at_km


@dataclass(frozen=True, slots=True)
class CountdownSays:
    """The interval a countdown implies: distance since the last service and what is left [km], and so by days; with the
    plan's own, none where not known.
    """

    km: float | None
    plan_km: float | None
    days: float | None
    plan_days: float | None

    @property
    def differs(self) -> bool:
        """Whether it was set at another time than that service: the sum is far off the plan's interval."""
        pairs = ((self.km, self.plan_km), (self.days, self.plan_days))
        known = [implied / plan for implied, plan in pairs if implied is not None and plan]
        return bool(known) and all(abs(one - 1) > OFF for one in known)


OFF = 0.25  # share by which an implied interval may lie off the plan's: plans that count wear vary


def countdown_says(
    left: tuple[float | None, float | None], last: tuple[date | None, float | None], row: PlanRow | None, life: Life
) -> CountdownSays | None:
    """What a countdown (distance [km], days) implies since the last service (day, km); none without one."""
    if last == (None, None):
        return None
    since_km = life.km - last[1] if life.km is not None and last[1] is not None else None
    since_days = (life.today - last[0]).days if last[0] is not None else None
    return CountdownSays(
        since_km + left[0] if since_km is not None and left[0] is not None else None, row.km if row else None,
        since_days + left[1] if since_days is not None and left[1] is not None else None,
        row.months * MONTH_DAYS if row and row.months else None,
    )  # fmt: skip
