"""The day: all inspections with what is left in each."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.dossier import Covered
from hakutsu.entries.opening import Stage
from hakutsu.reckoning import Reckoning
from hakutsu.web.desk import DeskHere, Unshown
from hakutsu.web.rendering import page

router = APIRouter()


@dataclass(frozen=True, slots=True)
class DayRow:
    """One inspection on the day page."""

    id: UUID
    vehicle: str
    detail: str
    buyer: str
    finished: bool
    readings: int
    done: int
    expected: int
    retests: int


def day_row(reckoning: Reckoning) -> DayRow:
    """Sum an inspection up for the day page."""
    dossier = reckoning.dossier
    coverage = [c for c in dossier.film_coverage() if c.expected or c.state is Covered.LIMITED]
    vehicle = dossier.vehicle
    return DayRow(
        id=dossier.inspection,
        vehicle=vehicle.name,
        detail=", ".join(part for part in (vehicle.registration, vehicle.colour) if part),
        buyer=dossier.opening.brief.buyer,
        finished=dossier.opening.stage is Stage.FINISHED,
        readings=len(dossier.film.readings),
        done=sum(c.state is not Covered.OPEN for c in coverage),
        expected=len(coverage),
        retests=len(reckoning.film.analysis.open_surprises),
    )


@router.get("/")
def day(request: Request, desk: DeskHere) -> Response:
    """All inspections, unfinished ones first."""
    rows = []
    unshown = []
    for inspection in desk.logbook.inspections():
        row = desk.attempt(inspection, lambda one: day_row(desk.reckoning(one)))
        if isinstance(row, DayRow):
            rows.append(row)
        elif isinstance(row, Unshown):
            unshown.append(row)
        elif desk.attempt(inspection, lambda one: desk.reckoned(one).dossier.unread):
            unshown.append(Unshown(inspection, "what it begins with cannot be read"))
    rows.sort(key=lambda row: row.finished)
    names = {row.id: row.vehicle for row in rows}
    faults = [(one, names.get(one, "one inspection"), fault) for one, fault in desk.integrity.faults().items()]
    return page(request, "day.html", rows=rows, unshown=unshown, faults=faults)


@router.get("/inspections/{inspection}")
def inspection(inspection: UUID) -> Response:
    """An inspection opens at its film station."""
    return RedirectResponse(f"/inspections/{inspection}/film", 303)
