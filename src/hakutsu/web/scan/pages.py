"""The scan station: its page and its moving parts, the sweep, what is noted by hand."""

from __future__ import annotations

import json
import re
from collections.abc import Iterable
from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import JSONResponse, PlainTextResponse, RedirectResponse, Response
from markupsafe import Markup
from pydantic import BaseModel, Field, ValidationError
from starlette.datastructures import UploadFile

from hakutsu.core.scan.cleared import HALF, cleared_words
from hakutsu.core.scan.codec.codes import PATTERN
from hakutsu.core.scan.codec.readiness import monitor_words
from hakutsu.core.scan.codes import told
from hakutsu.core.scan.units import unit_name
from hakutsu.core.scan.values import counter_lines, misfire_lines, value_lines
from hakutsu.dossier.scan import ScanDossier
from hakutsu.dossier.variant import VariantDossier
from hakutsu.entries import Draft
from hakutsu.entries import scan as kinds
from hakutsu.entries.scan import Link, ScanRead
from hakutsu.exchange.scan_files import BadFile, scan_csv, scan_from_file
from hakutsu.exchange.scan_json import scan_json
from hakutsu.figures.trims import trims_drawing
from hakutsu.instruments.diagnostic.bus import NoLink
from hakutsu.instruments.diagnostic.simulated_vehicle import scenarios
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.scan import ScanReckoned
from hakutsu.report.condition_section import story_lines
from hakutsu.report.finding_wording import found_line
from hakutsu.report.wording import body_words
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.rendering import fragment, page
from hakutsu.web.scan.sweep import Sweep, Sweeps
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()
HERE = "/inspections/{inspection}/scan"
AT_FAULT = {"module": "Say which unit.", "minutes": "Minutes are a number.", "count": "How many is a number up to 200."}
NO_CODES = "Codes are written as P0301 or U0100-87, apart by blanks; or give words, or how many there are."


class Starting(BaseModel):
    """An adapter's address, or a scenario of the stand-in; `wide` asks every identifier of 29 bits too."""

    url: Annotated[str, Field(max_length=200)] = ""
    scenario: Annotated[str, Field(max_length=40)] = ""
    wide: bool = False


def scan_context(reckoning: Reckoning) -> dict[str, Any]:
    """Units as they were read last, findings, the memory, reads compared, notes by hand."""
    terms, scan = reckoning.terms, reckoning.dossier[ScanDossier]
    rules, last = reckoning.station(ScanReckoned), scan.last
    judged = rules.cleared
    modules = last.body.modules if last else ()
    codes = [(unit_name(unit), code, told(code.code)) for unit in modules for code in unit.codes or ()]
    follows = {one.subject: found_line(one, terms) for one in rules.found}
    return {
        "dossier": reckoning.dossier,
        "terms": terms,
        "stand_downs": reckoning.stand_downs,
        "last": last,
        "modules": [(unit_name(one), one) for one in modules],
        "follows": follows,
        "monitor_words": monitor_words,
        "value_lines": value_lines,
        "counter_lines": counter_lines,
        "misfire_lines": misfire_lines,
        "trims": lambda unit: Markup(trims_drawing(unit.live)),
        "codes": codes,
        "library_notes": _library_notes(reckoning, [code.code for _, code, _ in codes]),
        "found": [found_line(one, terms) for one in rules.found if not PATTERN.match(one.subject)],
        "cleared": judged,
        "cleared_words": cleared_words(judged.probability) if judged and judged.probability < HALF else "",
        "changes": rules.changes,
        "work": [(seen.entry.id, body_words(seen.body, terms)[1]) for seen in scan.seller_work],
        "waiting": [found_line(one, terms) for one in rules.waiting],
        "stories": story_lines(reckoning, "scan"),
        "by_hand": [(seen.entry.id, body_words(seen.body, terms)[1]) for seen in scan.by_hand],
        "unread": (scan.none.entry.id, body_words(scan.none.body, terms)[1]) if scan.none else None,
        "lamp": scan.lamp.body if scan.lamp else kinds.EngineLamp(),
        "plate": scan.plate.body.vin if scan.plate else "",
        "scenarios": list(scenarios()),
        "keys": list(kinds.KeyPosition),
        "whys": list(kinds.NotScanned),
        "seens": list(kinds.LampSeen),
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection)}),
    }


def _library_notes(reckoning: Reckoning, codes: Iterable[str]) -> list[tuple[str, str]]:
    """What the library notes of codes that were read."""
    taken = reckoning.dossier[VariantDossier].taken
    notes = taken.body.codes if taken else {}
    return [(one, notes[one]) for one in dict.fromkeys(codes) if one in notes]


def scan_fragments(reckoning: Reckoning) -> dict[str, str]:
    """Findings, units, notes, stand-downs."""
    context = scan_context(reckoning)
    return {
        "scan_found": fragment("scan/_found.html", **context),
        "scan_units": fragment("scan/_units.html", **context),
        "scan_noted": fragment("scan/_noted.html", **context),
        "standing": fragment("round/_standing.html", **context),
    }


