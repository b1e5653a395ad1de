"""Bright work, plastics and badges: what their state means."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib.resources import files

from hakutsu.entries.body import Material, Trim

BRIGHT = (Material.PLATED, Material.STAINLESS, Material.ALUMINIUM)


@cache
def _table() -> dict[str, dict[str, str]]:
    return tomllib.loads((files("hakutsu.core.body") / "data" / "trim.toml").read_text(encoding="utf-8"))


def trim_words(piece: Trim) -> str:
    """What the state of a piece means; nothing where that needs no words. Origin is a matter of its own."""
    return _table()["bright" if piece.material in BRIGHT else "other"].get(piece.state.value, "")
