"""Routes of the outside station."""

from __future__ import annotations

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.web.desk import ReckoningHere
from hakutsu.web.outside.context import ROOMS, outside_context
from hakutsu.web.rendering import page

router = APIRouter()


@router.get("/inspections/{inspection}/outside")
def show_outside(reckoning: ReckoningHere) -> Response:
    """The first room."""
    return RedirectResponse(f"/inspections/{reckoning.dossier.inspection}/outside/blemishes", 303)


@router.get("/inspections/{inspection}/outside/{room}")
def show_room(request: Request, reckoning: ReckoningHere, room: str, shows: str = "all") -> Response:
    """One room of the station; `shows` filters marks by the distance they show from."""
    if room not in ROOMS:
        raise HTTPException(404, f"There is no such room outside; there are {', '.join(ROOMS)}.")
    return page(request, f"outside/{room}.html", tab="outside", **outside_context(reckoning, room, shows))
