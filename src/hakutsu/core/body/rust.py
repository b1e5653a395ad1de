"""Rust: where it starts first, by body style."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib.resources import files


@cache
def _traps() -> dict[str, list[str]]:
    return tomllib.loads((files("hakutsu.core.body") / "data" / "traps.toml").read_text(encoding="utf-8"))


def rust_traps(style: str) -> tuple[str, ...]:
    """Watch-points of a body style."""
    return (*_traps()["all"], *_traps().get(style, ()))
