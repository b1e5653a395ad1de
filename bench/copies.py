"""Copies of an inspection, made by SQL with new ids; each is a logbook whose chain holds."""

from __future__ import annotations

import re
import sqlite3
import uuid
from collections.abc import Iterator
from pathlib import Path

from bench.entries import ESTATE
from hakutsu.entries.envelope import FIRST_HASH, HASH_VERSION, chained

ENTRIES_EACH = 120


def chain(inspection: str, entries: list[tuple[int, str, str, str]]) -> Iterator[tuple[object, ...]]:
    """Entries of another inspection, each bound to the one before."""
    previous = FIRST_HASH
    for seq, id, by, draft in entries:
        previous = chained(HASH_VERSION, previous, inspection, seq, by, draft)
        yield inspection, seq, id, by, draft, previous, HASH_VERSION


def multiply(data: Path, wanted: int, entries: int = ENTRIES_EACH, *, varied: bool = False) -> list[str]:
    """Copies of the fullest demo inspection, of its first entries, under new ids; those ids.

    With `varied` their film reads differently, so that nothing computed of one serves another.
    """
    made: list[str] = []
    source = ESTATE.rpartition("/")[2]
    with sqlite3.connect(data / "hakutsu.sqlite") as database:
        database.execute("PRAGMA synchronous=OFF")
        first = "FROM entry WHERE inspection_id = ? AND seq <= ? ORDER BY seq"
        rows = database.execute(f'SELECT seq, id, "by", draft {first}', (source, entries)).fetchall()
        for start in range(0, wanted, 500):
            ids = [(str(uuid.uuid4()), start + i) for i in range(min(500, wanted - start))]
            database.executemany(
                "INSERT INTO inspection (id, opened_at) VALUES (?, ?)",
                [(one, f"2026-{1 + n % 10:02}-{1 + n % 28:02}T08:{n % 60:02}:00+00:00") for one, n in ids],
            )
            columns = '(inspection_id, seq, id, "by", draft, hash, hash_version)'
            copied = (row for one, n in ids for row in chain(one, _other(rows, n) if varied else rows))
            database.executemany(f"INSERT INTO entry {columns} VALUES (?, ?, ?, ?, ?, ?, ?)", copied)
            made += [one for one, _ in ids]
    database.close()
    return made


def _other(rows: list[tuple[int, str, str, str]], number: int) -> list[tuple[int, str, str, str]]:
    """The same with every reading of film a little higher."""

    def more(found: re.Match[str]) -> str:
        return f'"value_um":{float(found[1]) + number / 7:.2f}'

    return [(seq, id, by, re.sub(r'"value_um":([0-9.]+)', more, draft)) for seq, id, by, draft in rows]
