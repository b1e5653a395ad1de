"""Routes of pictures and of the desk queue."""

from __future__ import annotations

from typing import Annotated, Any
from urllib.parse import quote
from uuid import UUID

from fastapi import APIRouter, HTTPException, Query, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import FileResponse, JSONResponse, Response
from pydantic import ValidationError

from hakutsu.entries import Draft
from hakutsu.entries.envelope import Entry
from hakutsu.entries.pictures import Picture, PictureKind
from hakutsu.entries.registry import Body
from hakutsu.logbook.pictures import SIZES, SUFFIXES, PictureRefused, StoredFile
from hakutsu.reckoning import Reckoning
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.paging import Number
from hakutsu.web.pictures.context import desk_context, picture_context, pictures_context, shown
from hakutsu.web.rendering import fragment, page, rail_fragment
from hakutsu.web.station import Phase, StationPage, station_page

router = APIRouter()
UNMADE = (
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 30"><path fill="none" stroke="#75828c" '
    'stroke-dasharray="2 2" d="M2 2h36v26H2z"/></svg>'
)
# A picture opened by itself runs nothing and reaches nothing.
SHOWN_ALONE = "default-src 'none'; img-src 'self'; media-src 'self'; style-src 'unsafe-inline'; sandbox"
FOREVER = {"Cache-Control": "private, max-age=31536000, immutable", "Content-Encoding": "identity"}


def _kept(reckoning: Reckoning, entry: UUID) -> Picture:
    kept = reckoning.dossier.pictures.taken.get(entry)
    if kept is None:
        raise HTTPException(404, "There is no such picture; it may have been taken back.")
    return kept.body


@router.get("/inspections/{inspection}/pictures")
def show_pictures(
    request: Request, reckoning: ReckoningHere, desk: DeskHere, place: str = "", of: str = "", start: Number = None
) -> Response:
    """All pictures, or those of a place or an entry, with the shot list."""
    context = pictures_context(reckoning, desk.pictures, place, of, start)
    return page(request, "pictures/index.html", tab="pictures", **context)


@router.put("/inspections/{inspection}/pictures/{entry}")
async def take_picture(
    request: Request,
    inspection: UUID,
    entry: UUID,
    desk: DeskHere,
    reckoning: ReckoningHere,
    name: str = "",
    place: str = "",
    of: UUID | None = None,
    tag: Annotated[list[str] | None, Query()] = None,
) -> Response:
    """Take a file in as the request's body; the entry's id is made by the client, so that sending twice is harmless."""
    try:
        with desk.pictures.receive() as incoming:
            async for chunk in request.stream():
                await run_in_threadpool(incoming.write, chunk)
            stored = await run_in_threadpool(incoming.keep, name)
    except PictureRefused as error:
        return JSONResponse({"message": f"{name or 'the file'}: {error}"}, 422)
    before = reckoning.dossier.pictures.taken.get(entry)
    if before is not None and before.body.sha256 == stored.sha256:
        return JSONResponse({"entry": str(entry), "fragments": {}})  # sent again: it was here all along
    message = "it could not be stored"
    try:
        body = _body(stored, name, of, tag or [])
        draft = Draft.write("picture.taken", body, desk.now(), id=entry, place=place or None)
        answer = await run_in_threadpool(desk.logbook.append, inspection, [draft], desk.author)
        message = getattr(answer[0], "message", "")
    except ValidationError as error:
        first = error.errors()[0]
        message = f"{first['loc'][0]}: {first['msg']}"
    finally:
        if message and incoming.fresh and not desk.logbook.mentions(stored.sha256):
            desk.pictures.forget(stored.sha256)
    if message:
        return JSONResponse({"message": f"{name or 'the file'}: {message}"}, 422)
    if stored.kind is PictureKind.STILL:
        desk.pictures.want(stored.sha256)
    return JSONResponse({"entry": str(entry), "fragments": _fragments(desk.reckoning(inspection), desk)})


