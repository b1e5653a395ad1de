"""The film station's pages: the station, its moving parts, the survey as a file."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import PlainTextResponse, Response

from hakutsu.dossier import Covered, Dossier
from hakutsu.exchange.bundle import film_table
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.panels import panels
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.film.context import PROFILE, film_context, film_fragments, station_config
from hakutsu.web.rendering import page
from hakutsu.web.station import Asked, Phase, StationPage, station_page

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
        kept_gauges=desk.logbook.library.gauges(desk.summaries.verified()),
        **context,
    )


@router.get("/inspections/{inspection}/film/fragments")
def fragments(
    reckoning: ReckoningHere, panel: str | None = None, drawing: str = PROFILE, shows: str | None = None
) -> dict[str, str]:
    """The moving parts alone, when another panel or drawing is chosen."""
    return film_fragments(reckoning, panel, drawing, shows)


@router.get("/inspections/{inspection}/film.csv")
def film_csv(inspection: UUID, reckoning: ReckoningHere) -> Response:
    """The survey in the exchange format."""
    name = f"film-{str(inspection)[:8]}.csv"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return PlainTextResponse(film_table(reckoning), media_type="text/csv; charset=utf-8", headers=headers)


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return film_fragments(reckoning, asked.panel, asked.drawing, asked.shows)


def _read(dossier: Dossier) -> tuple[int, int]:
    """Panels read or limited, of those that are to be read."""
    panels = [one for one in dossier.film_coverage() if one.expected or one.state is Covered.LIMITED]
    return sum(one.state is not Covered.OPEN for one in panels), len(panels)


station_page(
    StationPage("film", "Film", Phase.AT_THE_VEHICLE, 30, router, _fragments, progress=_read,
                shows={"film.": lambda entry, _: f"film?panel={entry.place}" if entry.place else "film"})
)  # fmt: skip
