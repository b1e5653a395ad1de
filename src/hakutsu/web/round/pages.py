"""Routes of the round."""

from __future__ import annotations

from datetime import datetime, timedelta
from uuid import UUID

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response
from icalendar import Calendar, Event
from pydantic import ValidationError

from hakutsu.core.runsheet import steps
from hakutsu.dossier import Dossier
from hakutsu.entries import Draft
from hakutsu.entries.day import DayConditions, Walk
from hakutsu.entries.envelope import Entry
from hakutsu.entries.hazards import HazardCleared, HazardOverridden, HazardRaised, StepBegun, StepDone
from hakutsu.entries.registry import Body
from hakutsu.reckoning import Reckoning
from hakutsu.report.searching import in_logbook
from hakutsu.vehicle.places import places
from hakutsu.web.desk import Desk, DeskHere, ReckoningHere
from hakutsu.web.rendering import page
from hakutsu.web.round.context import (
    place_config,
    place_fragments,
    place_page,
    round_context,
    runsheet_context,
    stand_down_context,
)
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()
CLOCKS = ("seller_until", "daylight_until", "dry_until")
TRISTATE = {"yes": True, "no": False}
ASKED = ("engine_cold", "lift", "helper", "may_drive")


def _append(desk: Desk, inspection: UUID, kind: str, body: Body) -> None:
    desk.logbook.append(inspection, [Draft.write(kind, body, desk.now())], desk.author)


