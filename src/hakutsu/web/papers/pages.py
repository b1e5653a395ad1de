"""Routes of the papers."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.dossier import Dossier
from hakutsu.dossier.papers import PapersDossier
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.papers import BUILD_PLATE, RESTS_ON
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.papers.context import ROOMS, papers_context, papers_fragments
from hakutsu.web.pictures.context import shown
from hakutsu.web.rendering import page
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()
HERE = "/inspections/{inspection}/papers"


@router.get(HERE)
def show_papers(reckoning: ReckoningHere) -> Response:
    """The first room."""
    return RedirectResponse(f"/inspections/{reckoning.dossier.inspection}/papers/identity", 303)


@router.get(f"{HERE}/{{room}}")
def show_room(request: Request, reckoning: ReckoningHere, room: str, picture: UUID | None = None) -> Response:
    """One room; of the number with a picture beside which it is read."""
    if room not in ROOMS:
        raise HTTPException(404, f"This page does not exist; there are {', '.join(ROOMS)}.")
    beside = None
    if picture is not None:
        taken = reckoning.dossier.pictures.taken.get(picture)
        if taken is None:
            raise HTTPException(404, "This picture does not belong to this inspection.")
        beside = shown(reckoning, taken)
    return page(request, f"papers/{room}.html", tab="papers", beside=beside, **papers_context(reckoning, room))


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return papers_fragments(reckoning, asked.room)


def _progress(dossier: Dossier) -> tuple[int, int]:
    """The number at the places it rests on, the build date, and two records of distance."""
    papers = dossier[PapersDossier]
    read = {one.body.where for one in papers.numbers}
    built = any(one.body.mark == BUILD_PLATE for one in papers.marks)
    return sum(one in read for one in RESTS_ON) + built + (len(papers.records) > 1), len(RESTS_ON) + 2


ROOM_OF = {"papers.mark": "dates", "papers.distance": "distance", "papers.asked": "registers", "papers.": "identity"}
station_page(
    StationPage("papers", "Identity, dates, distance", Phase.PAPERS, 10, router, _fragments, progress=_progress,
                shows={kind: f"papers/{room}" for kind, room in ROOM_OF.items()})
)  # fmt: skip
