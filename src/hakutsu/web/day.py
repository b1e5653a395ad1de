"""The day: inspections with what is left in each."""

from __future__ import annotations

import time
from itertools import islice
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from sqlalchemy.exc import DBAPIError

from hakutsu.logbook.ends import End
from hakutsu.web.desk import Desk, DeskHere, Unshown
from hakutsu.web.paging import SHOWN, Number, Part
from hakutsu.web.rendering import page
from hakutsu.web.summary import Summary, reckoned_summary

FAULTS = 10
SECONDS_OF_FEW = 5.0  # of many, those that were not reckoned yet say what is known at a glance
router = APIRouter()


@router.get("/")
def day(request: Request, desk: DeskHere, start: Number = None) -> Response:
    """Inspections, fifty at a time, unfinished ones first."""
    first = start or 1
    try:
        found, count = desk.summaries.page(first - 1, SHOWN)
    except DBAPIError:  # a damaged database: whatever of it can be reached
        found = [Summary(one, End(0, ""), "") for one in desk.logbook.inspections()][first - 1 : first - 1 + SHOWN]
        count = first - 1 + len(found)
    if first > max(count, 1):
        return RedirectResponse("/", 303)
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
    part = Part(first, first - 1 + len(found), count)
    more = len(every) - len(faults)
    return page(request, "day.html", rows=rows, unshown=unshown, faults=faults, more_faults=more, part=part)


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
