"""Open an inspection, and edit its vehicle and brief; every save is an entry."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any
from uuid import UUID, uuid4

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response
from pydantic import ValidationError

from hakutsu.dossier import Dossier
from hakutsu.entries import Draft
from hakutsu.entries.day import Walk
from hakutsu.entries.opening import Brief, Stage, StageReached, Vehicle
from hakutsu.reckoning import terms as reckoned_terms
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.vehicle.panels import body_styles, panels, walk_order
from hakutsu.vehicle.quick import QuickForm
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.typed import Unclear, amount, day, whole
from hakutsu.vehicle.use import use_factor_names
from hakutsu.vehicle.vocabulary import Finish, Paint, Protocol, SteeringSide, Substrate, Taste
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.film.own_vehicles import own_vehicles_drafts
from hakutsu.web.rendering import page
from hakutsu.web.round.gaps import gaps
from hakutsu.web.station import Phase, StationPage, station_page

router = APIRouter()
VEHICLE_FIELDS = ("name", "registration", "colour", "finish", "paint", "body_style", "doors", "steering")
BRIEF_FIELDS = (
    "buyer",
    "use",
    "taste",
    "km_per_year",
    "protocol",
    "quick",
    "budget",
    "asking_price",
    "currency",
    "deal_breakers",
    "auction",
    "lot",
    "fees",
    "transport",
    "collect_by",
)
MONEY = ("budget", "asking_price", "fees", "transport")
FACTORS = ("use_factors", "past_factors")
CHOICES: dict[str, Any] = {
    "factors": use_factor_names(),
    "finishes": list(Finish),
    "tastes": list(Taste),
    "protocols": list(Protocol),
    "quick_forms": list(QuickForm),
    "sides": list(SteeringSide),
    "substrates": list(Substrate),
}
NOT_FITTED = "not_fitted"
_Form = tuple[Vehicle | None, Brief | None, dict[str, str]]


def _faults(error: ValidationError) -> dict[str, str]:
    """Message per field, in words for a person."""
    found: dict[str, str] = {}
    for one in error.errors():
        name = str(one["loc"][0]) if one["loc"] else "doors"
        words = {"string_too_short": "Give a name.", "int_parsing": "Write a whole number, such as 12000."}
        words["string_pattern_mismatch"] = "Three letters, such as EUR."
        if one["type"] == "string_too_long":
            words["string_too_long"] = (
                f"At most {one['ctx']['max_length']:,} characters; this has {len(one['input']):,}."
            )
        found[name] = words.get(one["type"], one["msg"].removeprefix("Value error, "))
    return found


def _read_form(form: Mapping[str, Any], known: VehicleDescription | None, terms: Terms, km: int | None = None) -> _Form:
    """Vehicle and brief of a form, or the fault at each field; `km` is the yearly distance kept so far."""
    faults: dict[str, str] = {}
    vehicle_words = {name: form.get(name, "") for name in VEHICLE_FIELDS}
    vehicle_words["paint"] = vehicle_words["paint"] or Paint.UNKNOWN
    brief_words = {name: form.get(name, "") for name in BRIEF_FIELDS}
    brief_words["quick"] = brief_words["quick"] or QuickForm.MECHANICAL
    readers: dict[str, Callable[[str], Any]] = {
        "km_per_year": lambda text: round(terms.scale("distance").taken(str(whole(text)), km)),
        "collect_by": day, **dict.fromkeys(MONEY, amount),
    }  # fmt: skip
    for name, read in readers.items():
        text, brief_words[name] = str(brief_words[name] or "").strip(), None
        try:
            brief_words[name] = read(text) if text else None
        except Unclear as unclear:
            faults[name] = str(unclear)
    brief_words["auction"] = brief_words["auction"] == "yes"
    brief_words["currency"] = str(brief_words["currency"] or "EUR").strip().upper()
    lines = str(brief_words["deal_breakers"] or "").splitlines()
    brief_words["deal_breakers"] = [line for line in lines if line.strip()]
    for name in FACTORS:
        brief_words[name] = [key for key in use_factor_names() if form.get(f"{name}_{key}") == "yes"]
    vehicle = brief = None
    try:
        vehicle = Vehicle(vehicle=VehicleDescription(**vehicle_words, **_panel_edits(form, known)))
    except ValidationError as error:
        faults |= _faults(error)
    try:
        brief = Brief(**brief_words)
    except ValidationError as error:
        faults |= _faults(error)
    return vehicle, brief, faults


def _panel_edits(form: Mapping[str, Any], known: VehicleDescription | None) -> dict[str, Any]:
    """What the panel table of the form says, where there is one."""
    said = {key: str(form[f"panel_{key}"]) for key in panels() if f"panel_{key}" in form}
    if known and (form.get("body_style"), str(form.get("doors"))) != (known.body_style, str(known.doors)):
        return {}  # another body: its panels follow, edits of the old one do not
    if not said:
        return known.model_dump(include={"substrates", "not_fitted", "also_fitted"}) if known else {}
    usual = walk_order(str(form.get("body_style", "hatch")), _whole(form.get("doors", "5")))
    return {
        "substrates": {key: word for key, word in said.items() if word not in ("", NOT_FITTED)},
        "not_fitted": tuple(key for key, word in said.items() if word == NOT_FITTED and key in usual),
        "also_fitted": tuple(key for key, word in said.items() if word not in ("", NOT_FITTED) and key not in usual),
    }


def _whole(text: object) -> int:
    return int(str(text)) if str(text).isdigit() else 5


def _panel_table(vehicle: VehicleDescription) -> list[dict[str, Any]]:
    """Fitted panels in walk order, then those this body style usually lacks."""
    fitted = vehicle.panel_keys()
    rest = [key for key in panels() if key not in fitted]
    return [
        {"panel": panels()[key], "chosen": vehicle.substrate(key).value if key in fitted else NOT_FITTED}
        for key in (*fitted, *rest)
    ]


@router.get("/inspections/new")
def new(request: Request, desk: DeskHere) -> Response:
    """The empty form; it carries the id the inspection will have, so that sending twice opens one."""
    habits = desk.settings
    values = {"finish": Finish.FACTORY, "body_style": "hatch", "doors": 5, "steering": SteeringSide.RIGHT}
    values |= {
        "paint": Paint.UNKNOWN,
        "taste": Taste.TIDY,
        "protocol": habits.protocol,
        "quick": QuickForm.MECHANICAL,
        "currency": habits.currency,
    }
    return _form(request, values, {}, id=uuid4())


@router.post("/inspections/new")
async def create(request: Request, desk: DeskHere) -> Response:
    """Open the inspection with its first two entries."""
    form = dict(await request.form())
    vehicle, brief, faults = _read_form(form, None, reckoned_terms(desk.settings))
    try:
        inspection = UUID(str(form.get("id", "")))
    except ValueError:
        inspection = uuid4()
    if faults or vehicle is None or brief is None:
        return _form(request, form, faults, id=inspection, status=422)
    if not desk.logbook.holds(inspection):
        now = desk.now()
        desk.logbook.open_inspection(inspection, now)
        drafts = [Draft.write("inspection.vehicle", vehicle, now), Draft.write("inspection.brief", brief, now)]
        walk = desk.settings.walk
        if walk != Walk():
            drafts.append(Draft.write("day.walk", walk, now))
        drafts += own_vehicles_drafts(desk, vehicle.vehicle, inspection)
        desk.logbook.append(inspection, drafts, desk.author)
    return RedirectResponse(f"/inspections/{inspection}/facts", 303)


def _form(
    request: Request, values: Mapping[str, Any], faults: dict[str, str], *, id: UUID, status: int = 200
) -> Response:
    return page(
        request,
        "new.html",
        status=status,
        values=_texts(values),
        faults=faults,
        id=id,
        styles=[(key, style.name) for key, style in body_styles().items()],
        **CHOICES,
    )


def _texts(values: Mapping[str, Any]) -> dict[str, str]:
    """Form values as texts; a field without one is empty."""
    found = {name: str(values.get(name) or "") for name in (*VEHICLE_FIELDS, *BRIEF_FIELDS)}
    found["auction"] = "yes" if values.get("auction") in (True, "yes") else ""
    breakers = values.get("deal_breakers") or ""
    found["deal_breakers"] = breakers if isinstance(breakers, str) else "\n".join(breakers)
    for name in FACTORS:
        kept = values.get(name) or ()
        for key in use_factor_names():
            on = key in kept or values.get(f"{name}_{key}") == "yes"
            found[f"{name}_{key}"] = "yes" if on else ""
    return found


def _basis(dossier: Dossier) -> str:
    """Id of the newest vehicle or brief entry: a form filled in on an older one is asked about, not taken."""
    kinds = ("inspection.vehicle", "inspection.brief")
    return next((str(entry.id) for entry in reversed(dossier.entries) if entry.kind in kinds), "")


def _edit(
    request: Request, dossier: Dossier, values: Mapping[str, Any], faults: dict[str, str], status: int = 200
) -> Response:
    return page(
        request,
        "vehicle.html",
        status=status,
        dossier=dossier,
        values=_texts(values),
        faults=faults,
        basis=_basis(dossier),
        styles=[(key, style.name) for key, style in body_styles().items()],
        table=_panel_table(dossier.vehicle),
        tab="vehicle",
        finished=dossier.opening.stage.done,
        **CHOICES,
    )


@router.get("/inspections/{inspection}/vehicle")
def show_vehicle(request: Request, reckoning: ReckoningHere) -> Response:
    """Vehicle, panels and brief, ready to edit."""
    dossier = reckoning.dossier
    values = dossier.vehicle.model_dump(mode="json") | dossier.opening.brief.model_dump(mode="json")
    if (km := dossier.opening.brief.km_per_year) is not None:
        values["km_per_year"] = reckoning.terms.scale("distance").number(km)
    return _edit(request, dossier, values, {})


@router.post("/inspections/{inspection}/vehicle")
async def save_vehicle(request: Request, inspection: UUID, desk: DeskHere) -> Response:
    """Store what changed; nothing is taken while a field is wrong or another window saved in between."""
    form = dict(await request.form())
    reckoning = desk.reckoning(inspection)
    dossier = reckoning.dossier
    try:
        km = dossier.opening.brief.km_per_year
        vehicle, brief, faults = _read_form(form, dossier.vehicle, reckoning.terms, km)
    except KeyError:
        vehicle, brief, faults = None, None, {"body_style": "This body style is not known."}
    if not faults and form.get("basis") != _basis(dossier):
        faults = {"form": "Saved in another window meanwhile. Look at what you typed, then save again to keep yours."}
    if faults or vehicle is None or brief is None:
        return _edit(request, dossier, form, faults, 422)
    now, drafts = desk.now(), []
    if vehicle.vehicle != dossier.vehicle:
        drafts.append(Draft.write("inspection.vehicle", vehicle, now))
        if vehicle.vehicle.kind != dossier.vehicle.kind:
            drafts += own_vehicles_drafts(desk, vehicle.vehicle, inspection, dossier.film.own_vehicles)
    if brief != dossier.opening.brief:
        drafts.append(Draft.write("inspection.brief", brief, now))
    desk.logbook.append(inspection, drafts, desk.author)
    return RedirectResponse(f"/inspections/{inspection}/vehicle", 303)


def _unfinished(desk: DeskHere, inspection: UUID) -> bool:
    """True while something was not touched, not looked at again, or proposed and not answered."""
    reckoning = desk.reckoning(inspection)
    looks = any(one.open for one in reckoning.second_looks(desk.now()))
    return bool(gaps(reckoning.dossier) or looks or reckoning.proposed_limits)


@router.post("/inspections/{inspection}/stage")
async def move_stage(request: Request, inspection: UUID, desk: DeskHere) -> Response:
    """Finish, archive or reopen an inspection; what nobody has checked is asked about before it is finished."""
    form = await request.form()
    stage = next((one for one in Stage if one.value == form.get("stage")), Stage.BEGUN)
    before = desk.reckoning(inspection).dossier.opening.stage
    if stage is Stage.ARCHIVED and not before.done:
        raise HTTPException(409, "Only a finished inspection is archived.")
    if stage is Stage.FINISHED and not before.done and not form.get("anyway") and _unfinished(desk, inspection):
        return RedirectResponse(f"/inspections/{inspection}/gaps?finishing=yes", 303)
    if before is not stage:
        draft = Draft.write("inspection.stage", StageReached(stage=stage), desk.now())
        desk.logbook.append(inspection, [draft], desk.author)
        desk.reckoning(inspection)  # what it teaches about the next is known from here on
    back = "/?show=archived" if form.get("back") == "archived" else "/"
    return RedirectResponse(back if stage.done else f"/inspections/{inspection}", 303)


station_page(
    StationPage(
        "vehicle",
        "Brief",
        Phase.PREPARE,
        10,
        router,
        shows={"inspection.vehicle": "vehicle", "inspection.brief": "vehicle"},
    )
)
