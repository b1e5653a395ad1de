"""The day: inspections with what is left in each."""

from __future__ import annotations

import time
from itertools import islice
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Request
from fastapi.responses import RedirectResponse, Response
from sqlalchemy.exc import DBAPIError

from hakutsu.logbook.ends import End
from hakutsu.web.desk import Desk, DeskHere, Unshown
from hakutsu.web.rendering import page
from hakutsu.web.summary import Summary, reckoned_summary

SHOWN, FAULTS = 50, 10
SECONDS_OF_FEW = 5.0  # of many, those that were not reckoned yet say what is known at a glance
router = APIRouter()


@router.get("/")
def day(request: Request, desk: DeskHere, start: Annotated[int, Query(ge=0, le=10**9)] = 0) -> Response:
    """Inspections, fifty at a time, unfinished ones first."""
    try:
        found, count = desk.summaries.page(start, SHOWN)
    except DBAPIError:  # a damaged database: whatever of it can be reached
        found = [Summary(one, End(0, ""), "") for one in desk.logbook.inspections()][start : start + SHOWN]
        count = start + len(found)
    until = time.monotonic() + SECONDS_OF_FEW if count <= SHOWN else 0.0
    rows, unshown = list[Summary](), list[Unshown]()
    for one in found:
        row = one if (one.reckoned and not one.fault) or time.monotonic() > until else _reckoned(desk, one)
        if isinstance(row, Unshown):
            unshown.append(row)
        elif row is not None and row.vehicle:
            rows.append(row)
    names = {row.inspection: row.vehicle for row in rows}
    every = desk.integrity.faults()
    faults = [(one, names.get(one, "one inspection"), fault) for one, fault in islice(every.items(), FAULTS)]
    shown = {"first": start + 1, "last": start + len(found), "count": count, "step": SHOWN}
    more = len(every) - len(faults)
    return page(request, "day.html", rows=rows, unshown=unshown, faults=faults, more_faults=more, shown=shown)


def _reckoned(desk: Desk, one: Summary) -> Summary | Unshown | None:
    """The summary of an inspection as it is reckoned now, or why it cannot be shown; none where it never began."""
    reckoned = desk.attempt(one.inspection, lambda each: reckoned_summary(desk.reckoning(each), one.end, one.opened_at))
    if reckoned is not None:
        return reckoned
    if desk.attempt(one.inspection, lambda each: desk.reckoned(each).dossier.unread):
        return Unshown(one.inspection, "what it begins with cannot be read")
    return None


@router.get("/inspections/{inspection}")
def inspection(inspection: UUID) -> Response:
    """An inspection opens at its film station."""
    return RedirectResponse(f"/inspections/{inspection}/film", 303)
