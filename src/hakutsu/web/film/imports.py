"""Import a film survey: upload, look at what would happen, then store."""

from __future__ import annotations

import hashlib
import re
import time
from pathlib import Path
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Form, HTTPException, Request, UploadFile
from fastapi.responses import RedirectResponse, Response

from hakutsu.exchange.film_csv import read_film_csv
from hakutsu.exchange.film_import import MOST_FILE_ROWS, import_drafts, plan_import
from hakutsu.logbook.adding import Signed, checked
from hakutsu.logbook.importing import Arriving, NotAll, import_entries
from hakutsu.web.desk import Desk, DeskHere, ReckoningHere
from hakutsu.web.rendering import page

router = APIRouter()
MOST_BYTES = 5 * 1024 * 1024
MOST_SHOWN = 200
KEPT_SECONDS = 24 * 3600
SHA256 = re.compile(r"[0-9a-f]{64}")


def _keep(desk: Desk, data: bytes, name: str) -> str:
    """Put an upload aside until it is stored; older ones are cleared away."""
    desk.uploads.mkdir(exist_ok=True)
    for old in desk.uploads.iterdir():
        if time.time() - old.stat().st_mtime > KEPT_SECONDS:
            old.unlink(missing_ok=True)
    digest = hashlib.sha256(data).hexdigest()
    (desk.uploads / digest).write_bytes(data)
    (desk.uploads / f"{digest}.name").write_text(name[-200:], encoding="utf-8")
    return digest


def _kept(desk: Desk, digest: str) -> tuple[bytes, str]:
    path = desk.uploads / digest
    if not SHA256.fullmatch(digest) or not path.is_file():
        raise HTTPException(404, "This file is not here any more. Pick it again on the import page.")
    return path.read_bytes(), (desk.uploads / f"{digest}.name").read_text(encoding="utf-8")


@router.get("/inspections/{inspection}/film/import")
def pick(request: Request, reckoning: ReckoningHere) -> Response:
    """Where a file is picked or dropped."""
    return page(request, "film/import.html", dossier=reckoning.dossier, tab="film", fault="", plan=None)


@router.post("/inspections/{inspection}/film/import")
async def upload(request: Request, inspection: UUID, desk: DeskHere, file: UploadFile | None = None) -> Response:
    """Take the file and lead to its preview."""
    data = await file.read(MOST_BYTES + 1) if file else b""
    fault = "Pick a file first." if not data else ""
    if len(data) > MOST_BYTES:
        most = MOST_BYTES // 1024 // 1024
        fault = f"The file is larger than {most} MB. A film survey is far smaller: is it the right one?"
    if fault or file is None:
        dossier = desk.reckoning(inspection).dossier
        return page(request, "film/import.html", status=422, dossier=dossier, tab="film", fault=fault, plan=None)
    digest = _keep(desk, data, Path(file.filename or "file.csv").name)
    return RedirectResponse(f"/inspections/{inspection}/film/import/{digest}", 303)


@router.get("/inspections/{inspection}/film/import/{digest}")
def preview(
    request: Request, digest: str, reckoning: ReckoningHere, desk: DeskHere, survey: str | None = None, fault: str = ""
) -> Response:
    """What would be stored, every bad row, and what is asked; nothing is stored yet."""
    data, name = _kept(desk, digest)
    file = read_film_csv(data, MOST_FILE_ROWS)
    ids = file.survey_ids()
    chosen = survey if survey in ids else (ids[0] if len(ids) == 1 else None)
    plan = plan_import(file, chosen if chosen is not None else "", reckoning.dossier, digest, reckoning.terms)
    return page(
        request, "film/import.html", dossier=reckoning.dossier, tab="film", fault=fault, plan=plan, name=name,
        digest=digest, surveys=ids, chosen=chosen, shown=MOST_SHOWN,
    )  # fmt: skip


@router.post("/inspections/{inspection}/film/import/{digest}")
def store(
    request: Request,
    inspection: UUID,
    digest: str,
    desk: DeskHere,
    survey: Annotated[str, Form()] = "",
    finish: Annotated[str, Form()] = "",
    accept_clean: Annotated[str, Form()] = "",
) -> Response:
    """Store the rows of the preview."""
    data, name = _kept(desk, digest)
    dossier = desk.reckoning(inspection).dossier
    plan = plan_import(read_film_csv(data, MOST_FILE_ROWS), survey, dossier, digest)
    fault = ""
    if plan.bad and not accept_clean:
        fault = "There are bad rows: mend the file, or tick that the good rows alone are wanted."
    if plan.finish_conflict is not None and finish not in ("file", "inspection"):
        fault = "Say which declared finish holds."
    if fault:
        return preview(request, digest, desk.reckoning(inspection), desk, survey, fault)
    drafts = import_drafts(plan, dossier, desk.now(), name=name, sha256=digest, take_finish=finish == "file")
    looked_at = checked(Signed(draft, desk.author) for draft in drafts)
    try:
        import_entries(desk.logbook, Arriving(inspection, desk.now()), looked_at)
    except NotAll as error:
        return preview(request, digest, desk.reckoning(inspection), desk, survey, f"Nothing was stored: {error}")
    return RedirectResponse(f"/inspections/{inspection}/film", 303)
