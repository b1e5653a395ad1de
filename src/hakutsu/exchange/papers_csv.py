"""Dated marks as CSV, and what was made of numbers and dates as JSON."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import Any

from hakutsu.core.papers.dates import KINDS, BadTable, Cluster, Dated, Interval, Mark, clusters, decode, judged
from hakutsu.core.papers.identity import Identity
from hakutsu.exchange.bad_file import BadFile, csv_rows

COLUMNS = ("mark", "place", "kind", "text", "table")
BUILD = "build"
MOST_MARKS = 10_000


class BadMarks(BadFile):
    """A file of marks that cannot be."""


@dataclass(frozen=True, slots=True)
class DatesRead:
    """Marks held against the build date, which is none where it is not told or cannot be read."""

    build: Interval | None
    marks: tuple[Dated, ...]
    clusters: tuple[Cluster, ...]


def read_dates(data: bytes, today: date) -> DatesRead:
    """Read and judge a file of marks.

    Raises
    ------
    BadMarks
        With every fault, each with its row (the header is row 1).
    """
    marks, builds = _marks(data, today)
    build = next(iter(decode(builds[0], today)), None) if builds else None
    dated = tuple(judged(marks, build, today))
    return DatesRead(build, dated, tuple(clusters(dated, built=build is not None)))


def _marks(data: bytes, today: date) -> tuple[list[Mark], list[Mark]]:
    faults: list[str] = []
    marks: list[Mark] = []
    builds: list[Mark] = []
    for number, cells in csv_rows(data, COLUMNS, MOST_MARKS, BadMarks):
        mark = Mark(**dict(zip(COLUMNS, cells, strict=True)))
        faults += [f"row {number}, {one}" for one in _wrong(mark, builds, today)]
        (builds if mark.mark == BUILD else marks).append(mark)
    if faults:
        raise BadMarks(faults)
    return marks, builds


def _wrong(mark: Mark, builds: list[Mark], today: date) -> list[str]:
    found = []
    if not mark.mark:
        found.append("mark: nothing there")
    if mark.kind not in KINDS:
        return [*found, f"kind “{mark.kind[:40]}”: one of {', '.join(KINDS)}"]
    if mark.mark == BUILD and mark.kind != "plain":
        found.append(f"kind “{mark.kind}”: the build date is plain")
    if mark.mark == BUILD and builds:
        found.append("mark “build”: twice")
    try:
        decode(mark, today)
    except BadTable as error:
        found.append(f"table “{mark.table[:60]}”: {error}")
    return found


def dates_json(read: DatesRead) -> dict[str, Any]:
    """Marks as the command line gives them."""
    return {
        "build": _days(read.build) if read.build else None,
        "marks": [
            {
                "mark": one.mark.mark, "place": one.mark.place, "kind": one.mark.kind, "text": one.mark.text,
                "intervals": [_days(interval) for interval in one.intervals], "verdict": one.verdict,
            }
            for one in read.marks
        ],
        "clusters": [{"place": one.place, "marks": list(one.marks)} for one in read.clusters],
    }  # fmt: skip


def _days(interval: Interval) -> list[str]:
    return [day.isoformat() for day in interval]


def identity_json(read: Identity) -> dict[str, Any]:
    """A number as the command line gives it."""
    check = read.check_digit
    return {
        "text": read.text,
        "characters": read.characters,
        "valid_characters": read.valid_characters,
        "check_digit": {"enforced": None, "expected": check.expected, "found": check.found, "agrees": check.agrees},
        "model_year_candidates": list(read.model_years),
        "region": read.region,
        "problems": [f"{code}: {words}" for code, words in read.problems],
        "suggestions": list(read.suggestions),
    }
