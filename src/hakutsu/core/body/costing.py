"""What putting blemishes right costs, summed per part without counting anything twice."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from itertools import product
from typing import Any
from uuid import UUID

from hakutsu.core.body.remedy import Remedy, remedy_table
from hakutsu.core.costs import Job
from hakutsu.vehicle.mechanics import Parts

BLEND = "blend_neighbour"
PANEL = "panel"
LOCAL = "local"


@dataclass(frozen=True, slots=True)
class Wanted:
    """A blemish with its remedy, how many like marks it is, and what widens the cost of its job."""

    entry: UUID
    remedy: Remedy
    count: int = 1
    supply: Parts = Parts.STOCKED
    seized: bool = False


@dataclass(frozen=True, slots=True)
class Cost:
    """Money, lowest, expected and highest."""

    low: float
    expected: float
    high: float

    def __add__(self, other: Cost) -> Cost:
        return Cost(self.low + other.low, self.expected + other.expected, self.high + other.high)


@dataclass(frozen=True, slots=True)
class PartCost:
    """One part: its blemishes, the chance that it is refinished whole, and what all its jobs cost together."""

    part: str
    wanted: tuple[Wanted, ...]
    refinished: float
    cost: Cost


@dataclass(frozen=True, slots=True)
class Costs:
    """All parts, blends into neighbours by the neighbour's key, and the total."""

    parts: tuple[PartCost, ...]
    blends: Mapping[str, Cost]
    total: Cost


NOTHING = Cost(0.0, 0.0, 0.0)


def costs(
    wanted: Mapping[str, Sequence[Wanted]],
    neighbours: Mapping[str, Sequence[str]],
    table: Mapping[str, Job],
    rate: Decimal,
) -> Costs:
    """Cost of all blemishes.

    Parameters
    ----------
    wanted : blemishes by part
    neighbours : painted metal panels each panel touches, those to blend into first
    table : what jobs take
    rate : labour, an hour

    Notes
    -----
    Lowest: every first remedy does. Highest: none does, and both are paid. Expected: over every way the first remedies
    of a part may turn out; those alike on one part turn out alike. A job per panel is paid once, a refinish covers what
    lies under it, and a blend into a neighbour is paid once and not at all where that is refinished itself.
    """
    parts = [_part(part, tuple(marks), table, rate) for part, marks in wanted.items() if marks]
    refinished = {one.part: one.refinished for one in parts}
    blends = _blends(refinished, {one.part: one for one in parts}, neighbours, table[BLEND], rate)
    total = sum((one.cost for one in parts), NOTHING)
    return Costs(tuple(parts), blends, sum(blends.values(), total))


def _part(part: str, marks: tuple[Wanted, ...], table: Mapping[str, Job], rate: Decimal) -> PartCost:
    alike = sorted({(m.remedy.first, m.remedy.chance, m.remedy.otherwise or "") for m in marks})
    open_ones = [one for one in alike if one[2]]
    expected = refinished = 0.0
    for fails in product((False, True), repeat=len(open_ones)):
        failed = {one for one, fail in zip(open_ones, fails, strict=True) if fail}
        chance = 1.0
        for one, fail in zip(open_ones, fails, strict=True):
            chance *= 1 - one[1] if fail else one[1]
        low, high, whole = _paid(marks, failed, table, rate)
        expected += chance * (low + high) / 2
        refinished += chance * whole
    lowest, _, _ = _paid(marks, set(), table, rate)
    _, highest, _ = _paid(marks, set(open_ones), table, rate)
    return PartCost(part, marks, refinished, Cost(lowest, expected, highest))


def _paid(
    marks: Sequence[Wanted], failed: set[tuple[str, float, str]], table: Mapping[str, Job], rate: Decimal
) -> tuple[float, float, bool]:
    """Lowest and highest of what is paid when the remedies in `failed` do not do, and whether the panel is refinished.

    Local refinishes that would cost more than the whole panel become the whole panel.
    """
    jobs: dict[str, Any] = remedy_table()["jobs"]
    done = []
    for mark in marks:
        key = (mark.remedy.first, mark.remedy.chance, mark.remedy.otherwise or "")
        done += [(mark, step) for step in (mark.remedy.steps if key in failed else mark.remedy.steps[:1])]
    keys = {step for _, step in done}
    # What a refinish covers is still paid where it was tried first and only failed.
    certain = {step for mark, step in done if step == mark.remedy.steps[0]}
    covered = {under for name in certain for under in jobs[name].get("covers", ())}
    paid = {name: _times(name, done, table, rate) for name in keys - covered if jobs[name]["job"]}
    whole = _times(PANEL, [(mark, PANEL) for mark, _ in done], table, rate)
    if LOCAL in paid and sum(paid[LOCAL]) > sum(whole):
        paid = {name: one for name, one in paid.items() if name != LOCAL} | {PANEL: whole}
    low, high = (sum(one[i] for one in paid.values()) for i in (0, 1))
    return low, high, PANEL in paid


def _times(
    name: str, done: Sequence[tuple[Wanted, str]], table: Mapping[str, Job], rate: Decimal
) -> tuple[float, float]:
    """Lowest and highest of one remedy on a part: once, or once a mark."""
    row = remedy_table()["jobs"][name]
    mine = [mark for mark, step in done if step == name]
    times = sum(mark.count for mark in mine) if row["per"] == "mark" else 1
    cheap, dear = _job(table[row["job"]], mine, rate)
    return times * cheap, times * dear


def cost_range(job: Job, marks: Sequence[Wanted], rate: Decimal, count: int = 1, further: float = 1.0) -> Cost:
    """What a job costs done so many times at once: hours of each further one are this share of the first's."""
    hours = 1 + (count - 1) * further
    low, high = _job(job, marks, rate, hours, count)
    return Cost(low, (low + high) / 2, high)


def _job(job: Job, marks: Sequence[Wanted], rate: Decimal, times: float = 1.0, pieces: int = 1) -> tuple[float, float]:
    """One job's cost, its hours so many times and materials for so many pieces; the worst supply and access of its
    marks widens it.
    """
    table = remedy_table()
    supply = [table["supply"][mark.supply.value] for mark in marks]
    material = (min((one[0] for one in supply), default=1.0), max((one[1] for one in supply), default=1.0))
    hours = table["seized"]["hours"] if any(mark.seized for mark in marks) else (1.0, 1.0)
    low, high = (
        job.figures.hours[i] * hours[i] * times * float(rate) + job.figures.materials[i] * material[i] * pieces
        for i in (0, 1)
    )
    return low, high


def _blends(
    refinished: Mapping[str, float],
    parts: Mapping[str, PartCost],
    neighbours: Mapping[str, Sequence[str]],
    job: Job,
    rate: Decimal,
) -> dict[str, Cost]:
    """Blends by the neighbour they go into: wanted when any panel beside it is refinished and it is not itself."""
    most = int(remedy_table()["blend"]["most"])
    beside: dict[str, list[str]] = {}
    for panel, chance in refinished.items():
        if chance > 0:
            for other in list(neighbours.get(panel, ()))[:most]:
                beside.setdefault(other, []).append(panel)
    cheap, dear = (float(one) for one in job.cost(rate))
    found = {}
    for other, panels in beside.items():
        none = 1.0
        for panel in panels:
            none *= 1 - refinished[panel]
        itself = refinished.get(other, 0.0)
        sure = any(refinished[panel] >= 1 for panel in panels)
        if itself >= 1:
            continue
        found[other] = Cost(
            cheap if sure and itself == 0 else 0.0,
            (1 - none) * (1 - itself) * (cheap + dear) / 2,
            dear,
        )
    return found
