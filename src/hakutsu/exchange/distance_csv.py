"""Dated readings of the distance as CSV, and what was made of them as JSON."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date
from typing import Any

from hakutsu.core.papers.distance import Distance
from hakutsu.core.papers.records import PER_UNIT, SOURCES, History, Record
from hakutsu.core.papers.telling import distance_words
from hakutsu.exchange.bad_file import BadFile, csv_rows

COLUMNS = ("case", "date", "value", "unit", "source", "dial_digits", "first_used")
MOST_ROWS = 1_000_000
MOST_OF_A_CASE = 400
FIRST_DAY = date(1886, 1, 1)
MOST = 9_999_999.0  # in either unit: more no dial shows, and no vehicle has run
FEWEST_DIGITS, MOST_DIGITS = 4, 7


class BadReadings(BadFile):
    """A file of readings that cannot be."""


@dataclass(slots=True)
class _Case:
    records: list[Record]
    digits: int
    first_used: date | None
    row: int


def read_histories(data: bytes, today: date) -> dict[str, History]:
    """Read a file of readings into one history a case, in the order of the file.

    Raises
    ------
    BadReadings
        With every fault, each with its row (the header is row 1).
    """
    faults: list[str] = []
    cases: dict[str, _Case] = {}
    for number, said in csv_rows(data, COLUMNS, MOST_ROWS, BadReadings):
        faults += [f"row {number}, {one}" for one in _take(number, said, cases, today)]
    for name, case in cases.items():
        if len(case.records) > MOST_OF_A_CASE:
            faults.append(f"row {case.row}, case: {name} has more than {MOST_OF_A_CASE} readings")
    if faults:
        raise BadReadings(faults)
    return {name: History(tuple(one.records), one.digits, one.first_used) for name, one in cases.items()}


def _take(number: int, said: list[str], cases: dict[str, _Case], today: date) -> Iterable[str]:
    """Put a row where it belongs; what is wrong with it."""
    name, on, value, unit, source, digits, first = said
    faults: list[str] = []
    day = _day("date", on, today, faults)
    used = _day("first_used", first, today, faults) if first else None
    if not name:
        faults.append("case: empty")
    amount = _amount(value, faults)
    if unit not in PER_UNIT:
        faults.append(f"unit: “{unit}” is neither km nor mi")
    if source not in SOURCES:
        faults.append(f"source: “{source}” is none of {', '.join(SOURCES)}")
    shows = _digits(digits, faults)
    if day and used and day < used:
        faults.append(f"date: {on} is before first_used, {first}")
    case = cases.get(name)
    if case and (case.digits, case.first_used) != (shows, used) and not faults:
        faults.append(f"dial_digits, first_used: not as in row {case.row} of the same case")
    if not faults and day is not None and amount is not None:
        case = cases.setdefault(name, _Case([], shows, used, number))
        case.records.append(Record(number, day, amount, unit, source))
    return faults


def _day(column: str, text: str, today: date, faults: list[str]) -> date | None:
    try:
        day = date.fromisoformat(text)
        if len(text) != len("2026-01-01"):
            raise ValueError
    except ValueError:
        faults.append(f"{column}: “{text}” is no date, such as 2026-01-31")
        return None
    if not FIRST_DAY <= day <= today:
        faults.append(f"{column}: {text} is {'still to come' if day > today else f'before {FIRST_DAY.year}'}")
        return None
    return day


def _amount(text: str, faults: list[str]) -> float | None:
    plain = text.replace(".", "", 1)
    if not (plain.isascii() and plain.isdigit()):
        faults.append(f"value: “{text}” is no distance")
        return None
    if float(text) > MOST:
        faults.append(f"value: {text} is more than a dial shows")
        return None
    return float(text)


def _digits(text: str, faults: list[str]) -> int:
    if not (text.isascii() and text.isdigit() and FEWEST_DIGITS <= int(text[:9]) <= MOST_DIGITS):
        faults.append(f"dial_digits: “{text}” is no number of digits of a dial, {FEWEST_DIGITS} to {MOST_DIGITS}")
        return 0
    return int(text)


def distance_json(case: str, told: Distance, history: History) -> dict[str, Any]:
    """One vehicle, as the command answers."""
    return {
        "case": case,
        "probabilities": {kind: round(share, 6) for kind, share in told.probabilities.items()},
        "true_km": {"p10": round(told.km.p10, 1), "p50": round(told.km.p50, 1), "p90": round(told.km.p90, 1)},
        "doubted": [row for row, _ in told.doubted],
        "words": distance_words(told, history),
    }
