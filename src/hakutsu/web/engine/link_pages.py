"""Routes of the scan link, and of what is asked before a doubtful number is stored."""

from __future__ import annotations

from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, HTTPException, Request
from pydantic import BaseModel, Field

from hakutsu.core.engine.doubts import doubts
from hakutsu.instruments.diagnostic.bus import NoLink
from hakutsu.instruments.diagnostic.simulated_engine import engines
from hakutsu.vehicle.terms import Terms
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.engine.link import ScanSession, ScanSessions

router = APIRouter()


class Opening(BaseModel):
    """An adapter's address, or none for the stand-in: which engine, and how much faster than the clock it runs."""

    url: Annotated[str, Field(max_length=200)] = ""
    engine: str = "healthy"
    fast: Annotated[float, Field(ge=0.1, le=600)] = 1.0


class Idle(BaseModel):
    """Conditions of the speeds about to be taken."""

    switched: bool = False
    carburettor: bool = False


class Asked(BaseModel):
    """A draft about to be stored."""

    kind: Annotated[str, Field(max_length=40)]
    body: dict[str, Any]


def _session(request: Request, inspection: UUID) -> ScanSession:
    sessions: ScanSessions = request.app.state.scans
    return sessions.of(inspection)


def _shown(session: ScanSession, terms: Terms) -> dict[str, Any]:
    """The state with its numbers in the reader's words."""
    state, now = session.state(), session.now
    told = []
    if now.get("minute") is not None:
        told.append(f"minute {now['minute']:.1f}")
    if now.get("coolant_c") is not None:
        told.append(f"coolant {terms.quantity('temperature', now['coolant_c'] or 0.0)}")
    if now.get("rpm") is not None:
        told.append(f"{now['rpm']:.0f} rpm")
    return state | {"words": ", ".join(told)}


@router.get("/inspections/{inspection}/engine/link")
def link_state(request: Request, inspection: UUID, reckoning: ReckoningHere) -> dict[str, Any]:
    """The link as it stands."""
    return _shown(_session(request, inspection), reckoning.terms)


@router.post("/inspections/{inspection}/engine/link")
def open_link(request: Request, inspection: UUID, opening: Opening, reckoning: ReckoningHere) -> dict[str, Any]:
    """Open the link."""
    session = _session(request, inspection)
    if not opening.url and opening.engine not in engines():
        raise HTTPException(422, f"There is no such stand-in; there are {', '.join(engines())}.")
    try:
        if opening.url:
            session.open(opening.url)
        else:
            session.open_stand_in(opening.engine, opening.fast)
    except NoLink as trouble:
        raise HTTPException(503, str(trouble)) from trouble
    return _shown(session, reckoning.terms)


@router.delete("/inspections/{inspection}/engine/link")
def close_link(request: Request, inspection: UUID, reckoning: ReckoningHere) -> dict[str, Any]:
    """Close the link and end the stand-in."""
    session = _session(request, inspection)
    session.close()
    return _shown(session, reckoning.terms)


@router.post("/inspections/{inspection}/engine/link/idle")
def record_idle(request: Request, inspection: UUID, idle: Idle, reckoning: ReckoningHere) -> dict[str, Any]:
    """Take speeds at idle."""
    session = _session(request, inspection)
    try:
        session.record_idle(switched=idle.switched, carburettor=idle.carburettor)
    except NoLink as trouble:
        raise HTTPException(409, str(trouble)) from trouble
    return _shown(session, reckoning.terms)


@router.post("/inspections/{inspection}/engine/doubts")
def ask(asked: Asked, reckoning: ReckoningHere, desk: DeskHere) -> list[dict[str, str]]:
    """What is doubtful in a draft, by field; nothing is stored."""
    found = doubts(asked.kind, asked.body, reckoning.engine.so_far(desk.now()))
    return [{"field": one.field, "message": reckoning.terms.say(one.words)} for one in found]
