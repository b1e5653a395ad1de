"""Routes of life and money; a distance or a use in the address shows what it would change."""

from __future__ import annotations

from datetime import datetime

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.reckoning import Reckoning
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.life.context import ROOMS, life_context, life_fragments, what_if
from hakutsu.web.rendering import page
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()


@router.get("/inspections/{inspection}/life")
def show_life(reckoning: ReckoningHere) -> Response:
    """The first room."""
    return RedirectResponse(f"/inspections/{reckoning.dossier.inspection}/life/calendar", 303)


@router.get("/inspections/{inspection}/life/{room}")
def show_room(request: Request, reckoning: ReckoningHere, room: str) -> Response:
    """One room."""
    if room not in ROOMS:
        raise HTTPException(404, f"This page does not exist; there are {', '.join(ROOMS)}.")
    lives = what_if(reckoning, _query(request))
    return page(request, f"life/{room}.html", tab="life", **life_context(reckoning, room, lives))


@router.get("/inspections/{inspection}/life/{room}/picture")
def picture(request: Request, reckoning: ReckoningHere, room: str) -> dict[str, dict[str, str]]:
    """The moving part of a room, for a distance and use."""
    return {"fragments": life_fragments(reckoning, room, what_if(reckoning, _query(request)))}


def _query(request: Request) -> dict[str, str]:
    """Distance and use of the address; a form sent without script gives each use by itself."""
    found = dict(request.query_params)
    ticked = [key.removeprefix("use_") for key in found if key.startswith("use_")]
    if "km" in found and ("use" not in found or ticked):
        found["use"] = ",".join([*ticked, *found.get("use", "").split(",")]) if ticked else found.get("use", "")
    return found


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return life_fragments(reckoning, asked.room, reckoning.lives)


station_page(
    StationPage("life", "Life and money", Phase.DESK, 30, router, _fragments,
                shows={"money.": "life/sheet", "life.": "life/facts"})
)  # fmt: skip
