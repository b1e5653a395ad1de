"""Routes of the gauge: its link and stand-in, its news as server-sent events, and the gauges that are kept."""

from __future__ import annotations

import asyncio
import json
from collections.abc import AsyncIterator
from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Form, HTTPException, Request
from fastapi.responses import RedirectResponse, Response, StreamingResponse
from pydantic import BaseModel, Field, ValidationError

from hakutsu.entries.film import Fraction, GaugeInUse
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.units import to_um
from hakutsu.vehicle.vocabulary import Unit
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.film.aiming import Aim, next_aim
from hakutsu.web.film.link import GaugeSession, GaugeSessions, LinkTrouble
from hakutsu.web.rendering import page

router = APIRouter()
LOOK_SECONDS = 0.12
EMPTY = {"name": "", "unit": "um", "step": "", "limit": ""}
KEEP_ALIVE_LOOKS = 100


def _session(request: Request, inspection: UUID) -> GaugeSession:
    sessions: GaugeSessions = request.app.state.gauges
    return sessions.of(inspection)


class Opening(BaseModel):
    """Which gauge to open: a pyserial URL, or none for the stand-in."""

    url: Annotated[str, Field(max_length=200)] = ""
    follows: bool = False


class Aimed(BaseModel):
    """Where the probe is: with `probe` the stand-in reads there at once."""

    panel: str
    u: Fraction | None = None
    v: Fraction | None = None
    probe: bool = False


@router.post("/inspections/{inspection}/film/link")
def open_link(request: Request, inspection: UUID, opening: Opening, _: ReckoningHere) -> dict[str, Any]:
    """Open the link; the answer is its state, and whatever follows comes as news."""
    session = _session(request, inspection)
    try:
        if opening.url:
            session.open(opening.url, follows=opening.follows)
        else:
            session.open_stand_in()
    except LinkTrouble as trouble:
        raise HTTPException(503, str(trouble)) from trouble
    return session.state()


@router.delete("/inspections/{inspection}/film/link")
def close_link(request: Request, inspection: UUID) -> dict[str, Any]:
    """Close the link and end the stand-in."""
    session = _session(request, inspection)
    session.close()
    return session.state()


@router.post("/inspections/{inspection}/film/link/aim")
def aim(request: Request, inspection: UUID, aimed: Aimed, reckoning: ReckoningHere) -> dict[str, Any]:
    """Aim the next reading; open repeats of that panel are repeated first."""
    if aimed.panel not in panels():
        raise HTTPException(422, f"“{aimed.panel}” is not a panel")
    session = _session(request, inspection)
    wanted = next_aim(reckoning, aimed.panel)
    repeats = wanted.repeats if wanted is not None and wanted.panel == aimed.panel and not aimed.probe else None
    try:
        session.take_aim(Aim(aimed.panel, aimed.u, aimed.v, repeats), probe=aimed.probe)
    except LinkTrouble as trouble:
        raise HTTPException(409, str(trouble)) from trouble
    return session.state()


@router.post("/inspections/{inspection}/film/link/walk")
def walk(request: Request, inspection: UUID) -> dict[str, Any]:
    """Let the stand-in walk the protocol."""
    session = _session(request, inspection)
    try:
        session.walk()
    except LinkTrouble as trouble:
        raise HTTPException(409, str(trouble)) from trouble
    return session.state()


@router.delete("/inspections/{inspection}/film/link/walk")
def stop_walk(request: Request, inspection: UUID) -> dict[str, Any]:
    """Stop the walk."""
    session = _session(request, inspection)
    session.stop_walk()
    return session.state()


@router.get("/inspections/{inspection}/film/link/news")
async def news(request: Request, inspection: UUID) -> StreamingResponse:
    """The link's news as server-sent events, from now on; a page that comes back names the last one it saw."""
    session = _session(request, inspection)
    asked = request.headers.get("last-event-id", "")
    seen = int(asked) if asked.isdigit() and int(asked) <= session.last else session.last
    headers = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}
    return StreamingResponse(_stream(session, seen), media_type="text/event-stream", headers=headers)


async def _stream(session: GaugeSession, seen: int) -> AsyncIterator[str]:
    yield f"data: {json.dumps(session.state())}\n\n"
    quiet = 0
    while True:
        for number, said in session.since(seen):
            seen, quiet = number, 0
            yield f"id: {number}\ndata: {json.dumps(said)}\n\n"
        quiet += 1
        if quiet % KEEP_ALIVE_LOOKS == 0:
            yield ": still here\n\n"
        await asyncio.sleep(LOOK_SECONDS)


@router.get("/gauges")
def show_gauges(request: Request, desk: DeskHere) -> Response:
    """The gauges that are kept, with their last verification."""
    return page(
        request, "gauges.html", gauges=desk.logbook.library.gauges(desk.summaries.verified()), values=EMPTY, fault=""
    )


@router.post("/gauges")
def keep_gauge(
    request: Request,
    desk: DeskHere,
    name: Annotated[str, Form()] = "",
    unit: Annotated[str, Form()] = "um",
    step: Annotated[str, Form()] = "",
    limit: Annotated[str, Form()] = "",
) -> Response:
    """Keep a gauge; what was typed stays when a field is wrong."""
    values = {"name": name, "unit": unit, "step": step, "limit": limit}
    try:
        shown = Unit(unit)
        step_um, limit_um = (to_um(float(text.replace(",", "")), shown) for text in (step, limit))
        gauge = GaugeInUse(name=name, unit=shown, step_um=step_um, limit_um=limit_um)
    except ValidationError as error:
        first = error.errors()[0]
        fault = f"{str(first['loc'][0]).removesuffix('_um')}: {first['msg']}"
    except ValueError:
        fault = "Step and range are numbers in the unit the gauge shows."
    else:
        desk.logbook.library.keep_gauge(gauge)
        return RedirectResponse("/gauges", 303)
    gauges = desk.logbook.library.gauges(desk.summaries.verified())
    return page(request, "gauges.html", status=422, gauges=gauges, values=values, fault=fault)


@router.post("/gauges/{gauge}/drop")
def drop_gauge(desk: DeskHere, gauge: int) -> Response:
    """Keep a gauge no longer."""
    desk.logbook.library.drop_gauge(gauge)
    return RedirectResponse("/gauges", 303)