@router.get(HERE)
def show_scan(request: Request, reckoning: ReckoningHere) -> Response:
    """The scan."""
    return page(request, "scan/station.html", tab="scan", fault="", typed={}, **scan_context(reckoning))


@router.get(f"{HERE}.json")
def scan_as_json(reckoning: ReckoningHere) -> Response:
    """What was read last, as the command line gives it."""
    last = reckoning.dossier[ScanDossier].last
    return JSONResponse(scan_json(last.body) if last else {"modules": [], "problems": ["nothing was read yet"]})


@router.get(f"{HERE}.csv")
def scan_as_csv(reckoning: ReckoningHere) -> Response:
    """Codes of the last read by unit; the columns alone where nothing was read."""
    last = reckoning.dossier[ScanDossier].last
    empty = ScanRead(link=Link(bitrate=None, identifiers=11), modules=())
    headers = {"Content-Disposition": 'attachment; filename="codes.csv"'}
    return PlainTextResponse(scan_csv(last.body if last else empty), media_type="text/csv", headers=headers)


@router.post(f"{HERE}/file")
async def take_file(request: Request, inspection: UUID, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """Take a file: JSON as it was read elsewhere, or a CSV of codes."""
    form = await request.form()
    sent = form.get("file")
    try:
        data = await sent.read() if isinstance(sent, UploadFile) else b""
        body = scan_from_file(data)
    except BadFile as error:
        context = scan_context(reckoning) | {"fault": f"The file was not taken: {error}.", "typed": {}}
        return page(request, "scan/station.html", status=422, tab="scan", **context)
    kind = "scan.read" if isinstance(body, ScanRead) else "scan.by_hand"
    desk.logbook.append(inspection, [Draft.write(kind, body, desk.now())], desk.author)
    return RedirectResponse(f"/inspections/{inspection}/scan", 303)


def _sweep(request: Request, inspection: UUID) -> Sweep:
    sweeps: Sweeps = request.app.state.sweeps
    return sweeps.of(inspection)


@router.get(f"{HERE}/link")
def sweep_state(request: Request, inspection: UUID, _: ReckoningHere) -> dict[str, Any]:
    """The sweep as it stands."""
    return _sweep(request, inspection).state()


@router.post(f"{HERE}/link")
def start_sweep(request: Request, inspection: UUID, starting: Starting, _: ReckoningHere) -> dict[str, Any]:
    """Begin a sweep; the link of the engine run is let go, for one adapter carries one."""
    if not starting.url and starting.scenario not in scenarios():
        raise HTTPException(422, "Give the adapter’s address, or choose a scenario of the stand-in.")
    request.app.state.scans.of(inspection).close()
    sweep = _sweep(request, inspection)
    try:
        sweep.start(starting.url, scenario="" if starting.url else starting.scenario, wide=starting.wide)
    except NoLink as trouble:
        raise HTTPException(409, str(trouble)) from trouble
    return sweep.state()


@router.delete(f"{HERE}/link")
def stop_sweep(request: Request, inspection: UUID, _: ReckoningHere) -> dict[str, Any]:
    """Stop a sweep; what was read is kept."""
    sweep = _sweep(request, inspection)
    sweep.close()
    return sweep.state()


@router.post(f"{HERE}/by-hand")
async def note_by_hand(request: Request, inspection: UUID, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """Take a reader's result: one unit with codes, words, or how many."""
    typed = {key: str(value).strip() for key, value in (await request.form()).items()}
    codes = [one.upper() for one in re.split(r"[\s,;]+", typed.get("codes", "")) if one]
    try:
        module = kinds.ModuleNoted.model_validate(
            {"module": typed.get("module", ""), "codes": codes, "words": typed.get("words", ""),
             "count": typed.get("count") or None}
        )  # fmt: skip
        body = kinds.ScanByHand.model_validate(
            {"modules": [module], "tool": typed.get("tool", ""), "told": typed.get("told", ""),
             "key": typed.get("key") or "unknown", "minutes": typed.get("minutes", "").replace(",", ".") or None}
        )  # fmt: skip
    except ValidationError as error:
        where = str(error.errors()[0]["loc"][0]) if error.errors()[0]["loc"] else ""
        fault = {
            "module": "Say which unit.",
            "minutes": "Minutes are a number.",
            "count": "How many is a number up to 200.",
        }
        context = scan_context(reckoning) | {"fault": fault.get(where, NO_CODES), "typed": typed}
        return page(request, "scan/station.html", status=422, tab="scan", **context)
    desk.logbook.append(inspection, [Draft.write("scan.by_hand", body, desk.now())], desk.author)
    return RedirectResponse(f"/inspections/{inspection}/scan", 303)


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return scan_fragments(reckoning)


station_page(
    StationPage("scan", "Scan", Phase.AT_THE_VEHICLE, 100, router, _fragments, covers={"scan": "scan"},
                shows={"scan.": "scan"})
)  # fmt: skip
