"""The one local account: the name that signs entries, and what its inspections begin with."""

from __future__ import annotations

from typing import Annotated, Any

from fastapi import APIRouter, Form, Request
from fastapi.responses import RedirectResponse, Response
from pydantic import ValidationError

from hakutsu.entries.day import Walk
from hakutsu.logbook.library import Habits
from hakutsu.vehicle.places import outside, places
from hakutsu.vehicle.vocabulary import Direction, Protocol
from hakutsu.web.desk import Desk, DeskHere
from hakutsu.web.rendering import page

router = APIRouter()
LONGEST_NAME = 60


def _show(request: Request, desk: Desk, *, status: int = 200, **more: Any) -> Response:
    habits = desk.logbook.library.habits
    context = {
        "name": desk.logbook.account,
        "fault": "",
        "habits": {"currency": habits.currency, "protocol": habits.protocol, **habits.walk.model_dump()},
        "habit_faults": {},
        "starts": [(key, places()[key].name) for key in outside()],
        "directions": [(one, one) for one in Direction],
        "protocols": [(one, one) for one in Protocol],
    }
    return page(request, "account.html", status=status, **context | more)


@router.get("/account")
def show_account(request: Request, desk: DeskHere) -> Response:
    """The forms with the present name and habits."""
    return _show(request, desk)


@router.post("/account")
def rename(request: Request, desk: DeskHere, name: Annotated[str, Form()] = "") -> Response:
    """Take a new name; entries already signed keep theirs."""
    name = " ".join(name.split())
    if not name or len(name) > LONGEST_NAME:
        fault = "Give a name." if not name else f"At most {LONGEST_NAME} characters; this has {len(name)}."
        return _show(request, desk, status=422, name=name, fault=fault)
    desk.logbook.account = name
    return RedirectResponse("/", 303)


@router.post("/account/habits")
async def take_habits(request: Request, desk: DeskHere) -> Response:
    """What new inspections begin with from now on; those already open keep what they have."""
    form = {key: str(value).strip() for key, value in (await request.form()).items()}
    typed = {name: form.get(name, "") for name in ("currency", "protocol", "start", "direction")}
    typed["currency"] = typed["currency"].upper()
    try:
        walk = Walk(start=typed["start"], direction=Direction(typed["direction"]))
        habits = Habits.model_validate({"currency": typed["currency"], "protocol": typed["protocol"], "walk": walk})
    except ValueError as error:
        wrong = (
            {str(one["loc"][0]) for one in error.errors() if one["loc"]} if isinstance(error, ValidationError) else ()
        )
        faults = (
            {"currency": "Three letters, such as EUR."}
            if "currency" in wrong
            else {"protocol": "Choose from each list."}
        )
        return _show(request, desk, status=422, habits=typed, habit_faults=faults)
    desk.logbook.library.habits = habits
    return RedirectResponse("/account", 303)
