"""Measured parts as CSV, one a line, and what is left of them as JSON: the contract of `hakutsu life`."""

from __future__ import annotations

import csv
from collections.abc import Sequence
from dataclasses import asdict, replace
from io import StringIO
from math import isfinite
from typing import Any

from hakutsu.core.life import Life, WearCase, remaining
from hakutsu.vehicle.terms import PLAIN

COLUMNS = (
    "case", "component", "axle", "drive", "now_mm", "method", "new_mm", "since_km_low", "since_km_high", "age_years",
    "km_per_year", "limit_mm",
)  # fmt: skip
CHOICES = {
    "component": ("tyre", "pad", "disc"),
    "axle": ("front", "rear"),
    "drive": ("front", "rear", "all"),
    "method": ("gauge", "eye"),
}
MAY_BE_EMPTY = ("drive", "method")
OPEN_KM = 100_000.0  # beyond a least distance without a greatest
MOST = {"now_mm": 60.0, "new_mm": 60.0, "limit_mm": 60.0, "since_km_low": 2e6, "since_km_high": 2e6, "age_years": 80.0,
        "km_per_year": 400_000.0}  # fmt: skip


class LifeCsvError(ValueError):
    """A file that cannot be read: every line that is wrong, and why."""


def read_life_csv(text: str) -> list[WearCase]:
    """Cases of a file; empty fields are not known: a method not told counts as by eye.

    Raises
    ------
    LifeCsvError
        Naming row, column and what to do, for every fault at once.
    """
    reader = csv.DictReader(StringIO(text.lstrip("\ufeff")))
    missing = [name for name in COLUMNS if name not in (reader.fieldnames or ())]
    if missing:
        raise LifeCsvError(f"columns are missing: {', '.join(missing)}")
    cases, faults = [], list[str]()
    for number, row in enumerate(reader, 2):
        try:
            cases.append(_case(row))
        except ValueError as error:
            faults.append(f"row {number}: {error}")
    if faults:
        raise LifeCsvError("\n".join(faults))
    return cases


def _case(row: dict[str, str | None]) -> WearCase:
    words = {name: (row.get(name) or "").strip() for name in COLUMNS}
    for name, known in CHOICES.items():
        if words[name] not in known and not (words[name] == "" and name in MAY_BE_EMPTY):
            raise ValueError(f"{name} is “{words[name]}”; use {', '.join(known)}")
    numbers = {name: _number(name, words[name]) for name in MOST}
    now, low, high = numbers["now_mm"], numbers["since_km_low"], numbers["since_km_high"]
    since = None
    if low is not None or high is not None:
        since = (low or 0.0, high if high is not None else (low or 0.0) + OPEN_KM)
        if since[0] > since[1]:
            raise ValueError("since_km_low is above since_km_high")
    return WearCase(
        words["case"], words["component"], words["axle"], words["drive"] or None, now,
        words["method"] or "eye", numbers["new_mm"],
        numbers["limit_mm"], since, numbers["age_years"], numbers["km_per_year"],
    )  # fmt: skip


def _number(name: str, text: str) -> float | None:
    if not text:
        return None
    try:
        value = float(text)
    except ValueError:
        raise ValueError(f"{name} is “{text}”, no number") from None
    if not (isfinite(value) and 0 <= value <= MOST[name]):
        raise ValueError(f"{name} is {text}; it lies between 0 and {MOST[name]:g}")
    return value


def life_json(lives: Sequence[Life]) -> list[dict[str, Any]]:
    """Lives as plain data; keys may be added, never removed."""
    return [
        {
            "case": one.case,
            "remaining_km": asdict(one.km) if one.km else None,
            "remaining_months": asdict(one.months) if one.months else None,
            "limited_by": one.limited_by,
            "basis": list(one.basis),
        }
        for one in lives
    ]


def lives_of(text: str) -> list[Life]:
    """What is left of every case of a file, its basis in kilometres and millimetres."""
    lives = [remaining(case) for case in read_life_csv(text)]
    return [replace(one, basis=tuple(PLAIN.say(words) for words in one.basis)) for one in lives]
