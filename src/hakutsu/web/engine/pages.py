"""Routes of the engine station."""

from __future__ import annotations

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.web.desk import ReckoningHere
from hakutsu.web.engine.context import ROOMS, engine_context
from hakutsu.web.rendering import page

router = APIRouter()


@router.get("/inspections/{inspection}/engine")
def show_engine(reckoning: ReckoningHere) -> Response:
    """The first room."""
    return RedirectResponse(f"/inspections/{reckoning.dossier.inspection}/engine/fluids", 303)


@router.get("/inspections/{inspection}/engine/{room}")
def show_room(request: Request, reckoning: ReckoningHere, room: str) -> Response:
    """One room."""
    if room not in ROOMS:
        raise HTTPException(404, f"There is no such room of the engine; there are {', '.join(ROOMS)}.")
    return page(request, f"engine/{room}.html", tab="engine", **engine_context(reckoning, room))
