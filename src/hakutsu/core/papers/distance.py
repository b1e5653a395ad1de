"""How far a vehicle probably ran: dated readings against a model of running, and of what happens to records."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from hakutsu.core.papers.chain import Chain, Parts
from hakutsu.core.papers.records import A_DAY, DIAL, KINDS, MODULE, PER_UNIT, History, Record
from hakutsu.core.papers.running import Floats, density, log_of
from hakutsu.core.papers.tables import DistanceTable, distance_table

MODULE_DAYS = 30  # a unit read within so many days of the last record speaks of the same distance
AT = (0.1, 0.5, 0.9)
SLIPS = ("unit_slip", "digit_slip")
MOST_ASIDE = 3
BETTER = 12.0  # log evidence that setting a record aside must bring: what any record costs by being there at all
UNSURE = 0.6  # share of a probability that is kept where more than one thing must have happened
FAINT = -14.0  # log weight from which nothing counts


@dataclass(frozen=True, slots=True)
class Quantiles:
    """Distance on the day of the last record [km], with 80 of a hundred between the outer two."""

    p10: float
    p50: float
    p90: float


@dataclass(frozen=True, slots=True)
class Distance:
    """What the records say together.

    `doubted`: records that do not stand for the distance, with the chance; `evidence`: log of how well all of it
    explains the records; `fits`: false where no single event explains them, so that more than one thing must have
    happened; then `doubted` begins with those set aside before the rest.
    """

    probabilities: dict[str, float]
    km: Quantiles
    doubted: tuple[tuple[int | str, float], ...]
    evidence: float
    fits: bool = True

    @property
    def likeliest(self) -> str:
        """The kind with the greatest probability."""
        return max(self.probabilities, key=lambda one: self.probabilities[one])


@dataclass(frozen=True, slots=True)
class WearSays:
    """What wear says of the distance by itself: the middle [km], and the sd of its log."""

    km: float
    spread: float


def judge(history: History, wear: WearSays | None = None, table: DistanceTable | None = None) -> Distance:
    """Judge the records of one vehicle, and wear beside them where it was graded.

    Where no single event explains them, the record without which the rest fits best is set aside, three times at most.

    Raises
    ------
    ValueError
        If there is no record.
    """
    if not history.records:
        raise ValueError("no record")
    table = table or distance_table()
    told, odd = _judge(history, wear, table)
    aside: list[Record] = []
    while odd and len(aside) < MOST_ASIDE and len(history.records) > 2:
        tries = [(_judge(_without(history, one), wear, table), one) for one in odd]
        (found, still), one = max(tries, key=lambda each: each[0][0].evidence)
        if found.evidence < told.evidence + BETTER:
            break
        told, odd, history = found, still, _without(history, one)
        aside.append(one)
    if not aside and not odd:
        return told
    return _more_than_one(told, aside)


def _more_than_one(told: Distance, aside: Sequence[Record]) -> Distance:
    """With records set aside: that the rest is one run no longer means that all are, and what it is stays open."""
    shares = dict(told.probabilities)
    moved = shares["consistent"] if aside else 0.5 * shares["consistent"]
    shares = {kind: share * UNSURE for kind, share in shares.items() if kind != "consistent"}
    left = 1.0 - sum(shares.values())
    shares = {"consistent": 0.0, **shares}
    slipped = "digit_slip" if aside and moved > 0.5 else "replaced"
    shares[slipped] += 0.6 * left
    for kind in KINDS[1:5]:
        shares[kind] += 0.1 * left
    doubted = (*((one.row, 1.0) for one in aside), *told.doubted)
    return replace(told, probabilities=shares, doubted=doubted, fits=False)


def _without(history: History, record: Record) -> History:
    return replace(history, records=tuple(one for one in history.records if one is not record))


def _judge(history: History, wear: WearSays | None, table: DistanceTable) -> tuple[Distance, list[Record]]:
    """What one event at the most makes of the records, and those beside an interval that it leaves impossible."""
    records, modules = _apart(history.records)
    start = None if history.first_used is None else (records[0].on - history.first_used).days * A_DAY
    chain = Chain(records, start, table)
    parts = _kinds(chain, history, table)
    for one in modules:
        parts = _held(parts, one, chain, table)
    if wear is not None:
        sd = np.hypot(wear.spread, parts.sd / np.maximum(parts.km, 1.0))
        parts.weight = parts.weight + log_of(density(np.log(np.maximum(parts.km, 1.0) / wear.km), sd))
    top = float(parts.weight.max())
    parts = _kept(parts, np.flatnonzero(parts.weight > top + FAINT))
    weight = np.exp(parts.weight - top)
    total = float(weight.sum())
    weight /= total
    shares = {kind: float(weight[parts.kind == at].sum()) for at, kind in enumerate(KINDS)}
    doubted = _doubted(parts, weight, (records, history.records), float(table.doubted.likely))
    evidence = top + float(np.log(total))
    best = int(weight.argmax())
    odd = [] if KINDS[int(parts.kind[best])] == "rolled_over" else chain.impossible(
        int(parts.event[best]), slip=KINDS[int(parts.kind[best])] in SLIPS)  # fmt: skip
    return Distance(shares, _quantiles(parts, weight), doubted, evidence), odd


def _apart(records: Sequence[Record]) -> tuple[list[Record], list[Record]]:
    """Records in the order of their days, what two papers say alike once, and units read with the last of them."""
    every = sorted(records, key=lambda one: (one.on, one.source == DIAL, one.km))
    order = list({(one.on, one.km, one.source == MODULE): one for one in every}.values())
    others = [one for one in order if one.source != MODULE]
    if not others:
        return order, []
    late = [one for one in order if one.source == MODULE and abs((one.on - others[-1].on).days) <= MODULE_DAYS]
    return [one for one in order if one not in late], late


def _kinds(chain: Chain, history: History, table: DistanceTable) -> Parts:
    prior = table.prior.five if history.dial_digits <= 5 else table.prior.six
    unit = chain.records[-1].unit
    unit_slip, digit_slip = chain.slips()
    over = chain.rolled_over(10.0**history.dial_digits * PER_UNIT[unit])
    every = (chain.consistent(), chain.rolled_back(), chain.replaced(), unit_slip, digit_slip, over)
    for at, (kind, one) in enumerate(zip(KINDS, every, strict=True)):
        one.kind = np.full(one.km.size, at)
        one.weight = one.weight + np.log(float(prior[kind]))
    return _joined(every)


def _held(parts: Parts, module: Record, chain: Chain, table: DistanceTable) -> Parts:
    """With a figure that a control unit holds: its own count, a copy of the dial's, or a figure of its own."""
    dial, error = float(chain.km[-1]), float(table.record.error)
    sharp = max(error * abs(module.km), 1.0)
    says = np.array([float(table.module.says_the_dial[kind]) for kind in KINDS])[parts.kind]
    odd = float(table.module.own_figure)
    spread = np.sqrt(parts.sd**2 + sharp**2)
    own = log_of((1 - odd) * (1 - says) * density(module.km - parts.km, spread))
    share = parts.sd**2 / spread**2
    counted = Parts(
        parts.km + share * (module.km - parts.km), np.maximum(parts.sd * np.sqrt(1 - share), 1.0),
        parts.weight + own, parts.kind, parts.event,
    )  # fmt: skip
    copy = float(density(np.array(module.km - dial), np.hypot(sharp, error * abs(dial)) + 1.0))
    rest = log_of((1 - odd) * says * copy + odd / max(dial, module.km, 1.0))
    return _joined([counted, Parts(parts.km, parts.sd, parts.weight + rest, parts.kind, parts.event)])


