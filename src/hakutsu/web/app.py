"""The application: routes of all stations, security headers, helpful error pages."""

from __future__ import annotations

from collections.abc import AsyncIterator, Awaitable, Callable
from contextlib import asynccontextmanager
from pathlib import Path
from threading import Event, Thread
from urllib.parse import urlsplit

from fastapi import FastAPI, Request, Response
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from fastapi.staticfiles import StaticFiles
from starlette.concurrency import run_in_threadpool
from starlette.exceptions import HTTPException
from starlette.middleware.gzip import GZipMiddleware
from starlette.middleware.trustedhost import TrustedHostMiddleware

from hakutsu.logbook import Logbook
from hakutsu.logbook.pictures import MOST_CLIP, PictureFiles
from hakutsu.web import account, brief, claims, day, entries, logbook_page, report, searching, settings
from hakutsu.web.cabin import pages as cabin_pages
from hakutsu.web.corners import pages as corner_pages
from hakutsu.web.desk import Desk
from hakutsu.web.engine import link_pages as engine_link
from hakutsu.web.engine import pages as engine_pages
from hakutsu.web.engine.link import ScanSessions
from hakutsu.web.film import gauge, imports, station
from hakutsu.web.film.link import GaugeSessions
from hakutsu.web.functions import pages as function_pages
from hakutsu.web.life import pages as life_pages
from hakutsu.web.outside import pages as outside_pages
from hakutsu.web.pictures import pages as picture_pages
from hakutsu.web.rendering import STATIC, page
from hakutsu.web.round import arrival, follow_up, gaps, questions, timers
from hakutsu.web.round import pages as round_pages
from hakutsu.web.under import pages as under_pages

LOCAL_HOSTS = ["127.0.0.1", "localhost", "[::1]", "testserver"]
MOST_BYTES = 8 * 1024 * 1024
CONTENT_POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; media-src 'self'; font-src 'self'; "
    "connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
)
HEADERS = {
    "Content-Security-Policy": CONTENT_POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
}
Next = Callable[[Request], Awaitable[Response]]


def create_app(logbook: Logbook, uploads: Path) -> FastAPI:
    """Build the application over a logbook; `uploads` is where files wait between preview and import."""
    desk = Desk(logbook, uploads / "uploads", PictureFiles(uploads / "pictures"))
    gauges, scans = GaugeSessions(desk), ScanSessions(desk)

    @asynccontextmanager
    async def running(_app: FastAPI) -> AsyncIterator[None]:
        stopped = Event()
        renewing = Thread(target=searching.renew, args=(desk, stopped), name="search words", daemon=True)
        renewing.start()
        yield
        stopped.set()
        await run_in_threadpool(renewing.join)
        await run_in_threadpool(gauges.close)
        await run_in_threadpool(scans.close)
        await run_in_threadpool(desk.pictures.close)

    app = FastAPI(title="Hakutsu", docs_url=None, redoc_url=None, openapi_url=None, lifespan=running)
    app.state.desk, app.state.gauges, app.state.scans = desk, gauges, scans
    app.mount("/static", StaticFiles(directory=STATIC), name="static")
    of_an_inspection = (
        claims,
        arrival,
        round_pages,
        gaps,
        questions,
        follow_up,
        timers,
        outside_pages,
        corner_pages,
        life_pages,
        engine_link,
        engine_pages,
        function_pages,
        cabin_pages,
        under_pages,
        picture_pages,
        station,
        imports,
        gauge,
        logbook_page,
        report,
        settings,
    )
    for room in (
        brief,
        day,
        account,
        searching,
        entries,
        *of_an_inspection,
    ):  # "new" is no id: brief comes before the day
        app.include_router(room.router)
    app.middleware("http")(_guard)
    app.add_middleware(GZipMiddleware, minimum_size=2048, compresslevel=4)
    app.add_middleware(TrustedHostMiddleware, allowed_hosts=LOCAL_HOSTS)
    app.add_exception_handler(HTTPException, _error_page)  # type: ignore[arg-type]
    app.add_exception_handler(RequestValidationError, _not_understood)  # type: ignore[arg-type]
    return app


async def _guard(request: Request, call_next: Next) -> Response:
    """Refuse what another site sends and what is too large; put the security headers on everything."""
    origin = request.headers.get("origin")
    foreign = origin is not None and urlsplit(origin).netloc != request.headers.get("host")
    length = request.headers.get("content-length", "0")
    most = MOST_CLIP if request.method == "PUT" else MOST_BYTES
    if request.method in ("POST", "PUT") and foreign:
        response: Response = JSONResponse({"message": "sent from another site"}, 403)
    elif not length.isdigit() or int(length) > most:
        response = JSONResponse({"message": f"larger than {most // 1024 // 1024} MB"}, 413)
    else:
        response = await call_next(request)
    for name, value in HEADERS.items():
        response.headers[name] = value
    if request.url.path.startswith("/static/"):
        response.headers["Cache-Control"] = "no-cache"
    return response


def _wants_json(request: Request) -> bool:
    return "application/json" in request.headers.get("accept", "")


async def _error_page(request: Request, error: HTTPException) -> Response:
    if _wants_json(request):
        return JSONResponse({"message": str(error.detail)}, error.status_code)
    said = "There is no page at this address." if error.detail == "Not Found" else str(error.detail)
    return page(request, "error.html", status=error.status_code, code=error.status_code, said=said)


async def _not_understood(request: Request, error: RequestValidationError) -> Response:
    first = error.errors()[0]
    where = ".".join(str(part) for part in first["loc"][1:])
    if _wants_json(request):
        return JSONResponse({"field": where, "message": first["msg"]}, 422)
    code = 404 if first["loc"][0] == "path" else 422
    return page(request, "error.html", status=code, code=code, said=f"{where}: {first['msg']}")
