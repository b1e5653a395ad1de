"""Several vehicles of one visit: what holds for all of them is noted once, and the gauge is checked once."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Form, HTTPException
from fastapi.responses import RedirectResponse, Response

from hakutsu.dossier import Dossier
from hakutsu.entries import Draft
from hakutsu.entries.day import Arrival
from hakutsu.entries.film import VerifiedWhen
from hakutsu.web.desk import Desk, DeskHere
from hakutsu.web.summary import Show, Summary

router = APIRouter()
SHARED = ("weather", "light", "indoors", "there", "surroundings_c")  # of the yard, not of one vehicle in it
WITHIN = timedelta(hours=10)
MOST = 5


def others_today(desk: Desk, inspection: UUID, now: datetime) -> list[Summary]:
    """Unfinished inspections worked on in the last hours: what may be the same visit."""
    recent, _ = desk.summaries.page(0, 4 * MOST, Show.OPEN)
    return [
        one for one in recent
        if one.inspection != inspection and one.vehicle and one.last_at
        and timedelta(0) <= now - datetime.fromisoformat(one.last_at) <= WITHIN
    ][:MOST]  # fmt: skip


def shared(other: Dossier, mine: Dossier, now: datetime) -> list[Draft]:
    """What one vehicle of a visit takes from another: weather, light, who is there, and the gauge check at the start.

    Nothing that was noted here already is noted again.
    """
    drafts = []
    arrival, noted = other.day.arrival, mine.day.arrival
    known = arrival.model_dump(mode="json", include=set(SHARED), exclude_defaults=True) if arrival else {}
    if known and noted is None:
        drafts.append(Draft.write("day.arrival", Arrival.model_validate(known), now))
    check = other.film.verifications.get(VerifiedWhen.START)
    if check is not None and not mine.film.verifications and not mine.film.readings:
        if mine.film.gauge != other.film.gauge:
            drafts.append(Draft.write("film.gauge", other.film.gauge, now))
        drafts.append(Draft.write("film.verification", check.body, check.at))
    return drafts


@router.post("/inspections/{inspection}/visit")
def same_visit(inspection: UUID, desk: DeskHere, of: Annotated[UUID, Form()]) -> Response:
    """Take over what holds for every vehicle of the visit."""
    if of == inspection or not desk.logbook.holds(of):
        raise HTTPException(404, "There is no such inspection to take it from.")
    mine, now = desk.reckoning(inspection).dossier, desk.now()
    other = desk.reckoning(of).dossier
    drafts = shared(other, mine, now)
    if not drafts:
        raise HTTPException(409, f"Nothing to take over: {other.vehicle.name} has no arrival and no gauge check yet.")
    desk.logbook.append(inspection, drafts, desk.author)
    return RedirectResponse(f"/inspections/{inspection}/arrival", 303)
