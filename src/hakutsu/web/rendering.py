"""Jinja set-up: one environment for pages and fragments."""

from __future__ import annotations

from datetime import datetime
from pathlib import Path
from typing import Any

from fastapi import Request
from fastapi.responses import HTMLResponse
from jinja2 import ChoiceLoader, Environment, PackageLoader, StrictUndefined, pass_context, select_autoescape
from jinja2.runtime import Context
from markupsafe import Markup

from hakutsu import __version__
from hakutsu.core.film import State, chance_words
from hakutsu.core.hazards import activities
from hakutsu.figures.strata import strata_glyph
from hakutsu.reckoning import Reckoning, terms
from hakutsu.vehicle.keyed import key_of
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.units import UM_EACH, UNIT_LABEL, show
from hakutsu.web.desk import UNNAMED
from hakutsu.web.links import part_link
from hakutsu.web.rail import rail

STATIC = Path(__file__).parent / "static"


def _glyph(state: str | None, size: int = 16, *, labelled: bool = False) -> Markup:
    return Markup(strata_glyph(State(state) if state else None, size=size, labelled=labelled))


def _terms(context: Context) -> Terms:
    said = context.get("terms")
    return said if isinstance(said, Terms) else PLAIN


@pass_context
def _day_and_time(context: Context, at: datetime) -> str:
    return _terms(context).moment(at)


@pass_context
def _clock(context: Context, at: datetime) -> str:
    return _terms(context).clock(at)


@pass_context
def _say(context: Context, text: object) -> str:
    return _terms(context).say(str(text))


@pass_context
def _panel(context: Context, key: str) -> str:
    return _terms(context).panel(key)


def _percent(chance: float) -> str:
    return chance_words(chance).replace(" ", "\u00a0")


def _capitalize_first(words: str) -> str:
    said = str(words)
    return said[:1].upper() + said[1:]


_environment = Environment(
    loader=ChoiceLoader([PackageLoader("hakutsu.web"), PackageLoader("hakutsu.report")]),
    autoescape=select_autoescape(["html"]),
    undefined=StrictUndefined,
    trim_blocks=True,
    lstrip_blocks=True,
)
_environment.filters |= {
    "part_link": part_link,
    "film": show,
    "when": _day_and_time,
    "clock": _clock,
    "say": _say,
    "panel": _panel,
    "percent": _percent,
    "capitalize_first": _capitalize_first,
    "key": key_of,
}
_environment.globals |= {
    "glyph": _glyph,
    "version": __version__,
    "unit_label": UNIT_LABEL,
    "um_each": UM_EACH,
    "activity_names": activities(),
}


def fragment(template: str, **context: Any) -> str:
    """Render a partial."""
    return _environment.get_template(template).render(**context)


def rail_fragment(reckoning: Reckoning, now: datetime) -> dict[str, str]:
    """The rail's items, for swapping in place."""
    return {"rail": fragment("_rail_items.html", dossier=reckoning.dossier, rail=rail(reckoning, now))}


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
    html = _environment.get_template(template).render(**about | context)
    return HTMLResponse(html, status)
