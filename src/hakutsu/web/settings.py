"""Settings of the account, or of one inspection: words, units, clock, rules, money, what an inspection begins with."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from typing import Any
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from pydantic import ValidationError

from hakutsu.core.costs import Job, cost_table, usual_jobs
from hakutsu.core.film import parameters
from hakutsu.core.life.components import Component, Scheduled, components, scheduled_items
from hakutsu.entries import Draft
from hakutsu.entries.day import Walk
from hakutsu.entries.settings import FilmBand, LifeFigures, Overrides, Settings, time_zones
from hakutsu.vehicle.places import outside, places
from hakutsu.vehicle.quantities import QUANTITIES, scales
from hakutsu.vehicle.rules import rule_sets
from hakutsu.vehicle.typed import Unclear, amount
from hakutsu.vehicle.vocabulary import Direction, Names, Protocol, SideNames, Unit
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.rendering import page
from hakutsu.web.station import Phase, StationPage, station_page

router = APIRouter()
Option = tuple[str, str]
OF_ONE = ("names", "sides", "film", *QUANTITIES, "zone", "rules", "labour_rate")
OF_ACCOUNT = (
    *OF_ONE,
    "currency",
    "protocol",
    "start",
    "direction",
    "link_hosts",
    "film_school",
    "film_band",
    "film_makes",
    "film_learn",
)
WORDS: dict[str, Sequence[Option]] = {
    "names": ((Names.BRITISH, "bonnet, wing, boot, tyre"), (Names.AMERICAN, "hood, fender, trunk, tire")),
    "sides": (
        (SideNames.OWN, "the vehicle’s own left and right"),
        (SideNames.SPOKEN, "as those words go: near and offside, or driver’s and passenger side"),
    ),
}
UNITS: dict[str, tuple[str, Sequence[Option]]] = {
    "film": ("Paint film", ((Unit.UM, "µm"), (Unit.MIL, "mil (thousandths of an inch)"))),
    "distance": ("Distance", ()),
    "depth": ("Tread, pads, discs", ()),
    "temperature": ("Temperature", ()),
    "pressure": ("Pressure", ()),
}
AT_FAULT = {
    "currency": "Three letters, such as EUR.",
    "zone": "Choose one of the list, such as UTC.",
    "labour_rate": "An amount above 0, such as 65 or 72.50.",
    "film_band": "Two thicknesses in µm, the lowest first, such as 160 to 180.",
    "film_makes": "One make a line with its band in µm, such as Pellin 130 to 160.",
    "link_hosts": "At most 20 names or addresses, apart by blanks, such as gauge-bridge.",
}
LIFE_FIELDS = {"km": "1,000 km", "years": "years", "beta": "shape"}
RANGE = "Write it as 0.5 to 1.2, the lowest first."
_SPAN = re.compile(r"\s*(\d[\d.,]*)\s*(?:(?:to|[-–])\s*(\d[\d.,]*))?\s*")


def _units() -> list[tuple[str, str, list[Option]]]:
    """Every quantity with its name and its units."""
    return [
        (key, name, list(own) or [(one.key, one.name) for one in scales(key).values()])
        for key, (name, own) in UNITS.items()
    ]


def span(text: str) -> tuple[float, float] | None:
    """A range as written: "0.5 to 1.2", "0,5-1,2" or one number; none where it is neither."""
    found = _SPAN.fullmatch(text)
    if found is None:
        return None
    try:
        low, high = (float((one or found[1]).replace(",", ".")) for one in found.groups())
    except ValueError:
        return None
    return low, high


def span_words(low: float, high: float) -> str:
    """A range as it is written."""
    return f"{low:g}" if low == high else f"{low:g} to {high:g}"


def _costs(form: Mapping[str, str], faults: dict[str, str]) -> dict[str, Any]:
    """The inspector's own figures of jobs; a row left as ours, or empty, is none of their own."""
    found = {}
    for key, job in usual_jobs().items():
        texts = {name: form.get(f"{name}_{key}", "").strip() for name in ("hours", "materials")}
        if not any(texts.values()):
            continue
        said = {name: span(text) if text else getattr(job.figures, name) for name, text in texts.items()}
        wrong = [name for name, one in said.items() if one is None or one[0] > one[1] or one[1] > 100_000]
        faults |= {f"{name}_{key}": RANGE for name in wrong}
        if not wrong and said != {"hours": job.figures.hours, "materials": job.figures.materials}:
            found[key] = said
    return found


