"""Circumstances of use that wear a vehicle."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib.resources import files


@cache
def use_factor_names() -> dict[str, str]:
    """Names of the circumstances by key."""
    text = (files("hakutsu.vehicle") / "data" / "factors.toml").read_text(encoding="utf-8")
    return {key: str(name) for key, name in tomllib.loads(text).items()}
