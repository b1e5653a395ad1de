"""The film station's pages: the station, its moving parts, the survey as a file."""

from __future__ import annotations

from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import PlainTextResponse, Response

from hakutsu.exchange.bundle import film_table
from hakutsu.vehicle.panels import panels
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.film.context import PROFILE, film_context, film_fragments, station_config
from hakutsu.web.rendering import page

router = APIRouter()


@router.get("/inspections/{inspection}/film")
def film_station(
    request: Request, reckoning: ReckoningHere, desk: DeskHere, panel: str | None = None, drawing: str = PROFILE
) -> Response:
    """The station as a page; `drawing` is the profile or the shell sheet."""
    context = film_context(reckoning, panel, drawing)
    return page(
        request,
        "film/station.html",
        config=station_config(reckoning),
        codes=[p for p in panels().values() if p.side != "right"],
        tab="film",
        kept_gauges=desk.logbook.library.gauges(),
        **context,
    )


@router.get("/inspections/{inspection}/film/fragments")
def fragments(reckoning: ReckoningHere, panel: str | None = None, drawing: str = PROFILE) -> dict[str, str]:
    """The moving parts alone, when another panel or drawing is chosen."""
    return film_fragments(reckoning, panel, drawing)


@router.get("/inspections/{inspection}/film.csv")
def film_csv(inspection: UUID, reckoning: ReckoningHere) -> Response:
    """The survey in the exchange format."""
    name = f"film-{str(inspection)[:8]}.csv"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return PlainTextResponse(film_table(reckoning), media_type="text/csv; charset=utf-8", headers=headers)
