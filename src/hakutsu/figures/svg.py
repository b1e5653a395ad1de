"""The few SVG helpers that drawings share."""

from __future__ import annotations

from html import escape


def tag(name: str, *children: str, **attributes: object) -> str:
    """One element; `_` in an attribute name becomes `-`, a trailing `_` is dropped, none leaves the attribute out.

    Text must be passed through `text` first; children are taken as markup.
    """
    written = "".join(
        f' {key.rstrip("_").replace("_", "-")}="{_value(value)}"'
        for key, value in attributes.items()
        if value is not None
    )
    inner = "".join(children)
    return f"<{name}{written}>{inner}</{name}>" if inner else f"<{name}{written}/>"


def text(words: str) -> str:
    """Words made safe to stand inside an element."""
    return escape(words, quote=False)


def _value(value: object) -> str:
    if isinstance(value, float):
        return f"{value:.2f}".rstrip("0").rstrip(".")
    return escape(str(value))