@router.get("/inspections/{inspection}/round")
def show_round(request: Request, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """Every place, what is left there, and what is open."""
    return page(request, "round/round.html", tab="round", fault="", **round_context(reckoning, desk.now()))


@router.post("/inspections/{inspection}/round/walk")
async def save_walk(request: Request, inspection: UUID, desk: DeskHere, reckoning: ReckoningHere) -> Response:
    """Where the walk begins and which side it takes first."""
    form = dict(await request.form())
    try:
        body = Walk(start=str(form.get("start")), direction=form.get("direction"))
    except ValidationError:
        fault = "Choose where the walk begins and which side comes first."
        return page(
            request, "round/round.html", status=422, tab="round", fault=fault, **round_context(reckoning, desk.now())
        )
    if body != reckoning.dossier.day.walk:
        _append(desk, inspection, "day.walk", body)
    return RedirectResponse(f"/inspections/{inspection}/round", 303)


@router.get("/inspections/{inspection}/place/{place}")
def show_place(request: Request, reckoning: ReckoningHere, desk: DeskHere, place: str) -> Response:
    """Standing here: everything due here, of every station."""
    if place not in places():
        raise HTTPException(404, "There is no such place round a vehicle.")
    config = place_config(reckoning, place)
    return page(request, "round/place.html", tab="round", config=config, **place_page(reckoning, place, desk.now()))


@router.get("/inspections/{inspection}/standdowns")
def show_stand_downs(request: Request, reckoning: ReckoningHere) -> Response:
    """What forbids running, driving, working under or lifting."""
    return page(request, "round/standdowns.html", tab="standdowns", fault="", **stand_down_context(reckoning))


@router.post("/inspections/{inspection}/standdowns")
async def act_on_stand_down(request: Request, inspection: UUID, desk: DeskHere, reckoning: ReckoningHere) -> Response:
    """Raise a cause, clear it, or sign an override."""
    form = {key: str(value).strip() for key, value in (await request.form()).items()}
    act = form.pop("act", "")
    models: dict[str, type[Body]] = {
        "hazard.raised": HazardRaised, "hazard.cleared": HazardCleared, "hazard.overridden": HazardOverridden
    }  # fmt: skip
    try:
        body = models[act].model_validate(form)
    except (KeyError, ValidationError):
        fault = "Nothing was noted: name, trade or reason, and what was done, are all needed."
        context = stand_down_context(reckoning)
        return page(request, "round/standdowns.html", status=422, tab="standdowns", fault=fault, **context)
    _append(desk, inspection, act, body)
    return RedirectResponse(f"/inspections/{inspection}/standdowns", 303)


@router.get("/inspections/{inspection}/runsheet")
def show_run_sheet(request: Request, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """The plan of the day from now on."""
    context = runsheet_context(reckoning, desk.now())
    return page(request, "round/runsheet.html", tab="runsheet", fault="", **context)


@router.post("/inspections/{inspection}/runsheet/conditions")
async def save_conditions(request: Request, inspection: UUID, desk: DeskHere, reckoning: ReckoningHere) -> Response:
    """Take the conditions of the day; times are times of that day on the clock of the settings."""
    form = {key: str(value).strip() for key, value in (await request.form()).items()}
    said = reckoning.dossier.day.conditions
    base = reckoning.terms.local(said.begins if said else desk.now()).replace(second=0, microsecond=0)
    try:
        begins = _clock(form.get("begins", ""), base) or base
        values: dict[str, object] = {"begins": begins, "available": form.get("available", "")}
        values |= {name: TRISTATE.get(form.get(name, "")) for name in ASKED}
        values["lift_by_driving"] = form.get("lift_by_driving") == "yes"
        for clock in CLOCKS:
            at = _clock(form.get(clock, ""), begins)
            if at is not None and at < begins:
                raise ValueError(f"{clock.removesuffix('_until')}: this is before the begin")
            values[clock] = at
        body = DayConditions.model_validate(values)
    except (ValidationError, ValueError) as error:
        words = "Minutes are a whole number from 5 to 1440." if isinstance(error, ValidationError) else str(error)
        context = runsheet_context(reckoning, desk.now())
        return page(request, "round/runsheet.html", status=422, tab="runsheet", fault=words, **context)
    _append(desk, inspection, "day.conditions", body)
    return RedirectResponse(f"/inspections/{inspection}/runsheet", 303)


def _clock(text: str, day: datetime) -> datetime | None:
    """A time of day as written, on the day of `day`; none when nothing was written."""
    if not text:
        return None
    hours, colon, minutes = text.partition(":")
    if not (colon and hours.isdigit() and minutes.isdigit() and int(hours) < 24 and int(minutes) < 60):
        raise ValueError(f"“{text}” is no time of day; write it as 16:30")
    return day.replace(hour=int(hours), minute=int(minutes), second=0, microsecond=0)


@router.post("/inspections/{inspection}/steps/{step}/{act}")
def act_on_step(
    request: Request, inspection: UUID, step: str, act: str, desk: DeskHere, reckoning: ReckoningHere
) -> Response:
    """Begin a step, unless a stand-down forbids it; or note that it was done, which is never refused."""
    if step not in steps() or act not in ("begin", "done"):
        raise HTTPException(404, "There is no such step.")
    blocked = reckoning.blocking(steps()[step].activity)
    if act == "begin" and blocked:
        causes = "; ".join(f"{one.cause.name}. {one.cause.caution}" for one in blocked)
        fault = reckoning.terms.say(f"{steps()[step].name} is refused: {causes}")
        context = runsheet_context(reckoning, desk.now())
        return page(request, "round/runsheet.html", status=409, tab="runsheet", fault=fault, **context)
    body: Body = StepBegun(step=step) if act == "begin" else StepDone(step=step)
    _append(desk, inspection, "step.begun" if act == "begin" else "step.done", body)
    return RedirectResponse(f"/inspections/{inspection}/runsheet", 303)


@router.get("/inspections/{inspection}/plan.ics")
def calendar(inspection: UUID, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """The appointment and the plan as iCalendar (RFC 5545)."""
    said = reckoning.dossier.day.conditions
    if said is None:
        raise HTTPException(404, "Say first from when and for how long: then there is a plan.")
    now = desk.now()
    made = Calendar()
    made.add("prodid", "-//Hakutsu//run sheet//EN")
    made.add("version", "2.0")
    begin = max(now, said.begins)
    plan = reckoning.run_sheet.plan(now)
    name = reckoning.dossier.vehicle.name
    rows = [(f"{inspection}", f"Inspection: {name}", said.begins, said.begins + timedelta(minutes=said.available))]
    for one in plan.steps if plan else ():
        start, end = (begin + timedelta(minutes=at) for at in (one.start, one.end))
        rows.append((f"{inspection}-{one.step.key}", reckoning.terms.say(one.step.name), start, end))
    for uid, summary, start, end in rows:
        event = Event()
        event.add("uid", f"{uid}@hakutsu.invalid")
        event.add("dtstamp", now)
        event.add("summary", summary)
        event.add("dtstart", start)
        event.add("dtend", end)
        made.add_component(event)
    return Response(made.to_ical(), media_type="text/calendar; charset=utf-8")


def _shown(entry: Entry, _body: Body) -> str:
    """A remark is shown at its place; one on a panel at its film, one of no place on the round."""
    if entry.place is None:
        return in_logbook(entry.seq)
    return f"place/{entry.place}" if entry.place in places() else f"film?panel={entry.place}"


def _place(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return place_fragments(reckoning, asked.place, now)


def _looked(dossier: Dossier) -> tuple[int, int]:
    """Places looked over, of how many."""
    [round_] = [one for one in dossier.station_coverage() if one.key == "round"]
    return round_.done + round_.limited, round_.expected


nowhere = APIRouter()
station_page(StationPage("runsheet", "Run sheet", Phase.PREPARE, 30, nowhere,
                         shows={"step.": "runsheet", "day.conditions": "runsheet"}))  # fmt: skip
station_page(StationPage("round", "Round", Phase.AT_THE_VEHICLE, 20, router, progress=_looked,
                         shows={"general.": _shown, "day.walk": "round", "timer.": "round"}))  # fmt: skip
station_page(StationPage("place", "", Phase.AT_THE_VEHICLE, 21, nowhere, fragments=_place))
station_page(StationPage("standdowns", "Stand-downs", Phase.AT_THE_VEHICLE, 900, nowhere,
                         shows={"hazard.": "standdowns"}))  # fmt: skip
