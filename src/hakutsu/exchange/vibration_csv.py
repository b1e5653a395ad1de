"""Records of acceleration as CSV (t, ax, ay, az): read with every fault named; what was matched, as JSON."""

from __future__ import annotations

import csv
import io
import math
from typing import Any

import numpy as np

from hakutsu.core.road.vibration import Match, Record
from hakutsu.core.road.vibration.record import MOST_ROWS
from hakutsu.exchange.bad_file import BadFile

COLUMNS = ("t", "ax", "ay", "az")
MOST = {"t": 1e10, "ax": 1e4, "ay": 1e4, "az": 1e4}
MOST_FAULTS = 200


class BadRecord(BadFile):
    """A file that is no record."""


def read_record(data: bytes) -> Record:
    """A record from a file.

    Parameters
    ----------
    data : CSV with the columns t [s], ax, ay, az [m/s²] in its header; further columns are passed over

    Raises
    ------
    BadRecord
        With every fault, each with its row (the header is row 1).
    """
    rows = data.count(b"\n") + (not data.endswith(b"\n")) - 1
    if rows > MOST_ROWS:
        raise BadRecord([f"more than {MOST_ROWS:,} rows"])
    text = data.decode("utf-8-sig", "replace")
    head, _, rest = text.partition("\n")
    names = [one.strip().strip('"').lower() for one in head.split(",")]
    missing = [one for one in COLUMNS if one not in names]
    twice = [one for one in COLUMNS if names.count(one) > 1]
    if missing or twice:
        raise BadRecord(
            [f"row 1: no column {one}" for one in missing] + [f"row 1: column {one} twice" for one in twice]
        )
    places = [names.index(one) for one in COLUMNS]
    if not rest.strip():
        raise BadRecord(["no rows"])
    try:
        read = np.loadtxt(io.StringIO(rest), delimiter=",", usecols=places, ndmin=2, comments=None)
    except ValueError:
        read = None
    if read is None or not _fits(read):
        raise BadRecord(_faults(rest, places))
    return Record(read[:, 0], read[:, 1:])


def _fits(read: Any) -> bool:
    return bool(
        np.isfinite(read).all() and all((np.abs(read[:, i]) <= MOST[one]).all() for i, one in enumerate(COLUMNS))
    )


def _faults(rest: str, places: list[int]) -> list[str]:
    found: list[str] = []
    try:
        for row, cells in enumerate(csv.reader(io.StringIO(rest, newline="")), start=2):
            found += _of_row(row, cells, places)
            if len(found) >= MOST_FAULTS:
                return [*found[:MOST_FAULTS], "and perhaps more"]
    except csv.Error as error:
        found.append(f"no CSV: {error}")
    return found or ["cannot be read as numbers"]


def _of_row(row: int, cells: list[str], places: list[int]) -> list[str]:
    found = []
    for name, place in zip(COLUMNS, places, strict=True) if cells else ():
        said = cells[place].strip() if place < len(cells) else ""
        if wrong := _wrong(said, MOST[name]):
            found.append(f"row {row}, {name}{f' “{said[:40]}”' if said else ''}: {wrong}")
    return found


def _wrong(said: str, most: float) -> str:
    if not said:
        return "nothing there"
    try:
        value = float(said)
    except ValueError:
        return "no number"
    if not math.isfinite(value):
        return "no finite number"
    return f"over {most:g}" if abs(value) > most else ""


def match_json(match: Match) -> dict[str, Any]:
    """A match as the command line gives it: shares add up to one."""
    candidates = [
        {"source": one.source, "hz": round(one.hz, 3), "probability": round(one.probability, 6)}
        for one in match.candidates
    ]
    none = round(1 - sum(round(one.probability, 6) for one in match.candidates), 6)
    return {
        "sample_rate_hz": round(match.sample_rate_hz, 3),
        "highest_usable_hz": round(match.highest_usable_hz, 3),
        "peaks": [{"hz": round(one.hz, 3), "amplitude": round(one.amplitude, 5)} for one in match.peaks],
        "candidates": candidates,
        "none": max(0.0, none),
        "warnings": list(match.warnings),
    }
