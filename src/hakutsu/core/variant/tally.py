"""Whether a vehicle is what it is said to be: features weighed by Bayes, and what would tell most."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cache
from math import log, log2

from pydantic import Field

from hakutsu.core.findings import Finding, found
from hakutsu.core.papers.dates import Interval
from hakutsu.entries.variant import FeatureSeen, Result, WeakResult, WeakSeen
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.library import FeatureRow, WeakRow, Weight
from hakutsu.vehicle.tables import Number, Row, Table, read_table

VARIANT = "variant"


class ChanceRow(Row):
    """`chance` of weights.toml."""

    prior: Number
    doubt: Number
    question: Number


class WeightRow(Row):
    """`weight` of weights.toml."""

    is_: Number = Field(alias="is")
    other: Number


class WeightsTable(Table):
    """weights.toml."""

    chance: ChanceRow
    weight: dict[str, WeightRow]


@cache
def weights() -> WeightsTable:
    """How much features tell."""
    return read_table("core.variant", "weights", WeightsTable)


class Window(Keyed):
    """How a feature's months lie to the build date."""

    WITHIN = "within", "expected"
    MAYBE = "maybe", "either way: it changed about then"
    OUTSIDE = "outside", "not of its time"


@dataclass(frozen=True, slots=True)
class FeatureStands:
    """A feature, how its months lie, how it was found, and whether that counts."""

    row: FeatureRow
    window: Window
    seen: FeatureSeen | None
    counts: bool
    tells: float  # bits that looking would bring

    @property
    def open(self) -> bool:
        """Whether nobody looked at it."""
        return self.seen is None


@dataclass(frozen=True, slots=True)
class Tally:
    """Chance of being what it is said to be, every feature, the one that tells most, pairs that shut each other out."""

    chance: float
    features: tuple[FeatureStands, ...]
    best: FeatureStands | None
    excluding: tuple[tuple[FeatureRow, FeatureRow], ...]


def window(row: FeatureRow, built: Interval | None) -> Window:
    """How the months of a feature lie to the build date; without one anything may be."""
    if not row.since and not row.until:
        return Window.WITHIN
    if built is None:
        return Window.MAYBE
    begins = _month(row.since, last=False) if row.since else date.min
    ends = _month(row.until, last=True) if row.until else date.max
    if built[1] < begins or built[0] > ends:
        return Window.OUTSIDE
    return Window.WITHIN if begins <= built[0] and built[1] <= ends else Window.MAYBE


def _month(said: str, *, last: bool) -> date:
    year, month = (int(one) for one in (said if "-" in said else f"{said}-{12 if last else 1}").split("-"))
    return date(year, month, 28 if last else 1)


def tally(rows: Sequence[FeatureRow], seen: Mapping[str, FeatureSeen], built: Interval | None) -> Tally:
    """Weigh what was found.

    Of an assembly the most telling feature counts alone. What cannot be seen, was replaced, or is not of the time it
    was built tells nothing; one that changed about then tells only where it agrees.
    """
    prior = float(weights().chance.prior)
    order = list(Weight)
    odds, used, stood = log(prior / (1 - prior)), set[str](), list[FeatureStands]()
    for row in sorted(rows, key=lambda one: order.index(one.weight)):
        lies, told = window(row, built), seen.get(row.key)
        weighs = _weighs(row, lies, told)
        counts = weighs is not None and (row.assembly is None or row.assembly not in used)
        if counts and weighs is not None:
            odds += weighs
            if row.assembly:
                used.add(row.assembly)
        stood.append(FeatureStands(row, lies, told, counts, 0.0))
    chance = 1 / (1 + pow(2.718281828459045, -odds))
    known = tuple(
        FeatureStands(one.row, one.window, one.seen, one.counts, _tells(one, chance, used)) for one in _as(rows, stood)
    )
    best = max((one for one in known if one.open and one.tells > 0), key=lambda one: one.tells, default=None)
    return Tally(chance, known, best, tuple(_excluding(rows, seen)))


def _as(rows: Sequence[FeatureRow], stood: Sequence[FeatureStands]) -> list[FeatureStands]:
    by = {one.row.key: one for one in stood}
    return [by[row.key] for row in rows]


def _weighs(row: FeatureRow, lies: Window, told: FeatureSeen | None) -> float | None:
    """Log of the likelihood ratio; none where it tells nothing."""
    if told is None or lies is Window.OUTSIDE or told.result not in (Result.AGREES, Result.DISAGREES):
        return None
    weight = weights().weight[row.weight.value]
    if told.result is Result.AGREES:
        return log(float(weight.is_) / float(weight.other))
    return None if lies is Window.MAYBE else log((1 - float(weight.is_)) / (1 - float(weight.other)))


def _tells(one: FeatureStands, chance: float, used: set[str]) -> float:
    """Expected gain of looking at an open feature [bit]."""
    if not one.open or one.window is not Window.WITHIN or (one.row.assembly and one.row.assembly in used):
        return 0.0
    weight = weights().weight[one.row.weight.value]
    agrees = chance * float(weight.is_) + (1 - chance) * float(weight.other)
    after = chance * float(weight.is_) / agrees, chance * (1 - float(weight.is_)) / (1 - agrees)
    return _entropy(chance) - agrees * _entropy(after[0]) - (1 - agrees) * _entropy(after[1])


def _entropy(chance: float) -> float:
    return -sum(one * log2(one) for one in (chance, 1 - chance) if one > 0)


def _excluding(rows: Sequence[FeatureRow], seen: Mapping[str, FeatureSeen]) -> list[tuple[FeatureRow, FeatureRow]]:
    there = {row.key: row for row in rows if row.key in seen and seen[row.key].result is Result.AGREES}
    pairs = {
        tuple(sorted((row.key, other))): (row, there[other])
        for row in there.values() for other in row.excludes if other in there
    }  # fmt: skip
    return list(pairs.values())


def variant_found(told: Tally, name: str) -> list[Finding]:
    """What the tally comes to."""
    row, findings = weights().chance, list[Finding]()
    against = [
        f"{one.row.name}: {one.seen.found or 'disagrees'}, expected {one.row.expected}"
        for one in told.features if one.seen is not None and one.counts and one.seen.result is Result.DISAGREES
    ]  # fmt: skip
    if told.chance < float(row.doubt):
        words = f"features disagree with {name}"
        findings.append(found("variant.doubt", VARIANT, words, against, sureness=1 - told.chance))
    elif against and told.chance < float(row.question):
        words = f"not everything agrees with {name}"
        findings.append(found("variant.question", VARIANT, words, against, sureness=1 - told.chance))
    elif against:
        findings.append(found("variant.differs", VARIANT, f"parts that {name} was not built with", against))
    for one, other in told.excluding:
        words = f"{one.name} and {other.name} shut each other out, and both are there"
        findings.append(found("variant.excluding", VARIANT, words))
    return findings


def weak_found(rows: Sequence[WeakRow], seen: Mapping[str, WeakSeen]) -> list[tuple[Finding, str]]:
    """Weak points that have come, each with its key."""
    told = []
    for row in rows:
        if row.key in seen and seen[row.key].result is WeakResult.FOUND:
            note = seen[row.key].note
            words = f"known weak point found: {row.name}" + (f", {note}" if note else "")
            told.append((found("variant.weak_found", row.place or VARIANT, words), row.key))
    return told