def life_rows() -> list[tuple[str, str, LifeFigures]]:
    """Every part with a life and every interval: key, name, our figures."""
    rows: list[Component | Scheduled] = [one for one in components().values() if not one.looked_only]
    rows += scheduled_items().values()
    return [
        (one.key, one.name, LifeFigures(km=one.km and one.km / 1000, years=one.years, beta=getattr(one, "beta", None)))
        for one in rows
    ]


def _lives(form: Mapping[str, str], faults: dict[str, str]) -> dict[str, Any]:
    """The inspector's own lives and intervals; a row left empty, or as ours, is none of their own."""
    found = {}
    for key, _, ours in life_rows():
        texts = {name: form.get(f"life_{name}_{key}", "").strip().replace(",", ".") for name in LIFE_FIELDS}
        if not any(texts.values()):
            continue
        said = {name: text or None for name, text in texts.items()}
        said["beta"] = said["beta"] or (str(ours.beta) if ours.beta else None)
        try:
            figures = LifeFigures.model_validate(said)
        except ValidationError as error:
            name = str(error.errors()[0]["loc"][0]) if error.errors()[0]["loc"] else "km"
            faults[f"life_{name}_{key}"] = "A number above 0; a life by distance, by time, or both."
            continue
        if figures != ours:
            found[key] = said
    return found


def _band(text: str) -> dict[str, float] | None:
    found = span(text)
    return {"low_um": found[0], "high_um": found[1]} if found and 0 < found[0] <= found[1] <= 5_000 else None


def _film(form: Mapping[str, str], faults: dict[str, str]) -> dict[str, Any]:
    """The inspector's school and bands; empty fields are ours."""
    found: dict[str, Any] = {"film_school": form.get("film_school") or None, "film_bands": {}}
    if form.get("film_band"):
        found["film_band"] = _band(form["film_band"])
        if found["film_band"] is None:
            faults["film_band"] = AT_FAULT["film_band"]
    found["film_learn"] = form.get("film_learn") != "no"
    for line in filter(None, (one.strip() for one in re.split(r"[\n;]", form.get("film_makes", "")))):
        said = re.fullmatch(r"(\D.*?)[\s:]+(\d.*)", line)
        band = _band(said[2]) if said else None
        if said is None or band is None:
            faults["film_makes"] = AT_FAULT["film_makes"]
        else:
            found["film_bands"][said[1].strip()] = band
    return found


def _band_words(band: FilmBand) -> str:
    return f"{band.low_um:g} to {band.high_um:g}"


def _faults(error: ValidationError) -> dict[str, str]:
    names = [str(one["loc"][0]) if one["loc"] else "form" for one in error.errors()]
    return {name: AT_FAULT.get(name, "Choose one of the list.") for name in names}


async def _typed(request: Request) -> dict[str, str]:
    typed = {key: str(value).strip() for key, value in (await request.form()).items()}
    if "currency" in typed:
        typed["currency"] = typed["currency"].upper()
    return typed


def _rate(typed: Mapping[str, str], said: dict[str, Any], faults: dict[str, str]) -> None:
    """Read the labour rate as it is written; what may be two amounts is asked about."""
    if not typed.get("labour_rate"):
        return
    try:
        said["labour_rate"] = amount(typed["labour_rate"])
    except Unclear as error:
        faults["labour_rate"] = str(error)
        said.pop("labour_rate")


def _shown(settings: Settings | Overrides) -> dict[str, str]:
    """Settings as the texts of the form."""
    said = settings.model_dump(mode="json", exclude={"costs", "lives", "walk", "link_hosts", "film_band", "film_bands"})
    found = {key: "" if value is None else str(value) for key, value in said.items()}
    for key, figures in settings.costs.items():
        found |= {f"hours_{key}": span_words(*figures.hours), f"materials_{key}": span_words(*figures.materials)}
    for key, own in settings.lives.items():
        for name in LIFE_FIELDS:
            value = getattr(own, name)
            found[f"life_{name}_{key}"] = "" if value is None else f"{value:g}"
    if isinstance(settings, Settings):
        found |= settings.walk.model_dump(mode="json")
        found["link_hosts"] = " ".join(settings.link_hosts)
        found["film_band"] = _band_words(settings.film_band) if settings.film_band else ""
        found["film_learn"] = "yes" if settings.film_learn else "no"
        found["film_makes"] = "\n".join(f"{make} {_band_words(band)}" for make, band in settings.film_bands.items())
    return found


