"""What finished inspections of a make and colour teach about the next one, taken into its logbook as known by then."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Form
from fastapi.responses import RedirectResponse, Response

from hakutsu.core.film import parameters
from hakutsu.entries import Draft
from hakutsu.entries.film import FilmOfVehicle, OwnVehicles
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.web.desk import Desk, DeskHere, ReckoningHere
from hakutsu.web.summary import Summary

router = APIRouter()
MOST, RECKONED_AT_ONCE = 200, 12  # vehicles; the rest has been reckoned when it was finished


def own_vehicles(desk: Desk, vehicle: VehicleDescription, but: UUID) -> OwnVehicles | None:
    """What this account's finished vehicles of the same make and colour teach; none if they are too few.

    A vehicle that was inspected more than once counts as it was last.
    """
    if not desk.settings.film_learn or not vehicle.colour:
        return None
    alike = [one for one in desk.summaries.finished() if one.kind == vehicle.kind and one.inspection != but]
    waiting = RECKONED_AT_ONCE
    by_vehicle: dict[str, Summary] = {}
    for one in sorted(alike, key=lambda summary: summary.opened_at, reverse=True)[:MOST]:
        if not one.reckoned and waiting:
            waiting -= 1
            desk.attempt(one.inspection, desk.reckoning)
            one = desk.summaries.of(one.inspection) or one
        if one.honest and one.by == desk.author:
            by_vehicle.setdefault(one.registration or str(one.inspection), one)
    if len(by_vehicle) < parameters().own_vehicles.least:
        return None
    taught = [one.honest for one in by_vehicle.values() if one.honest]
    return OwnVehicles(vehicles=tuple(FilmOfVehicle(level_um=a, spread=b, unevenness=c) for a, b, c in taught))


def own_vehicles_drafts(
    desk: Desk, vehicle: VehicleDescription, inspection: UUID, before: OwnVehicles | None = None
) -> list[Draft]:
    """What to write once a vehicle was named, or named otherwise; nothing where it is as before or left out."""
    if before is not None and before.left_out:
        return []
    found = own_vehicles(desk, vehicle, inspection)
    if found is None and (before is None or not before.vehicles):
        return []
    return [Draft.write("film.own_vehicles", found or OwnVehicles(), desk.now())] if found != before else []


@router.post("/inspections/{inspection}/film/own-vehicles")
def leave_or_take(
    inspection: UUID, reckoning: ReckoningHere, desk: DeskHere, leave: Annotated[str, Form()] = ""
) -> Response:
    """Judge this vehicle without the others of its make and colour, or with them again, as many as there are by now."""
    body = OwnVehicles(left_out=True) if leave else own_vehicles(desk, reckoning.dossier.vehicle, inspection)
    draft = Draft.write("film.own_vehicles", body or OwnVehicles(), desk.now())
    desk.logbook.append(inspection, [draft], desk.author)
    return RedirectResponse(f"/inspections/{inspection}/film", 303)