def _quantiles(parts: Parts, weight: Floats) -> Quantiles:
    order = np.argsort(parts.km)
    low = np.full(3, float((parts.km - 6 * parts.sd).min()))
    high = np.full(3, float((parts.km + 6 * parts.sd).max()))
    km, sd, share = parts.km[order], parts.sd[order], weight[order]
    for _ in range(34):
        middle = (low + high) / 2
        under = (ndtr((middle[:, None] - km[None, :]) / sd[None, :]) * share[None, :]).sum(axis=1)
        below = under < np.array(AT)
        low, high = np.where(below, middle, low), np.where(below, high, middle)
    return Quantiles(*(max(0.0, float(one)) for one in (low + high) / 2))


def _doubted(
    parts: Parts, weight: Floats, records: tuple[Sequence[Record], Sequence[Record]], likely: float
) -> tuple[tuple[int | str, float], ...]:
    """Records that do not stand for the distance, and every other one that says the same as one of them."""
    after = np.isin(parts.kind, [KINDS.index("rolled_back"), KINDS.index("replaced")])
    slip = np.isin(parts.kind, [KINDS.index(one) for one in SLIPS])
    chances = {}
    for at, one in enumerate(records[0]):
        chance = float(weight[(after & (parts.event <= at)) | (slip & (parts.event == at))].sum())
        chances[one.on, one.km] = chance
    told = ((one.row, chances.get((one.on, one.km), 0.0)) for one in records[1])
    return tuple((row, chance) for row, chance in told if chance >= likely)


def _joined(parts: Sequence[Parts]) -> Parts:
    return Parts(*(np.concatenate([getattr(one, name) for one in parts]) for name in Parts.__slots__))


def _kept(parts: Parts, which: NDArray[np.intp]) -> Parts:
    return Parts(*(getattr(parts, name)[which] for name in Parts.__slots__))
