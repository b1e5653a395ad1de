"""The few SVG helpers that drawings share."""

from __future__ import annotations

from functools import cache
from html import escape


def tag(name: str, *children: str, **attributes: object) -> str:
    """One element; `_` in an attribute name becomes `-`, a trailing `_` is dropped, none leaves the attribute out.

    Text must be passed through `text` first; children are taken as markup.
    """
    written = ""
    for key, value in attributes.items():
        if value is not None:
            written += f' {_named(key)}="{_value(value)}"'
    inner = "".join(children)
    return f"<{name}{written}>{inner}</{name}>" if inner else f"<{name}{written}/>"


def text(words: str) -> str:
    """Words made safe to stand inside an element."""
    return escape(words, quote=False)


def swatch(fill: str) -> str:
    """A drop of colour beside its name, for eyes only: the name says the same."""
    drop = tag("circle", cx=11, cy=11, r=9.5, fill=fill, class_="swatch-edge")
    return tag("svg", drop, class_="shrink-0", viewBox="0 0 22 22", width=22, height=22, aria_hidden="true")


@cache
def _named(key: str) -> str:
    return key.rstrip("_").replace("_", "-")


def _value(value: object) -> str:
    if isinstance(value, float):
        return f"{value:.2f}".rstrip("0").rstrip(".")
    return str(value) if isinstance(value, int) else escape(str(value))
