"""The one local account: the name that signs entries; asked once, units, region and clock."""

from __future__ import annotations

from typing import Annotated, Any
from zoneinfo import ZoneInfo, available_timezones

from fastapi import APIRouter, Form, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.demo.building import add_example
from hakutsu.entries.settings import Settings
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.rules import rule_sets
from hakutsu.vehicle.vocabulary import Names, Unit
from hakutsu.web.desk import DeskHere
from hakutsu.web.rendering import page

router = APIRouter()
LONGEST_NAME = 60


class Writing(Keyed):
    """Units and words that go together; every one of them can be changed by itself in the settings."""

    METRIC = "metric", "km, mm, °C, bar, µm"
    BRITISH = "british", "miles, mm, °C, bar, µm"
    AMERICAN = "american", "miles, 32nds, °F, psi, mil; hood, fender, trunk"


TOGETHER: dict[Writing, dict[str, Any]] = {
    Writing.METRIC: {},
    Writing.BRITISH: {"distance": "mi"},
    Writing.AMERICAN: {
        "distance": "mi", "depth": "in32", "temperature": "f", "pressure": "psi", "film": Unit.MIL,
        "names": Names.AMERICAN,
    },
}  # fmt: skip


def _form(request: Request, desk: DeskHere, said: dict[str, str], faults: dict[str, str]) -> Response:
    return page(
        request, "account.html", status=422 if faults else 200, said=said, faults=faults,
        asked=desk.logbook.library.asked, writings=list(Writing), regions=list(rule_sets().values()),
    )  # fmt: skip


@router.get("/account")
def show_account(request: Request, desk: DeskHere) -> Response:
    """The form with the present name; units, region and clock too, until they were said once."""
    return _form(request, desk, {"name": desk.logbook.account or ""}, {})


@router.post("/account")
def rename(
    request: Request,
    desk: DeskHere,
    name: Annotated[str, Form()] = "",
    writing: Annotated[str, Form()] = "",
    rules: Annotated[str, Form()] = "",
    zone: Annotated[str, Form()] = "",
) -> Response:
    """Take a new name; entries already signed keep theirs."""
    name, library = " ".join(name.split()), desk.logbook.library
    said = {"name": name, "writing": writing, "rules": rules, "zone": zone}
    faults = {} if name else {"name": "Give a name."}
    if len(name) > LONGEST_NAME:
        faults = {"name": f"At most {LONGEST_NAME} characters; this has {len(name)}."}
    units = next((one for one in Writing if one.value == writing), None)
    if not library.asked and any((writing, rules, zone)):
        if units is None:
            faults["writing"] = "Choose how you write distances and depths."
        if rules not in rule_sets():
            faults["rules"] = "Choose whose rules you go by."
        if zone not in available_timezones():
            faults["zone"] = "A time zone by its name, such as Europe/Oslo."
    if faults:
        return _form(request, desk, said, faults)
    if units is not None and not library.asked:
        library.settings = Settings(rules=rules, zone=ZoneInfo(zone).key, **TOGETHER[units])
    desk.logbook.account = name
    return RedirectResponse("/", 303)


@router.post("/example")
def example(desk: DeskHere) -> Response:
    """Open the half-done example."""
    return RedirectResponse(f"/inspections/{add_example(desk.logbook, desk.pictures)}", 303)
