"""The application: routes of all stations, security headers, helpful error pages."""

from __future__ import annotations

import logging
import os
import threading
import time
from collections.abc import AsyncIterator, Iterator
from contextlib import asynccontextmanager, suppress
from pathlib import Path
from threading import Event
from uuid import UUID

from fastapi import APIRouter, FastAPI
from fastapi.staticfiles import StaticFiles
from starlette.concurrency import run_in_threadpool
from starlette.middleware.gzip import GZipMiddleware
from starlette.middleware.trustedhost import TrustedHostMiddleware

from hakutsu.logbook import Logbook
from hakutsu.logbook.integrity import Checked
from hakutsu.logbook.pictures import PictureFiles
from hakutsu.web import account, brief, corrections, day, entries, memory, overview, ready, searching
from hakutsu.web.desk import INTEGRITY, Desk
from hakutsu.web.engine import link_pages as engine_link
from hakutsu.web.engine.link import ScanSessions
from hakutsu.web.errors import add_error_pages
from hakutsu.web.film import gauge, imports, own_vehicles
from hakutsu.web.film.link import GaugeSessions
from hakutsu.web.guard import Guard
from hakutsu.web.pages_kept import PagesKept
from hakutsu.web.rendering import STATIC
from hakutsu.web.round import follow_up, gaps, questions, timers, visit
from hakutsu.web.scan.sweep import Sweeps
from hakutsu.web.station import station_pages

LOWEST = 19
SUMMARIES = "summaries"
_log = logging.getLogger("hakutsu.web")
LOCAL_HOSTS = ["127.0.0.1", "localhost", "[::1]"]


def create_app(logbook: Logbook, uploads: Path) -> FastAPI:
    """Build the application over a logbook; `uploads` is where files wait between preview and import."""
    desk = Desk(logbook, uploads / "uploads", PictureFiles(uploads / "pictures"))
    gauges, scans, sweeps = GaugeSessions(desk), ScanSessions(desk), Sweeps(desk)

    @asynccontextmanager
    async def running(_app: FastAPI) -> AsyncIterator[None]:
        stopped = Event()
        working = [
            desk.background.start(searching.RENEWING, lambda: searching.renew(desk, stopped)),
            desk.background.start(SUMMARIES, lambda: desk.summaries.work(stopped, desk.turns)),
            desk.background.start(ready.READY, lambda: ready.get_ready(desk, stopped)),
            desk.background.start(memory.GIVING, lambda: memory.give_back(stopped)),
            desk.background.start(INTEGRITY, lambda: _check_logbooks(desk, stopped)),
        ]
        yield
        stopped.set()
        for one in working:
            await run_in_threadpool(one.join)
        await run_in_threadpool(gauges.close)
        await run_in_threadpool(scans.close)
        await run_in_threadpool(sweeps.close)
        await run_in_threadpool(desk.pictures.close)

    app = FastAPI(title="Hakutsu", docs_url=None, redoc_url=None, openapi_url=None, lifespan=running)
    app.state.desk, app.state.gauges, app.state.scans, app.state.sweeps = desk, gauges, scans, sweeps
    app.mount("/static", StaticFiles(directory=STATIC), name="static")
    for router in _routers():
        app.include_router(router)
    app.add_middleware(GZipMiddleware, minimum_size=2048, compresslevel=4)
    app.add_middleware(PagesKept, state=desk.shown, turns=desk.turns)
    app.add_middleware(TrustedHostMiddleware, allowed_hosts=LOCAL_HOSTS)
    app.add_middleware(Guard)
    add_error_pages(app)
    return app


def _routers() -> list[APIRouter]:
    """Routes of every page, and what belongs to no inspection; "new" is no id, so brief comes before the day."""
    more = (
        day, overview, corrections, account, searching, entries, gaps, questions, follow_up, timers, visit, engine_link,
        imports, gauge, own_vehicles,
    )  # fmt: skip
    every = [brief.router, *(module.router for module in more), *(one.router for one in station_pages())]
    return list({id(one): one for one in every}.values())  # pages may share one


def _check_logbooks(desk: Desk, stopped: Event) -> None:
    """Check the chain of every logbook from where it was checked last, when nothing else wants the processor."""
    with suppress(AttributeError, OSError):  # not every system has priorities of threads
        os.setpriority(os.PRIO_PROCESS, threading.get_native_id(), LOWEST)
    desk.turns.after_the_first(stopped)
    checks = desk.integrity.check_all(desk.now, stopped=stopped.is_set)
    going = True
    while going and not stopped.is_set():
        with desk.turns.behind(stopped) as until:
            going = _check_some(checks, until)


def _check_some(checks: Iterator[tuple[UUID, Checked]], until: float) -> bool:
    """Check until a time; whether there is more."""
    for inspection, found in checks:
        if found.fault_seq is not None:
            _log.warning("inspection %s, entry %d: %s", inspection, found.fault_seq, found.fault)
        if time.monotonic() > until:
            return True
    return False
