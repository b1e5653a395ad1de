"""Jinja set-up: one environment for pages and fragments."""

from __future__ import annotations

from datetime import datetime
from pathlib import Path
from typing import Any

from fastapi import Request
from fastapi.responses import HTMLResponse
from jinja2 import PackageLoader

from hakutsu.reckoning import Reckoning, terms
from hakutsu.report.rendering import jinja
from hakutsu.report.wording import body_words
from hakutsu.vehicle.terms import PLAIN
from hakutsu.web.desk import UNNAMED
from hakutsu.web.next_step import next_step
from hakutsu.web.rail import rail
from hakutsu.web.station import navigation, part_link

STATIC = Path(__file__).parent / "static"


_environment = jinja(PackageLoader("hakutsu.web"))
_environment.filters["part_link"] = part_link


def every_template() -> list[str]:
    """Names of all templates."""
    return _environment.list_templates(["html"])


def compile_template(name: str) -> None:
    """Have a template at hand, so that no page waits for it."""
    _environment.get_template(name)


def fragment(template: str, **context: Any) -> str:
    """Render a partial."""
    return _environment.get_template(template).render(**context)


def rail_fragment(reckoning: Reckoning, now: datetime, room: str = "") -> dict[str, str]:
    """The rail's items and what comes next, for swapping in place on the page `room`."""
    return {
        "rail": fragment("_rail_items.html", dossier=reckoning.dossier, rail=rail(reckoning, now)),
        "next": fragment("_next.html", **_next(reckoning, now, room)),
    }


def _next(reckoning: Reckoning, now: datetime, room: str) -> dict[str, Any]:
    """What was saved last, and what comes next."""
    dossier, saved = reckoning.dossier, ""
    if dossier.entries and (last := dossier.entries[-1]).id not in dossier.struck:
        saved = ": ".join(body_words(last.parsed(), reckoning.terms))
    return {"dossier": dossier, "saved": saved, "following": next_step(reckoning, now, room)}


def bare_page(request: Request, template: str, *, status: int, **context: Any) -> HTMLResponse:
    """Render a page that asks nothing of the database, for when that may be what failed."""
    about = {"author": "", "named": True, "path": request.url.path, "watched": [], "terms": PLAIN}
    return HTMLResponse(_environment.get_template(template).render(**about | context), status)


def page(request: Request, template: str, *, status: int = 200, **context: Any) -> HTMLResponse:
    """Render a whole page; running timers stand on every one, those of the inspection it belongs to first."""
    desk = request.app.state.desk
    here = context.get("dossier")
    watched = sorted(desk.watched(), key=lambda one: here is None or one.inspection != here.inspection)
    about: dict[str, Any] = {
        "author": desk.author,
        "named": desk.author != UNNAMED,
        "path": request.url.path,
        "watched": watched,
    }
    if here is None:
        about["terms"] = terms(desk.settings)
    else:
        reckoning = desk.reckoning(here.inspection)
        about |= {"terms": reckoning.terms, "rail": rail(reckoning, desk.now())}
        about |= navigation(reckoning.dossier, str(context.get("tab", "")))
        about |= _next(reckoning, desk.now(), request.url.path.partition(f"{here.inspection}")[2].strip("/"))
    html = _environment.get_template(template).render(**about | context)
    return HTMLResponse(html, status)