def _body(stored: StoredFile, name: str, of: UUID | None, tags: list[str]) -> Picture:
    return Picture(
        sha256=stored.sha256, name=name[-200:], kind=stored.kind, mime=stored.mime, size=stored.size,
        width=stored.width, height=stored.height, of=of, tags=tuple(tags),
    )  # fmt: skip


def _fragments(reckoning: Reckoning, desk: DeskHere) -> dict[str, str]:
    context = pictures_context(reckoning, desk.pictures)
    found = {name: fragment(f"pictures/_{name}.html", **context) for name in ("grid", "shots")}
    return found | rail_fragment(reckoning, desk.now())


@router.get("/inspections/{inspection}/pictures/progress")
def progress(desk: DeskHere, reckoning: ReckoningHere) -> dict[str, Any]:
    """How many copies are still to be made."""
    return {"waiting": desk.pictures.waiting}


@router.get("/inspections/{inspection}/pictures/compare")
def compare(request: Request, reckoning: ReckoningHere, a: UUID, b: UUID) -> Response:
    """Two pictures side by side."""
    for one in (a, b):
        _kept(reckoning, one)
    taken = reckoning.dossier.pictures.taken
    both = [shown(reckoning, taken[one]) for one in (a, b)]
    return page(request, "pictures/compare.html", tab="pictures", dossier=reckoning.dossier, both=both)


@router.get("/inspections/{inspection}/pictures/{entry}")
def show_picture(request: Request, reckoning: ReckoningHere, entry: UUID) -> Response:
    """One picture, large, to be described and marked."""
    _kept(reckoning, entry)
    return page(request, "pictures/one.html", tab="pictures", **picture_context(reckoning, entry))


@router.get("/inspections/{inspection}/pictures/{entry}/original")
def original(reckoning: ReckoningHere, desk: DeskHere, entry: UUID) -> Response:
    """The original, byte for byte."""
    body = _kept(reckoning, entry)
    path = desk.pictures.original(body.sha256)
    if not path.exists():
        raise HTTPException(410, "The file of this picture is gone from the data directory.")
    known = body.mime in SUFFIXES
    named = f"{'inline' if known else 'attachment'}; filename*=UTF-8''{quote(body.name or entry.hex)}"
    headers = {**FOREVER, "Content-Disposition": named, "Content-Security-Policy": SHOWN_ALONE}
    return FileResponse(path, media_type=body.mime if known else "application/octet-stream", headers=headers)


@router.get("/inspections/{inspection}/pictures/{entry}/{size}.jpg")
def scaled(reckoning: ReckoningHere, desk: DeskHere, entry: UUID, size: int) -> Response:
    """A scaled copy, or a frame that stands for it until it is made."""
    body = _kept(reckoning, entry)
    if size not in SIZES:
        raise HTTPException(404, f"Copies are {' or '.join(map(str, SIZES))} pixels.")
    path = desk.pictures.copy(body.sha256, size)
    if path is None:
        return Response(UNMADE, 200, {"Cache-Control": "no-store", "X-Copy": "waiting"}, "image/svg+xml")
    return FileResponse(path, media_type="image/jpeg", headers=FOREVER)


@router.get("/inspections/{inspection}/desk")
def show_desk(request: Request, reckoning: ReckoningHere, at: int = 0) -> Response:
    """The desk queue, one item at a time."""
    return page(request, "pictures/desk.html", tab="desk", **desk_context(reckoning, at))


def _shown(entry: Entry, body: Body) -> str:
    """A picture, or what was said of one later."""
    return f"pictures/{entry.id if isinstance(body, Picture) else getattr(body, 'of', '')}"


station_page(StationPage("pictures", "Pictures", Phase.DESK, 10, router, shows={"picture.": _shown}))
station_page(StationPage("desk", "Open questions", Phase.DESK, 20, APIRouter()))
