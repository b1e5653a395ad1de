"""Routes of the variant, and of the library."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, Form, HTTPException, Request
from fastapi.responses import JSONResponse, RedirectResponse, Response
from starlette.datastructures import UploadFile

from hakutsu.core.life.components import scheduled_items
from hakutsu.dossier import Dossier
from hakutsu.dossier.variant import VariantDossier
from hakutsu.entries.envelope import Draft
from hakutsu.entries.service import Plan, PlanRow
from hakutsu.entries.variant import VariantTaken
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.library import BadLibrary, LibraryFile, library_schema, read_library
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.rendering import page
from hakutsu.web.station import Asked, Phase, StationPage, station_page
from hakutsu.web.variant.context import variant_context, variant_fragments

router = APIRouter()
HERE = "/inspections/{inspection}/variant"
NAMED = 8


@router.get(HERE)
def show_variant(request: Request, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """What it is said to be, and what tells."""
    context = variant_context(reckoning, desk.logbook.library.known)
    return page(request, "variant/station.html", tab="variant", **context)


@router.post(f"{HERE}/taken")
def take_variant(
    inspection: UUID, reckoning: ReckoningHere, desk: DeskHere, key: Annotated[str, Form()] = ""
) -> Response:
    """Take a variant of the library over into the logbook, with its plan."""
    known = desk.logbook.library.known
    if key not in known.variants:
        raise HTTPException(404, "The library has no such variant.")
    row = known.whole(key)
    body = VariantTaken(
        key=key, name=row.name, features=row.features, weak=row.weak, colours=row.colours, letters=row.letters,
        codes=row.codes, film_um=row.film_um,
    )  # fmt: skip
    drafts = [Draft.write("variant.taken", body, desk.now())]
    rows = tuple(
        PlanRow(item=one.item, km=one.km, months=one.months) for one in row.plan if one.item in scheduled_items()
    )
    if rows:
        drafts.append(Draft.write("service.plan", Plan(name=row.name[:60], rows=rows), desk.now()))
    desk.logbook.append(inspection, drafts, desk.author)
    return RedirectResponse(f"/inspections/{inspection}/variant", 303)


def _library(request: Request, desk: DeskHere, faults: list[str], said: str = "") -> Response:
    known = desk.logbook.library.known
    rows: list[tuple[str, Any, str]] = []
    for key in known.variants:
        row = known.whole(key)
        of = known.variants[key].of
        rows.append((key, row, known.variants[of].name if of else ""))
    status = 422 if faults else 200
    return page(request, "variant/library.html", status=status, rows=rows, faults=faults, said=said)


@router.get("/library")
def show_library(request: Request, desk: DeskHere) -> Response:
    """What the inspector knows of variants."""
    return _library(request, desk, [])


@router.get("/library/file.json")
def library_file(desk: DeskHere) -> Response:
    """The library as a file."""
    body = desk.logbook.library.known.model_dump(mode="json", exclude_defaults=True) | {"version": 1}
    return JSONResponse(body, headers={"Content-Disposition": 'attachment; filename="library.json"'})


@router.get("/library/schema.json")
def schema() -> Response:
    """JSON Schema of such a file."""
    return JSONResponse(library_schema())


@router.post("/library")
async def take_library(request: Request, desk: DeskHere) -> Response:
    """Take a file in: variants of the same key are replaced, all others stay."""
    async with request.form() as form:
        sent = form.get("file")
        data = await sent.read() if isinstance(sent, UploadFile) else b""
    if not data:
        return _library(request, desk, ["Pick a file first."])
    try:
        read = read_library(data)
        known = LibraryFile(variants={**desk.logbook.library.known.variants, **read.variants})
    except BadLibrary as error:
        more = [f"and {len(error.faults) - NAMED} more"] if len(error.faults) > NAMED else []
        return _library(request, desk, [*error.faults[:NAMED], *more])
    except ValueError as error:
        return _library(request, desk, [str(error).splitlines()[-1]])
    desk.logbook.library.known = known
    count = len(read.variants)
    unknown = sorted({row.item for one in read.variants.values() for row in one.plan} - {*scheduled_items()})
    left = f" Left out of plans, since nobody here knows them: {', '.join(unknown)}." if unknown else ""
    return _library(request, desk, [], f"{count} variant{'s' if count != 1 else ''} taken in.{left}")


@router.post("/library/forgotten")
def forget(desk: DeskHere, key: Annotated[str, Form()] = "") -> Response:
    """Take a variant out, unless another is a kind of it."""
    variants = dict(desk.logbook.library.known.variants)
    if key in variants and all(one.of != key for one in variants.values()):
        del variants[key]
        desk.logbook.library.known = LibraryFile(variants=variants)
    return RedirectResponse("/library", 303)


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return variant_fragments(reckoning)


def _progress(dossier: Dossier) -> tuple[int, int]:
    """Features and weak points looked at, of those the variant has."""
    state = dossier[VariantDossier]
    if state.taken is None:
        return 0, 0
    body = state.taken.body
    done = sum(row.key in state.features for row in body.features) + sum(row.key in state.weak for row in body.weak)
    return done, len(body.features) + len(body.weak)


station_page(
    StationPage("variant", "Variant", Phase.PAPERS, 30, router, _fragments, progress=_progress,
                shows={"variant.": "variant"})
)  # fmt: skip
