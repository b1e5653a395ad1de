"""Jinja set-up of the report; pages build theirs on its filters."""

from __future__ import annotations

import re
from datetime import datetime

from jinja2 import ChoiceLoader, Environment, PackageLoader, StrictUndefined, pass_context, select_autoescape
from jinja2.ext import Extension
from jinja2.runtime import Context
from markupsafe import Markup

from hakutsu import __version__
from hakutsu.core.film import State, chance_words, evidence_words
from hakutsu.core.hazards import activities
from hakutsu.figures.strata import strata_glyph
from hakutsu.vehicle.keyed import key_of
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.units import UM_EACH, UNIT_LABEL, show


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


def _stop(words: object) -> object:
    """A sentence with its full stop, and only one."""
    said = str(words)
    return (
        words if said.rstrip().endswith((".", "?", "!", "…")) else words + "." if isinstance(words, str) else f"{said}."
    )


FILTERS = {
    "film": show,
    "when": _day_and_time,
    "clock": _clock,
    "say": _say,
    "panel": _panel,
    "percent": _percent,
    "evidence": evidence_words,
    "capitalize_first": _capitalize_first,
    "stop": _stop,
    "key": key_of,
}
# The end of a line after a block is dropped: there one blank of the indentation stays.
INDENTATION = re.compile(r"(?:(?<=[%#]}\n)([ \t])|(?<=\n)(?=[ \t]))[ \t]*")
GLOBALS = {
    "glyph": _glyph,
    "version": __version__,
    "unit_label": UNIT_LABEL,
    "um_each": UM_EACH,
    "activity_names": activities(),
}


class Unindented(Extension):
    """Indentation is for who reads a template: a page is sent without it."""

    def preprocess(self, source: str, name: str | None, filename: str | None = None) -> str:
        """The source with no blanks at the beginning of a line; its lines keep their numbers."""
        return INDENTATION.sub(lambda found: found[1] or "", source)


def jinja(*loaders: PackageLoader) -> Environment:
    """An environment over templates of some packages, the report's among them, with the filters of both."""
    made = Environment(
        loader=ChoiceLoader([*loaders, PackageLoader("hakutsu.report")]),
        autoescape=select_autoescape(["html"]),
        undefined=StrictUndefined,
        auto_reload=False,
        trim_blocks=True,
        lstrip_blocks=True,
        extensions=[Unindented],
    )
    made.filters |= FILTERS
    made.globals |= GLOBALS
    return made


environment = jinja()
