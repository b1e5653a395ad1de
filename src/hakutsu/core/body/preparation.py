"""The preparation list: what anyone would do to make it right, in the jobs a workshop sells; apart from negotiation."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from types import MappingProxyType

from hakutsu.core.body.costing import BLEND, NOTHING, Cost, Wanted, cost_range
from hakutsu.core.body.remedy import remedy_table
from hakutsu.core.costs import Job
from hakutsu.vehicle.tables import Number, Row, Table, read_table

EMPTY: Mapping[str, Sequence[str]] = MappingProxyType({})
REFINISHED = ("panel_refinish", "panel_replace")
POLISH, WHOLE, CLEAN, VALET = "polish_panel", "polish_whole", "clean", "valet"


class _Usual(Row):
    further: Number
    whole_from: int
    chance_from: Number


class _Ordered(Row):
    one: str
    many: str
    further: Number | None = None


class _Preparation(Table):
    usual: _Usual
    job: dict[str, _Ordered]


@dataclass(frozen=True, slots=True)
class Piece:
    """One piece of work: the job of the cost table, where, how many of it, and the marks whose parts or fixings widen
    its cost.
    """

    job: str
    place: str
    count: int = 1
    marks: tuple[Wanted, ...] = ()


@dataclass(frozen=True, slots=True)
class Ordered:
    """A job as it is ordered: what, in words, how many, where, and what it costs."""

    job: str
    words: str
    count: int
    places: tuple[str, ...]
    cost: Cost


def _table() -> _Preparation:
    return read_table("core.body", "preparation", _Preparation)


def pieces(wanted: Mapping[str, Sequence[Wanted]], neighbours: Mapping[str, Sequence[str]] = EMPTY) -> list[Piece]:
    """Work on the marks of each part: what one would order, each job once, less what a larger one takes in.

    Parameters
    ----------
    wanted : marks with their remedies by part
    neighbours : painted metal panels each panel touches, those to blend into first
    """
    jobs, found = remedy_table()["jobs"], list[Piece]()
    for part, marks in wanted.items():
        chosen = [(mark, _chosen(mark)) for mark in marks]
        steps = {step for _, step in chosen}
        taken_in = {under for step in steps for under in jobs[step].get("covers", ())}
        for step in sorted(steps - taken_in):
            mine = tuple(mark for mark, one in chosen if one == step)
            count = sum(mark.count for mark in mine) if jobs[step]["per"] == "mark" else 1
            if jobs[step]["job"]:
                found.append(Piece(jobs[step]["job"], part, count, mine))
    painted = {piece.place for piece in found if piece.job in REFINISHED}
    most = int(remedy_table()["blend"]["most"])
    blends = dict.fromkeys(key for panel in painted for key in neighbours.get(panel, ())[:most] if key not in painted)
    return found + [Piece(BLEND, key) for key in sorted(blends)]


def _chosen(mark: Wanted) -> str:
    other = mark.remedy.otherwise
    return mark.remedy.first if other is None or mark.remedy.chance >= _table().usual.chance_from else other


def preparation(
    found: Iterable[Piece], table: Mapping[str, Job], rate: Decimal, *, dirty: bool = False
) -> list[Ordered]:
    """The list: pieces of a kind together, the dearest first.

    Parameters
    ----------
    found : pieces of work, in any order
    table : what jobs take
    rate : labour, an hour
    dirty : something inside wants cleaning, so that a valet is ordered
    """
    by_job: dict[str, list[Piece]] = {}
    for piece in dict.fromkeys(found):
        by_job.setdefault(piece.job, []).append(piece)
    if len(by_job.get(POLISH, ())) >= _table().usual.whole_from:
        by_job[WHOLE] = by_job.pop(POLISH)
    if dirty or CLEAN in by_job:
        by_job[VALET] = by_job.pop(CLEAN, [Piece(VALET, "")])
    ordered = [_ordered(job, mine, table, rate) for job, mine in by_job.items()]
    return sorted(ordered, key=lambda one: (-one.cost.expected, one.job))


def _ordered(job: str, mine: Sequence[Piece], table: Mapping[str, Job], rate: Decimal) -> Ordered:
    row = _table().job.get(job)
    further = float(row.further if row is not None and row.further is not None else _table().usual.further)
    places = tuple(dict.fromkeys(piece.place for piece in mine if piece.place))
    once = job in (WHOLE, VALET)
    count = 1 if once else sum(piece.count for piece in mine)
    marks = [mark for piece in mine for mark in piece.marks]
    cost = cost_range(table[job], marks, rate, count, further)
    words = table[job].name if row is None else row.one if count == 1 else row.many.replace("{n}", str(count))
    return Ordered(job, words, count, () if once else places, cost)


def total(ordered: Iterable[Ordered]) -> Cost:
    """All of it together."""
    return sum((one.cost for one in ordered), NOTHING)
