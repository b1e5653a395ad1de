"""Routes of the service papers."""

from __future__ import annotations

from datetime import datetime

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.dossier import Dossier
from hakutsu.dossier.service import ServiceDossier
from hakutsu.reckoning import Reckoning
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.rendering import page
from hakutsu.web.service.context import ROOMS, service_context, service_fragments
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()
HERE = "/inspections/{inspection}/service"


@router.get(HERE)
def show_service(reckoning: ReckoningHere) -> Response:
    """The first room."""
    return RedirectResponse(f"/inspections/{reckoning.dossier.inspection}/service/plan", 303)


@router.get(f"{HERE}/{{room}}")
def show_room(request: Request, reckoning: ReckoningHere, room: str) -> Response:
    """One room."""
    if room not in ROOMS:
        raise HTTPException(404, f"This page does not exist; there are {', '.join(ROOMS)}.")
    return page(request, f"service/{room}.html", tab="service", **service_context(reckoning, room))


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return service_fragments(reckoning, asked.room)


def _progress(dossier: Dossier) -> tuple[int, int]:
    """Services, tests, owners and keys: whether anything of each was read."""
    service = dossier[ServiceDossier]
    read = (service.done, service.tests, service.owners, service.keys)
    return sum(bool(one) for one in read), len(read)


ROOM_OF = {
    "service.test": "tests", "service.advisory": "tests", "service.owners": "owners", "service.keys": "owners",
    "service.cover": "owners", "service.": "plan",
}  # fmt: skip
station_page(
    StationPage("service", "Service and owners", Phase.PAPERS, 20, router, _fragments, progress=_progress,
                shows={kind: f"service/{room}" for kind, room in ROOM_OF.items()})
)  # fmt: skip
