"""Timers: begun, looked at and stopped by plain forms that lead back to the page they stood on."""

from __future__ import annotations

from urllib.parse import urlsplit
from uuid import UUID

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response
from pydantic import ValidationError
from starlette.routing import Match

from hakutsu.entries import Draft
from hakutsu.entries.registry import Body
from hakutsu.entries.timers import TimerLooked, TimerStarted, TimerStopped
from hakutsu.web.desk import DeskHere, ReckoningHere

router = APIRouter()
KINDS: dict[str, tuple[str, type[Body]]] = {
    "start": ("timer.started", TimerStarted),
    "look": ("timer.looked", TimerLooked),
    "stop": ("timer.stopped", TimerStopped),
}


@router.post("/inspections/{inspection}/timers/{act}")
async def act_on_timer(request: Request, inspection: UUID, act: str, desk: DeskHere, _: ReckoningHere) -> Response:
    """Begin a watch, note a look at it, or end it."""
    if act not in KINDS:
        raise HTTPException(404, "A timer is started, looked at or stopped.")
    kind, model = KINDS[act]
    form = {key: str(value).strip() for key, value in (await request.form()).items()}
    try:
        body = model.model_validate(form)
    except ValidationError as error:
        raise HTTPException(422, "A timer takes what is watched, and minutes above 0 and up to 1440.") from error
    desk.logbook.append(inspection, [Draft.write(kind, body, desk.now())], desk.author)
    return RedirectResponse(_back(request) or f"/inspections/{inspection}/runsheet", 303)


def _back(request: Request) -> str | None:
    """Where the form stood, if that is a page of ours that can be asked for again."""
    came = urlsplit(request.headers.get("referer", ""))
    if came.netloc != request.headers.get("host") or not came.path.startswith("/") or came.path.startswith("//"):
        return None
    asked = {"type": "http", "method": "GET", "path": came.path, "root_path": "", "headers": []}
    if not any(route.matches(asked)[0] is Match.FULL for route in request.app.router.routes):
        return None
    return f"{came.path}?{came.query}" if came.query else came.path
