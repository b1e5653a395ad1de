"""Condition against what is usual at an age and a distance; `data/condition.toml`."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from math import exp

import numpy as np

from hakutsu.core.life.survival import Clocks, hazard
from hakutsu.core.tables import ConditionTable
from hakutsu.entries.body import RustGrade
from hakutsu.entries.corners import Grade
from hakutsu.vehicle.tables import read_table

GRADES, RUST = list(Grade), list(RustGrade)


class Standing(StrEnum):
    """A grade against what is usual."""

    BETTER = "better than usual"
    USUAL = "as usual"
    WORSE = "worse than usual"


@dataclass(frozen=True, slots=True)
class Usual:
    """The grade that is usual, in words; the share of vehicles that still have their first part (0 to 1)."""

    grade: Grade
    words: str
    first: float


@dataclass(frozen=True, slots=True)
class Stands:
    """One thing against what is usual: its name, how it stands, in words what was seen and what would be usual, and
    both as steps on a scale of so many, best first.
    """

    name: str
    standing: Standing
    seen: str
    usual: str
    steps: tuple[int, int, int]
    why: str = ""


def standing_of(seen: int, usual: int) -> Standing:
    """A step against the usual one, on a scale that begins with the best."""
    return Standing.USUAL if seen == usual else Standing.WORSE if seen > usual else Standing.BETTER


@cache
def condition_table() -> ConditionTable:
    """Bands of `data/condition.toml`."""
    return read_table("core", "condition", ConditionTable)


def usual_grade(clocks: Clocks, km: float, years: float) -> Usual:
    """The grade usual for a part with these clocks after a distance [km] and time [years]; failing ones get renewed."""
    row = condition_table()["used"]
    used = max(km / clocks.km if clocks.km else 0.0, years / clocks.years if clocks.years else 0.0)
    first = exp(-float(hazard(clocks, np.asarray(km), np.asarray(years))) * clocks.past)
    grade = Grade.FRESH if used < row["sound"] else Grade.SOUND if used < row["worn"] else Grade.WORN
    left = f"{100 * first:.0f} in 100 have their first" if first >= 0.01 else "nearly all have been replaced by now"
    return Usual(grade, str(grade) if first >= row["renewed"] else f"{grade}, or renewed: {left}", first)


def stands(name: str, grade: Grade, usual: Usual, why: str = "") -> Stands:
    """A grade against the usual one; a fresh part where the first is seldom left was renewed."""
    seen, expected = GRADES.index(grade), GRADES.index(usual.grade)
    renewed = grade is Grade.FRESH and usual.first < condition_table()["used"]["renewed"]
    said = "renewed, it seems: ask for the bill" if renewed else why
    return Stands(name, standing_of(seen, expected), str(grade), usual.words, (seen, expected, len(GRADES)), said)


def usual_rust(years: float, *, salt: bool = False, dry: bool = False) -> RustGrade | None:
    """The rust usual below at an age [years]; none where there is usually none yet."""
    row = condition_table()["rust"]
    aged = years * (row["salt"] if salt else row["dry"] if dry else 1.0)
    reached = sum(aged >= one for one in row["years"])
    return RUST[reached - 1] if reached else None


def usual_rust_band(
    years: float, *, salt: bool = False, dry: bool = False
) -> tuple[RustGrade | None, RustGrade | None]:
    """The least and the most rust that is usual below at an age [years]: one grade where the region is known, from that
    of a dry one to that of a salty one where it is not.
    """
    if salt or dry:
        known = usual_rust(years, salt=salt, dry=dry)
        return known, known
    return usual_rust(years, dry=True), usual_rust(years, salt=True)


def rust_stands(
    name: str, seen: RustGrade | None, usual: tuple[RustGrade | None, RustGrade | None], renewed: bool = False
) -> Stands:
    """Rust of one zone against what is usual.

    Parameters
    ----------
    seen : its grade; none where somebody looked and there was no rust
    usual : the least and the most that is usual
    renewed : something but the grade speaks for metal that was cleaned, coated or renewed; never asked by a grade alone
    """
    here, least, most = (0 if one is None else 1 + RUST.index(one) for one in (seen, *usual))
    expected = min(max(here, least), most)
    why = "cleaned, coated or renewed?" if renewed and here <= least - 2 else ""
    steps = (here, expected, len(RUST) + 1)
    words = [f"rust {one}" if one else "no rust" for one in (seen, *usual)]
    told = words[1] if words[1] == words[2] else f"{words[1]} to {words[2]}"
    return Stands(name, standing_of(here, expected), words[0], told, steps, why)
