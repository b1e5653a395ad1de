"""The logbook of an inspection, entry by entry, in words; how far it holds together."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from typing import Any
from uuid import UUID, uuid4

from fastapi import APIRouter, HTTPException, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import FileResponse, JSONResponse, Response
from starlette.background import BackgroundTask

from hakutsu.dossier.folding import parted
from hakutsu.entries import Entry, Unread
from hakutsu.exchange.bundle import export_bundle
from hakutsu.exchange.bundle_file import BundleFile, BundleRefused
from hakutsu.exchange.bundle_import import Imported, NotImported, import_bundle
from hakutsu.logbook.integrity import Checked
from hakutsu.reckoning import Reckoning
from hakutsu.report.wording import body_words
from hakutsu.web.desk import INTEGRITY, Desk, DeskHere
from hakutsu.web.paging import Number, part_of
from hakutsu.web.rendering import page
from hakutsu.web.station import Phase, StationPage, station_page
from hakutsu.web.summary import Show

router = APIRouter()
OTHERS = 50


@dataclass(frozen=True, slots=True)
class Line:
    """One entry as its logbook shows it; `unread` says why this version cannot read it, `id` that it can be ticked."""

    seq: int
    at: datetime | None
    by: str
    place: str
    kind: str
    said: str
    struck: bool = False
    takes_back: UUID | None = None
    notes: str = ""
    unread: str = ""
    id: UUID | None = None


def _line(entry: Entry, reckoning: Reckoning) -> Line:
    terms, struck = reckoning.terms, entry.id in reckoning.dossier.struck
    kind, said = body_words(entry.parsed(), terms)
    marks = (entry.how, "own doing" if entry.own_doing else "", "for the desk" if entry.for_desk else "")
    notes = " ".join(one for one in marks if one)
    ticked = None if struck or entry.strikes or entry.kind.startswith("inspection.") else entry.id
    place = terms.place(entry.place)
    return Line(entry.seq, entry.at, entry.by, place, kind, said, struck, entry.strikes, notes, id=ticked)


def _unread(entry: Unread) -> Line:
    return Line(entry.seq, entry.at, entry.by, entry.place or "", entry.kind, entry.stored[:400], unread=entry.why)


def logbook_lines(reckoning: Reckoning, entries: Sequence[Entry], unread: Sequence[Unread]) -> list[Line]:
    """Entries in words, newest last, those that cannot be read among them."""
    readable, no_bodies = parted(entries)
    lines = [_line(entry, reckoning) for entry in readable] + [_unread(one) for one in (*unread, *no_bodies)]
    return sorted(lines, key=lambda line: line.seq)


@router.get("/inspections/{inspection}/logbook")
def show_logbook(
    request: Request, inspection: UUID, desk: DeskHere, at: Number = None, start: Number = None
) -> Response:
    """Entries, fifty at a time, struck ones crossed out; there is one too where the vehicle cannot be read."""
    if not desk.logbook.holds(inspection):
        raise HTTPException(404, "There is no inspection at this address.")
    reckoning = _known(inspection, desk)
    dossier = reckoning.dossier
    known = dossier.opening.vehicle is not None
    end = desk.logbook.end(inspection)
    part = part_of(end.seq if end else 0, start, at)
    # What is stored, not what is at hand: that goes by the last hash and would not show damage before it.
    stored = desk.logbook.read(inspection, part.first - 1, part.last)
    about: dict[str, Any] = {"dossier": dossier} if known else {}
    return page(
        request,
        "logbook.html",
        **about,
        parent="inspection.html" if known else "base.html",
        name=dossier.vehicle.name if known else "an inspection without its vehicle",
        here=f"/inspections/{inspection}",
        terms=reckoning.terms,
        lines=logbook_lines(reckoning, *stored),
        part=part,
        others=[one for one in desk.summaries.page(0, OTHERS, Show.OPEN)[0] if one.inspection != inspection],
        struck=len(dossier.struck),
        by_id=dossier.by_id,
        checked=_checked(inspection, desk),
        came_with=desk.logbook.imported_tip(inspection),
        ended=desk.background.ended.get(INTEGRITY, ""),
        tab="logbook",
    )


def _known(inspection: UUID, desk: Desk) -> Reckoning:
    """The reckoning; one without a vehicle, which is not kept, where that cannot be read."""
    try:
        return desk.reckoning(inspection)
    except HTTPException:
        return desk.reckoned(inspection)


def _checked(inspection: UUID, desk: DeskHere) -> Checked:
    return desk.integrity.check(inspection, desk.now())


@router.get("/inspections/{inspection}/logbook/export")
def export(inspection: UUID, desk: DeskHere) -> Response:
    """The inspection as one file; made for this answer and gone after it."""
    if not desk.logbook.holds(inspection):
        raise HTTPException(404, "There is no inspection at this address.")
    desk.uploads.mkdir(exist_ok=True)
    target = desk.uploads / f"export-{uuid4().hex}"
    export_bundle(desk.logbook, desk.pictures, inspection, target)
    name = f"inspection-{str(inspection)[:8]}.zip"
    gone = BackgroundTask(target.unlink, missing_ok=True)
    return FileResponse(target, media_type="application/zip", filename=name, background=gone)


@router.put("/logbook/import")
async def take_in(request: Request, desk: DeskHere, new_id: bool = False) -> Response:
    """Take an exported inspection in, as the request's body; every fault of it is named, and then nothing is stored."""
    desk.uploads.mkdir(exist_ok=True)
    arrived = desk.uploads / f"import-{uuid4().hex}"
    try:
        with arrived.open("wb") as file:
            async for chunk in request.stream():
                await run_in_threadpool(file.write, chunk)
        done = await run_in_threadpool(_import, arrived, desk, new_id)
    except BundleRefused as error:
        return JSONResponse({"faults": [str(error)]}, 422)
    except NotImported as error:
        return JSONResponse({"faults": error.faults}, 422)
    finally:
        arrived.unlink(missing_ok=True)
    return JSONResponse(
        {"inspection": str(done.inspection), "added": done.added, "known": done.known, "pictures": done.pictures,
         "remarks": done.remarks}
    )  # fmt: skip


def _import(path: Path, desk: Desk, new_id: bool) -> Imported:
    with BundleFile(path) as bundle:
        return import_bundle(bundle, desk.logbook, desk.pictures, new_id=new_id)


station_page(StationPage("logbook", "Logbook", Phase.REPORT, 20, router))
