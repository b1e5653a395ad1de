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
from hakutsu.vehicle.terms import PLAIN
from hakutsu.web.desk import UNNAMED
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


def rail_fragment(reckoning: Reckoning, now: datetime) -> dict[str, str]:
    """The rail's items, for swapping in place."""
    return {
        "rail": fragment("_rail_items.html", dossier=reckoning.dossier, rail=rail(reckoning, now)),
    }


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
    html = _environment.get_template(template).render(**about | context)
    return HTMLResponse(html, status)
