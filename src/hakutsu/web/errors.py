"""Helpful pages, or JSON, for whatever went wrong."""

from __future__ import annotations

import errno
import logging

from fastapi import FastAPI, Request, Response
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from sqlalchemy.exc import DBAPIError
from starlette.exceptions import HTTPException

from hakutsu.logbook.trouble import FULL, DataTrouble, words
from hakutsu.web.guard import protect
from hakutsu.web.rendering import bare_page, page

NO_ROOM = 507
LATER = 503
_log = logging.getLogger("hakutsu.web")


def add_error_pages(app: FastAPI) -> None:
    """Register a page for every kind of error."""
    app.add_exception_handler(HTTPException, _refused)  # type: ignore[arg-type]
    app.add_exception_handler(RequestValidationError, _not_understood)  # type: ignore[arg-type]
    app.add_exception_handler(DataTrouble, _data_trouble)  # type: ignore[arg-type]
    app.add_exception_handler(DBAPIError, _database)  # type: ignore[arg-type]
    app.add_exception_handler(OSError, _file_system)  # type: ignore[arg-type]
    app.add_exception_handler(Exception, _broken)


def _answer(request: Request, code: int, said: str, field: str = "", *, bare: bool = False) -> Response:
    """A page or JSON; a `bare` one asks nothing of the database."""
    if "application/json" in request.headers.get("accept", ""):
        about = {"field": field} if field else {}
        return JSONResponse(about | {"message": said}, code)
    if not bare:
        try:
            return page(request, "error.html", status=code, code=code, said=said)
        except DBAPIError:
            _log.warning("the database could not be asked")
    return bare_page(request, "error.html", status=code, code=code, said=said)


async def _refused(request: Request, error: HTTPException) -> Response:
    said = "There is no page at this address." if error.detail == "Not Found" else str(error.detail)
    return _answer(request, error.status_code, said)


async def _not_understood(request: Request, error: RequestValidationError) -> Response:
    first = error.errors()[0]
    where = ".".join(str(part) for part in first["loc"][1:])
    said = str(first["msg"]).removeprefix("Value error, ")
    if first["loc"][0] == "path":
        return _answer(request, 404, "This inspection does not exist here." if where == "inspection" else said, where)
    wants_json = "application/json" in request.headers.get("accept", "")
    return _answer(request, 422, said if wants_json else f"{where}: {said}", where)


async def _data_trouble(request: Request, error: DataTrouble) -> Response:
    return _answer(request, LATER, str(error)[:1].upper() + str(error)[1:], bare=True)


async def _database(request: Request, error: DBAPIError) -> Response:
    said = words(error)
    _log.error("the database %s", said)
    return _answer(request, NO_ROOM if FULL in said else LATER, f"The database {said}.", bare=True)


async def _file_system(request: Request, error: OSError) -> Response:
    if error.errno in (errno.ENOSPC, errno.EDQUOT):
        return _answer(request, NO_ROOM, "The disk is full: free some space, then send it again.", bare=True)
    if error.errno in (errno.EROFS, errno.EACCES, errno.EPERM):
        return _answer(request, LATER, "The data directory cannot be written: nothing new is stored.", bare=True)
    return await _broken(request, error)


async def _broken(request: Request, error: Exception) -> Response:
    _log.error("%s %s failed", request.method, request.url.path, exc_info=error)
    answer = _answer(
        request, 500, "Something went wrong here, and it is ours to mend. What was stored is stored.", bare=True
    )
    protect(answer.headers, request.url.path)
    return answer
