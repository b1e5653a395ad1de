"""Routes of the road station; a record of acceleration is matched here and kept as an entry."""

from __future__ import annotations

from datetime import datetime
from pathlib import Path
from uuid import UUID

from fastapi import APIRouter, HTTPException, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import RedirectResponse, Response
from starlette.datastructures import UploadFile

from hakutsu.core.road.vibration import Stated, match_vibration
from hakutsu.entries.envelope import Draft
from hakutsu.entries.road import Felt
from hakutsu.exchange.vibration_csv import BadRecord, read_record
from hakutsu.exchange.vibration_entry import kept_match
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.road import DRIVE_LOOK
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.rendering import page
from hakutsu.web.road.context import ROOMS, road_context, road_fragments
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()
HERE = "/inspections/{inspection}/road"
FIELDS = {"kmh": "speed", "rolling_m": "rolling circumference", "final_drive": "final drive", "rpm": "engine speed"}
NEEDED = ("kmh", "rolling_m")


@router.get(HERE)
def show_road(reckoning: ReckoningHere) -> Response:
    """The first room."""
    return RedirectResponse(f"/inspections/{reckoning.dossier.inspection}/road/before", 303)


@router.get(f"{HERE}/{{room}}")
def show_room(request: Request, reckoning: ReckoningHere, room: str) -> Response:
    """One room."""
    if room not in ROOMS:
        raise HTTPException(404, f"This page does not exist; there are {', '.join(ROOMS)}.")
    return page(request, f"road/{room}.html", tab="road", faults={}, typed={}, **road_context(reckoning, room))


@router.post(f"{HERE}/vibration")
async def take_record(request: Request, inspection: UUID, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """Match a record with what turns at the stated speed, and keep what it says."""
    async with request.form() as form:
        typed = {key: str(form.get(key) or "").strip() for key in (*FIELDS, "felt")}
        sent = form.get("file")
        data = await sent.read() if isinstance(sent, UploadFile) else b""
        name = Path(sent.filename or "").name if isinstance(sent, UploadFile) else ""
    numbers, faults = _numbers(typed, reckoning)
    stated = record = None
    if not faults:
        try:
            stated = Stated(numbers["kmh"] or 0, numbers["rolling_m"] or 0, numbers["final_drive"], numbers["rpm"])
        except ValueError as error:
            faults["kmh"] = f"{error}."
    try:
        record = read_record(data) if data else None
        if record is None:
            faults["file"] = "Pick a file first."
    except BadRecord as error:
        shown = "; ".join(error.faults[:6]) + ("; and more" if len(error.faults) > 6 else "")
        faults["file"] = f"The file was not taken: {shown}."
    if faults or stated is None or record is None:
        context = road_context(reckoning, "measured") | {"faults": faults, "typed": typed}
        return page(request, "road/measured.html", status=422, tab="road", **context)
    match = await run_in_threadpool(match_vibration, record, stated)
    felt = Felt(typed["felt"]) if typed["felt"] in [one.value for one in Felt] else Felt.UNKNOWN
    body = kept_match(match, stated, name[:120], felt)
    desk.logbook.append(inspection, [Draft.write("road.vibration", body, desk.now())], desk.author)
    return RedirectResponse(f"/inspections/{inspection}/road/measured#records", 303)


def _numbers(typed: dict[str, str], reckoning: Reckoning) -> tuple[dict[str, float | None], dict[str, str]]:
    """What was typed as numbers [km/h as stored], and the faults by field."""
    found: dict[str, float | None] = {}
    faults = {}
    scale = reckoning.terms.scale("distance")
    for key, name in FIELDS.items():
        if not typed[key]:
            found[key] = None
            if key in NEEDED:
                faults[key] = f"The {name} is needed."
            continue
        try:
            number = float(typed[key].replace(",", "."))
        except ValueError:
            faults[key] = f"“{typed[key][:40]}” is no number."
            continue
        found[key] = number * scale.factor if key == "kmh" else number
    return found, faults


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return road_fragments(reckoning, asked.room)


ROOM_OF = {"road.before": "before", "road.drive": "before", "road.noticed": "noticed", "road.rest": "noticed",
           "road.hub": "after", "road.": "measured"}  # fmt: skip
station_page(
    StationPage("road", "Road", Phase.AT_THE_VEHICLE, 105, router, _fragments,
                covers={"road": lambda part: "road/before" if part == DRIVE_LOOK else "road/noticed"},
                shows={kind: f"road/{room}" for kind, room in ROOM_OF.items()})
)  # fmt: skip
