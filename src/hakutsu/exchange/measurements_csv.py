"""Everything measured in an inspection as one table: a row for each number, with its unit."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Iterator
from functools import cache
from typing import Any

from hakutsu.entries import Entry
from hakutsu.vehicle.table_models import MeasuresTable
from hakutsu.vehicle.tables import read_table

COLUMNS = ("entry", "at", "by", "kind", "place", "field", "number", "value", "unit", "struck")


@cache
def _units() -> MeasuresTable:
    return read_table("vehicle", "measures", MeasuresTable)


def unit_of(field: str) -> str:
    """Unit of a field by its name; empty where it has none."""
    name = field.rpartition(".")[2]
    stem, _, ending = name.rpartition("_")
    return str(_units()["ending"].get(ending, "") if stem else _units()["name"].get(name, ""))


def measurements_csv(entries: Iterable[Entry], struck: frozenset[Any]) -> str:
    """Every number of every entry; `number` counts where a field holds several, from 1."""
    out = io.StringIO(newline="")
    writer = csv.writer(out, lineterminator="\n")
    writer.writerow(COLUMNS)
    for entry in entries:
        for field, number, value in _numbers(entry.body):
            said = (entry.seq, entry.at.isoformat(), entry.by, entry.kind, entry.place or "")
            writer.writerow([*said, field, number, value, unit_of(field), "yes" if entry.id in struck else ""])
    return out.getvalue()


def _numbers(body: Any, field: str = "") -> Iterator[tuple[str, int, float]]:
    if isinstance(body, dict):
        for key, value in body.items():
            yield from _numbers(value, f"{field}.{key}" if field else str(key))
    elif isinstance(body, list):
        for i, value in enumerate(body, 1):
            for inner, number, one in _numbers(value, field):
                yield inner, i if number == 1 else number, one
    elif isinstance(body, int | float) and not isinstance(body, bool):
        yield field, 1, body
