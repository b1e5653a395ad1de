"""Routes of the engine station."""

from __future__ import annotations

from datetime import datetime

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.engine import engine_looks
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.engine.context import ROOMS, engine_context, engine_fragments
from hakutsu.web.rendering import page
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()


@router.get("/inspections/{inspection}/engine")
def show_engine(reckoning: ReckoningHere) -> Response:
    """The first room."""
    return RedirectResponse(f"/inspections/{reckoning.dossier.inspection}/engine/fluids", 303)


@router.get("/inspections/{inspection}/engine/{room}")
def show_room(request: Request, reckoning: ReckoningHere, room: str) -> Response:
    """One room."""
    if room not in ROOMS:
        raise HTTPException(404, f"This page does not exist; there are {', '.join(ROOMS)}.")
    return page(request, f"engine/{room}.html", tab="engine", **engine_context(reckoning, room))


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return engine_fragments(reckoning, asked.room)


ROOM_OF = {"engine.bay": "bay", "engine.air": "air", "engine.battery": "electric", "engine.pack": "electric",
           "engine.": "run", "fluid.": "fluids"}  # fmt: skip
station_page(
    StationPage("engine", "Engine", Phase.AT_THE_VEHICLE, 70, router, _fragments,
                covers={"engine": lambda part: f"engine/{engine_looks()[part.removeprefix('engine_')].room}"},
                shows={kind: f"engine/{room}" for kind, room in ROOM_OF.items()})
)  # fmt: skip
