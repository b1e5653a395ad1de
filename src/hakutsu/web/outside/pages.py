"""Routes of the outside station."""

from __future__ import annotations

from datetime import datetime

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.reckoning import Reckoning
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.outside.context import ROOMS, outside_context, outside_fragments
from hakutsu.web.rendering import page
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()


@router.get("/inspections/{inspection}/outside")
def show_outside(reckoning: ReckoningHere) -> Response:
    """The first room."""
    return RedirectResponse(f"/inspections/{reckoning.dossier.inspection}/outside/blemishes", 303)


@router.get("/inspections/{inspection}/outside/{room}")
def show_room(request: Request, reckoning: ReckoningHere, room: str, shows: str = "all") -> Response:
    """One room of the station; `shows` filters marks by the distance they show from."""
    if room not in ROOMS:
        raise HTTPException(404, f"This page does not exist; there are {', '.join(ROOMS)}.")
    return page(request, f"outside/{room}.html", tab="outside", **outside_context(reckoning, room, shows))


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return outside_fragments(reckoning, asked.room, asked.shows)


ROOM_OF = {"body.fit": "fit", "body.glass": "glass", "body.rust": "rust", "body.trim": "trim",
           "body.addition": "additions", "body.": "blemishes"}  # fmt: skip
station_page(
    StationPage("outside", "Outside", Phase.AT_THE_VEHICLE, 40, router, _fragments,
                covers={"fit": "outside/fit", "glass": "outside/glass"},
                shows={kind: f"outside/{room}" for kind, room in ROOM_OF.items()})
)  # fmt: skip
