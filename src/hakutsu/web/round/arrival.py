"""Arrival: the vehicle as it was met, and what that hides."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from pydantic import ValidationError

from hakutsu.core.limitations import PROVEN_WITHIN_C, proven_cold
from hakutsu.entries import Draft
from hakutsu.entries.day import Arrival, Dirt, Engine, Indoors, Light, Moved, Stands, Weather
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.places import places
from hakutsu.web.desk import Desk, DeskHere, ReckoningHere
from hakutsu.web.rendering import page
from hakutsu.web.round.visit import others_today
from hakutsu.web.station import Phase, StationPage, station_page

router = APIRouter()
TEMPERATURES = ("engine_c", "surroundings_c")
NUMBERS = ("stood_days", *TEMPERATURES)
CHOICES = {
    "weathers": Weather,
    "lights": Light,
    "stands": Stands,
    "moves": Moved,
    "engines": Engine,
    "dirts": Dirt,
    "exhausts": Indoors,
}
WORDS = {
    "int_parsing": "a whole number of days, such as 90",
    "float_parsing": "a temperature, such as 14.5",
    "greater_than_equal": "lower than can be",
    "less_than_equal": "higher than can be",
}


def _field(fault: Mapping[str, Any]) -> str:
    return str(fault["loc"][0]) if fault["loc"] else "engine"


def _words(fault: Mapping[str, Any]) -> str:
    return WORDS.get(str(fault["type"]), str(fault["msg"])).removeprefix("Value error, ")


def _stored(text: str | None, name: str, reckoning: Reckoning) -> float | str | None:
    """A temperature as written, in °C; what is no number is left to be refused."""
    if text is None:
        return None
    arrival = reckoning.dossier.day.arrival
    try:
        return reckoning.terms.scale("temperature").taken(text, getattr(arrival, name) if arrival else None)
    except ValueError:
        return text


def _context(desk: Desk, reckoning: Reckoning, values: dict[str, Any], faults: dict[str, str]) -> dict[str, Any]:
    arrival = reckoning.dossier.day.arrival
    return {
        "dossier": reckoning.dossier,
        "terms": reckoning.terms,
        "values": values,
        "faults": faults,
        "places": [places()[key] for key in reckoning.dossier.day.places() if key != "desk"],
        "limitations": reckoning.limitations,
        "within": reckoning.terms.scale("temperature").difference(PROVEN_WITHIN_C),
        "noted": arrival is not None,
        "visits": [] if arrival else others_today(desk, reckoning.dossier.inspection, desk.now()),
        "cold": proven_cold(arrival) if arrival else None,
        "stand_downs": reckoning.stand_downs,
        **{name: list(kind) for name, kind in CHOICES.items()},
    }


@router.get("/inspections/{inspection}/arrival")
def show_arrival(request: Request, desk: DeskHere, reckoning: ReckoningHere) -> Response:
    """The form with what was noted last, and what it hides."""
    arrival = reckoning.dossier.day.arrival or Arrival()
    scale = reckoning.terms.scale("temperature")
    shown = {name: scale.number(c) for name in TEMPERATURES if (c := getattr(arrival, name)) is not None}
    values = arrival.model_dump(mode="json") | shown
    return page(request, "round/arrival.html", tab="arrival", **_context(desk, reckoning, values, {}))


@router.post("/inspections/{inspection}/arrival")
async def save_arrival(request: Request, inspection: UUID, desk: DeskHere, reckoning: ReckoningHere) -> Response:
    """Save the arrival; a later one replaces it, and both are kept in the logbook."""
    form = {key: str(value).strip() for key, value in (await request.form()).items()}
    dirt = {key.removeprefix("dirt_"): value for key, value in form.items() if key.startswith("dirt_")}
    said: dict[str, Any] = {key: value for key, value in form.items() if not key.startswith("dirt_")}
    typed = {name: said.get(name) or None for name in NUMBERS}
    said |= typed | {name: _stored(typed[name], name, reckoning) for name in TEMPERATURES}
    said["indoors"] = {"yes": True, "no": False}.get(form.get("indoors", ""))
    said["dirt"] = {key: value for key, value in dirt.items() if value}
    try:
        body = Arrival.model_validate(said)
    except ValidationError as error:
        faults = {_field(one): _words(one) for one in error.errors()}
        context = _context(desk, reckoning, Arrival().model_dump(mode="json") | said | typed, faults)
        return page(request, "round/arrival.html", status=422, tab="arrival", **context)
    desk.logbook.append(inspection, [Draft.write("day.arrival", body, desk.now())], desk.author)
    return RedirectResponse(f"/inspections/{inspection}/arrival", 303)


station_page(StationPage("arrival", "Arrival", Phase.AT_THE_VEHICLE, 10, router, shows={"day.arrival": "arrival"}))
