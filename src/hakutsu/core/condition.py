"""Condition against what is usual at an age and a distance; `data/condition.toml`."""

from __future__ import annotations

import tomllib
from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from importlib.resources import files
from math import exp
from typing import Any

import numpy as np

from hakutsu.core.life.survival import Clocks, hazard
from hakutsu.entries.body import RustGrade
from hakutsu.entries.corners import Grade

GRADES, RUST = list(Grade), list(RustGrade)


class Standing(StrEnum):
    """A grade against what is usual."""

    BETTER = "better than usual"
    USUAL = "as usual"
    WORSE = "worse than usual"
    UNKNOWN = "not to be said"


@dataclass(frozen=True, slots=True)
class Usual:
    """The grade that is usual, in words; the share of vehicles that still have their first part (0 to 1)."""

    grade: Grade
    words: str
    first: float


@dataclass(frozen=True, slots=True)
class Stands:
    """One thing against what is usual: its name, how it stands, in words what was seen and what would be usual."""

    name: str
    standing: Standing
    seen: str
    usual: str
    why: str = ""


@cache
def condition_table() -> dict[str, Any]:
    """Bands of `data/condition.toml`."""
    return tomllib.loads((files("hakutsu.core") / "data" / "condition.toml").read_text(encoding="utf-8"))


def usual_grade(clocks: Clocks, km: float, years: float) -> Usual:
    """The grade usual for a part with these clocks after a distance [km] and time [years]; failing ones get renewed."""
    row = condition_table()["used"]
    used = max(km / clocks.km if clocks.km else 0.0, years / clocks.years if clocks.years else 0.0)
    first = exp(-float(hazard(clocks, np.asarray(km), np.asarray(years))) * clocks.past)
    grade = Grade.FRESH if used < row["sound"] else Grade.SOUND if used < row["worn"] else Grade.WORN
    words = str(grade) if first >= row["renewed"] else f"{grade}, or renewed: {100 * first:.0f} in 100 have their first"
    return Usual(grade, words, first)


def stands(name: str, grade: Grade, usual: Usual, why: str = "") -> Stands:
    """A grade against the usual one; a fresh part where the first is seldom left was renewed."""
    steps = GRADES.index(grade) - GRADES.index(usual.grade)
    standing = Standing.USUAL if steps == 0 else Standing.WORSE if steps > 0 else Standing.BETTER
    renewed = grade is Grade.FRESH and usual.first < condition_table()["used"]["renewed"]
    return Stands(name, standing, str(grade), usual.words, "renewed, it seems: ask for the bill" if renewed else why)


def usual_rust(years: float, *, salt: bool = False, dry: bool = False) -> RustGrade | None:
    """The rust usual below at an age [years]; none where there is usually none yet."""
    row = condition_table()["rust"]
    aged = years * (row["salt"] if salt else row["dry"] if dry else 1.0)
    reached = sum(aged >= one for one in row["years"])
    return RUST[reached - 1] if reached else None


def rust_stands(name: str, seen: RustGrade | None, usual: RustGrade | None) -> Stands:
    """Rust of one zone against what is usual."""
    steps = (0 if seen is None else 1 + RUST.index(seen)) - (0 if usual is None else 1 + RUST.index(usual))
    standing = Standing.USUAL if abs(steps) < 1 else Standing.WORSE if steps > 0 else Standing.BETTER
    why = "cleaned, coated or renewed?" if steps <= -2 else ""
    return Stands(name, standing, f"rust {seen}" if seen else "no rust", f"rust {usual}" if usual else "none", why)
