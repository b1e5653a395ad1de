"""Files that cannot be taken in, and rows of CSV under the columns that are wanted."""

from __future__ import annotations

import csv
import io
from collections.abc import Sequence


class BadFile(ValueError):
    """A file that is not what it should be; `faults` names everything that is wrong with it."""

    def __init__(self, faults: list[str]) -> None:
        super().__init__("; ".join(faults))
        self.faults = faults


def csv_rows(data: bytes, columns: Sequence[str], most: int, bad: type[BadFile]) -> list[tuple[int, list[str]]]:
    """Rows that are not empty, each with its number (the header is row 1) and its cells in the order of the columns.

    Raises
    ------
    BadFile
        As `bad`: if it is no CSV, a column is missing or there twice, or there are more rows than `most`.
    """
    try:
        rows = list(csv.reader(io.StringIO(data.decode("utf-8-sig", "replace"), newline="")))
    except csv.Error as error:
        raise bad([f"no CSV: {error}"]) from error
    names = [one.strip().lower() for one in rows[0]] if rows else []
    faults = [f"row 1: no column {one}" for one in columns if one not in names]
    faults += [f"row 1: column {one} twice" for one in columns if names.count(one) > 1]
    if not faults and len(rows) > most + 1:
        faults.append(f"more than {most:,} rows")
    if faults:
        raise bad(faults)
    at = [names.index(one) for one in columns]
    return [
        (number, [cells[one].strip() if one < len(cells) else "" for one in at])
        for number, cells in enumerate(rows[1:], start=2)
        if any(one.strip() for one in cells)
    ]