def _context(values: Mapping[str, str], faults: Mapping[str, str], base: Settings) -> dict[str, Any]:
    """What the form shows; `base` are the settings that hold where it says nothing."""
    jobs: list[tuple[Job, Job, tuple[str, ...]]] = []
    for key, job in cost_table(base.costs).items():
        money = tuple(f"{amount:,.0f}" for amount in job.cost(base.labour_rate))
        jobs.append((job, usual_jobs()[key], money))
    lives = [(key, name, ours, base.lives.get(key, ours)) for key, name, ours in life_rows()]
    fields = [*OF_ACCOUNT, *(f"{name}_{key}" for name in ("hours", "materials") for key in usual_jobs())]
    fields += [f"life_{name}_{key}" for key, *_ in lives for name in LIFE_FIELDS]
    return {
        "lives": lives,
        "life_fields": LIFE_FIELDS,
        "values": dict.fromkeys(fields, "") | dict(values),
        "faults": faults,
        "base": base,
        "words": WORDS,
        "units": _units(),
        "zones": sorted(time_zones()),
        "rule_sets": list(rule_sets().values()),
        "rule_names": [(one.key, one.name) for one in rule_sets().values()],
        "usual_words": lambda name, options: dict(options).get(getattr(base, name), "as the gauge shows"),
        "jobs": jobs,
        "span": span_words,
        "starts": [(key, places()[key].name) for key in outside()],
        "directions": [(one.value, str(one)) for one in Direction],
        "film_schools": [("own", "by the car’s own film"), ("fixed", "by a fixed band"), ("restored", "as restored")],
        "film_learning": [("yes", "learn from those finished"), ("no", "leave them aside")],
        "film_band_usual": span_words(*parameters().schools.fixed_band_um),
        "protocols": [(one, one) for one in Protocol],
    }


@router.get("/settings")
def show_settings(request: Request, desk: DeskHere) -> Response:
    """Settings of the account."""
    return page(request, "settings.html", of_one=False, **_context(_shown(desk.settings), {}, desk.settings))


@router.post("/settings")
async def take_settings(request: Request, desk: DeskHere) -> Response:
    """Take the account's settings; everything shown follows, what is stored stays as it is."""
    typed = await _typed(request)
    faults: dict[str, str] = {}
    said: dict[str, Any] = {key: typed.get(key, "") for key in (*OF_ONE, "currency", "protocol")}
    said |= {"film": typed.get("film") or None, "costs": _costs(typed, faults), "lives": _lives(typed, faults)}
    said |= _film(typed, faults)
    _rate(typed, said, faults)
    said["link_hosts"] = re.split(r"[\s,;]+", typed["link_hosts"]) if typed.get("link_hosts") else []
    try:
        said["walk"] = Walk(start=typed.get("start", ""), direction=Direction(typed.get("direction", "")))
    except ValueError:
        faults |= dict.fromkeys(("start", "direction"), "Choose one of the list.")
    try:
        settings = Settings.model_validate(said)
    except ValidationError as error:
        faults |= _faults(error)
    if faults:
        return page(request, "settings.html", status=422, of_one=False, **_context(typed, faults, desk.settings))
    desk.logbook.library.settings = settings
    return RedirectResponse("/settings", 303)


@router.get("/inspections/{inspection}/settings")
def show_own_settings(request: Request, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """What this inspection has otherwise than the account."""
    values = _shown(reckoning.dossier.opening.settings)
    context = _context(values, {}, desk.settings)
    return page(request, "settings.html", of_one=True, tab="settings", dossier=reckoning.dossier, **context)


@router.post("/inspections/{inspection}/settings")
async def take_own_settings(request: Request, inspection: UUID, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """Take them as an entry of the logbook; an empty field is as the account has it."""
    typed = await _typed(request)
    faults: dict[str, str] = {}
    said: dict[str, Any] = {key: typed[key] for key in OF_ONE if typed.get(key)}
    said |= {"costs": _costs(typed, faults), "lives": _lives(typed, faults)}
    _rate(typed, said, faults)
    try:
        body = Overrides.model_validate(said)
    except ValidationError as error:
        faults |= _faults(error)
    if faults:
        context = _context(typed, faults, desk.settings)
        more = {"of_one": True, "tab": "settings", "dossier": reckoning.dossier}
        return page(request, "settings.html", status=422, **more, **context)
    if body != reckoning.dossier.opening.settings:
        desk.logbook.append(inspection, [Draft.write("inspection.settings", body, desk.now())], desk.author)
    return RedirectResponse(f"/inspections/{inspection}/settings", 303)


station_page(StationPage("settings", "Settings", Phase.REPORT, 900, router, shows={"inspection.settings": "settings"}))
