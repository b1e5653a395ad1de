"""The one local account: the name that signs entries."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Form, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.web.desk import DeskHere
from hakutsu.web.rendering import page

router = APIRouter()
LONGEST_NAME = 60


@router.get("/account")
def show_account(request: Request, desk: DeskHere) -> Response:
    """The form with the present name."""
    return page(request, "account.html", name=desk.logbook.account, fault="")


@router.post("/account")
def rename(request: Request, desk: DeskHere, name: Annotated[str, Form()] = "") -> Response:
    """Take a new name; entries already signed keep theirs."""
    name = " ".join(name.split())
    if not name or len(name) > LONGEST_NAME:
        fault = "Give a name." if not name else f"At most {LONGEST_NAME} characters; this has {len(name)}."
        return page(request, "account.html", status=422, name=name, fault=fault)
    desk.logbook.account = name
    return RedirectResponse("/", 303)
