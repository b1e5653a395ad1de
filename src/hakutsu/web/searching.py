"""Search over all inspections."""

from __future__ import annotations

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import Response

from hakutsu.report.searching import LONGEST_SEARCH, Found, search
from hakutsu.web.desk import Desk, DeskHere
from hakutsu.web.rendering import page

MOST = 20
router = APIRouter()


def _find(desk: Desk, asked: str) -> list[Found]:
    found = []
    for inspection in desk.logbook.inspections():
        try:
            reckoning = desk.reckoning(inspection)
            one = search(reckoning.dossier, asked, reckoning.terms)
        except HTTPException:
            continue  # opened, but its first entry never arrived
        if one is not None:
            found.append(one)
    return sorted(found, key=lambda one: not one.itself)


@router.get("/search")
def show_search(request: Request, desk: DeskHere, q: str = "") -> Response:
    """What holds every word asked for: vehicles and buyers first, then findings."""
    asked = " ".join(q.split())
    fault = f"At most {LONGEST_SEARCH} characters; this has {len(asked):,}." if len(asked) > LONGEST_SEARCH else ""
    found = [] if fault or not asked else _find(desk, asked)
    context = {"asked": asked[:LONGEST_SEARCH], "found": found, "most": MOST, "fault": fault}
    return page(request, "search.html", status=422 if fault else 200, **context)
