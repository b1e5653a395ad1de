"""The report page."""

from __future__ import annotations

from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import Response

from hakutsu.report.integrity_section import integrity_line
from hakutsu.report.making import report_context
from hakutsu.report.sections import Making
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.rendering import page
from hakutsu.web.station import Phase, StationPage, station_page

router = APIRouter()


@router.get("/inspections/{inspection}/report")
def show_report(request: Request, inspection: UUID, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """The report as a page that prints on A4."""

    def picture(entry: UUID) -> str:
        return f"/inspections/{inspection}/pictures/{entry}/1600.jpg"

    integrity = integrity_line(reckoning, desk.integrity.check(inspection, desk.now()))
    making = Making(reckoning, desk.now(), integrity, picture)
    return page(request, "report.html", tab="report", **report_context(making))


station_page(StationPage("report", "Report", Phase.REPORT, 10, router))
