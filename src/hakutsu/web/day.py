"""The day: inspections as a working list, those of today first, with what comes next in each and what waits."""

from __future__ import annotations

import time
from dataclasses import dataclass
from datetime import datetime
from itertools import islice
from typing import Annotated
from urllib.parse import urlencode

from fastapi import APIRouter, Query, Request
from fastapi.responses import RedirectResponse, Response
from sqlalchemy.exc import DBAPIError

from hakutsu.logbook.ends import End
from hakutsu.reckoning import terms
from hakutsu.web.desk import Desk, DeskHere, Unshown
from hakutsu.web.paging import SHOWN, Number, Part
from hakutsu.web.rendering import page
from hakutsu.web.station import Phase
from hakutsu.web.summary import Show, Summary, reckoned_summary

FAULTS = 10
SECONDS_OF_FEW = 5.0  # of many, those that were not reckoned yet say what is known at a glance
Words = Annotated[str, Query(max_length=120)]
router = APIRouter()


@dataclass(frozen=True, slots=True)
class DayGroup:
    """Inspections under one heading, in the order they are worked on."""

    name: str
    rows: tuple[Summary, ...]


@router.get("/")
def day(request: Request, desk: DeskHere, start: Number = None, show: str = "", q: Words = "") -> Response:
    """Inspections, fifty at a time: today's, then open ones, then those that are done."""
    first = start or 1
    wanted = next((one for one in Show if one.value == show), Show.LISTED)
    try:
        found, count = desk.summaries.page(first - 1, SHOWN, wanted, q)
    except DBAPIError:  # a damaged database: whatever of it can be reached
        found = [Summary(one, End(0, ""), "") for one in desk.logbook.inspections()][first - 1 : first - 1 + SHOWN]
        count = first - 1 + len(found)
    if first > max(count, 1):
        return RedirectResponse("/", 303)
    rows, unshown = _rows(desk, found, count)
    names = {row.inspection: row.vehicle for row in rows}
    every = desk.integrity.faults()
    faults = [(one, names.get(one, "one inspection"), fault) for one, fault in islice(every.items(), FAULTS)]
    kept = urlencode({key: value for key, value in (("show", show), ("q", q)) if value})
    return page(
        request, "day.html", groups=groups(rows, desk), unshown=unshown, faults=faults,
        more_faults=len(every) - len(faults), part=Part(first, first - 1 + len(found), count), show=wanted,
        shows=list(Show), q=q, kept=f"&{kept}" if kept else "",
        phases={one.value: str(one) for one in Phase}, empty=not count and wanted is Show.LISTED and not q,
    )  # fmt: skip


def _rows(desk: Desk, found: list[Summary], count: int) -> tuple[list[Summary], list[Unshown]]:
    """Summaries to be shown, reckoned where there are few, and those that cannot be."""
    until = time.monotonic() + SECONDS_OF_FEW if count <= SHOWN else 0.0
    rows, unshown = list[Summary](), list[Unshown]()
    for one in found:
        row = one if (one.reckoned and not one.fault) or time.monotonic() > until else _reckoned(desk, one)
        if isinstance(row, Unshown):
            unshown.append(row)
        elif row is not None and row.vehicle:
            rows.append(row)
    return rows, unshown


def groups(rows: list[Summary], desk: Desk) -> list[DayGroup]:
    """Rows under Today, Open, Done and Archived; headings without any are left out."""
    clock = terms(desk.settings)
    today = clock.local(desk.now()).date()

    def heading(row: Summary) -> str:
        if row.finished:
            return "Archived" if row.archived else "Done"
        try:
            at = clock.local(datetime.fromisoformat(row.worked_on[0])).date()
        except ValueError:
            return "Open"
        return "Today" if at == today else "Open"

    told = [(heading(row), row) for row in rows]
    return [
        DayGroup(name, tuple(row for mine, row in told if mine == name))
        for name in dict.fromkeys(("Today", "Open", "Done", "Archived"))
        if any(mine == name for mine, _ in told)
    ]


def _reckoned(desk: Desk, one: Summary) -> Summary | Unshown | None:
    """The summary of an inspection as it is reckoned now, or why it cannot be shown; none where it never began."""
    reckoned = desk.attempt(
        one.inspection, lambda each: reckoned_summary(desk.reckoning(each), one.end, one.opened_at, desk.now())
    )
    if reckoned is not None:
        return reckoned
    if desk.attempt(one.inspection, lambda each: desk.reckoned(each).dossier.unread):
        return Unshown(one.inspection, "what it begins with cannot be read")
    return None
