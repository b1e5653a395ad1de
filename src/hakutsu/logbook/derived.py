"""What is derived from the logbooks and kept beside them: thrown away without loss, and made anew when it is gone."""

from __future__ import annotations

import json
import logging
import sqlite3
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from pathlib import Path
from threading import RLock
from typing import Any
from uuid import UUID

FILE = "derived.sqlite"
VERSION = 1
SHORTEST_INDEXED = 3  # letters the index of words is made of
SCHEMA = """
CREATE TABLE summary (inspection TEXT PRIMARY KEY, seq INTEGER, hash TEXT, made TEXT, said TEXT) WITHOUT ROWID;
CREATE TABLE shown (id INTEGER PRIMARY KEY, inspection TEXT UNIQUE, opened_at TEXT, key TEXT, words TEXT);
CREATE INDEX shown_newest ON shown (opened_at DESC);
CREATE VIRTUAL TABLE texts USING fts5(text, tokenize='trigram');
"""
_log = logging.getLogger("hakutsu.derived")


@dataclass(frozen=True, slots=True)
class Kept:
    """Words of an inspection: the key of what they were made from, the text that is searched, and what is shown."""

    inspection: UUID
    key: str
    text: str
    words: dict[str, Any]
    opened_at: str = ""


@dataclass(frozen=True, slots=True)
class SummaryRow:
    """A summary as it is kept: of which last entry, by what it was made, and what it says."""

    inspection: UUID
    seq: int
    hash: str
    made: str
    said: dict[str, Any]


class Derived:
    """A database of its own beside the logbooks'; in memory where none can be kept."""

    def __init__(self, database: Path, *, writable: bool = True) -> None:
        self._path = database.with_name(FILE) if writable and database.parent.is_dir() else None
        self._lock = RLock()
        self._open: sqlite3.Connection | None = None

    def summaries(self) -> list[SummaryRow]:
        """Every summary kept."""
        with self._lock:
            rows = self._connection().execute("SELECT inspection, seq, hash, made, said FROM summary").fetchall()
        return [SummaryRow(UUID(one), seq, hash, made, json.loads(said)) for one, seq, hash, made, said in rows]

    def keep_summaries(self, rows: Iterable[SummaryRow]) -> None:
        """Keep summaries in the place of older ones."""
        said = [(str(one.inspection), one.seq, one.hash, one.made, json.dumps(one.said)) for one in rows]
        with self._lock, self._connection() as connection:
            connection.executemany("INSERT OR REPLACE INTO summary VALUES (?, ?, ?, ?, ?)", said)

    def keys(self) -> dict[UUID, str]:
        """From what the words of each inspection were made."""
        with self._lock:
            return {UUID(one): key for one, key in self._connection().execute("SELECT inspection, key FROM shown")}

    def keep(self, made: Sequence[Kept]) -> None:
        """Keep words in the place of older ones."""
        with self._lock, self._connection() as connection:
            for one in made:
                old = connection.execute("SELECT id FROM shown WHERE inspection = ?", (str(one.inspection),)).fetchone()
                number = old[0] if old else None
                if old:
                    connection.execute("DELETE FROM texts WHERE rowid = ?", (number,))
                shown = (number, str(one.inspection), one.opened_at, one.key, json.dumps(one.words))
                kept = connection.execute("INSERT OR REPLACE INTO shown VALUES (?, ?, ?, ?, ?)", shown).lastrowid
                connection.execute("INSERT INTO texts (rowid, text) VALUES (?, ?)", (kept, one.text))

    def holding(self, parts: Sequence[str], most: int = 50) -> tuple[list[dict[str, Any]], int]:
        """What is shown of the newest inspections whose text holds every part, at most so many; and how many do."""
        long = [part for part in parts if len(part) >= SHORTEST_INDEXED]
        short = [part for part in parts if len(part) < SHORTEST_INDEXED]
        asked = " AND ".join('"{}"'.format(part.replace('"', '""')) for part in long)
        where = ["texts MATCH ?"] if asked else []
        where += ["instr(text, ?) > 0"] * len(short)
        given = ([asked] if asked else []) + short
        found = f"FROM texts JOIN shown ON shown.id = texts.rowid WHERE {' AND '.join(where) or '1'}"
        with self._lock:
            connection = self._connection()
            count = connection.execute(f"SELECT count(*) {found}", given).fetchone()[0]
            rows = connection.execute(f"SELECT shown.words {found} ORDER BY opened_at DESC LIMIT ?", (*given, most))
            return [json.loads(one) for (one,) in rows], count

    def close(self) -> None:
        """Let the database go."""
        with self._lock:
            if self._open is not None:
                self._open.close()
                self._open = None

    def _connection(self) -> sqlite3.Connection:
        if self._open is None:
            self._open = self._opened()
        return self._open

    def _opened(self) -> sqlite3.Connection:
        for path in (self._path, self._path, None):
            try:
                return _prepared(path)
            except sqlite3.Error as error:
                _log.warning("what is derived is made anew: %s", error)
                if path is not None:
                    for name in (FILE, f"{FILE}-wal", f"{FILE}-shm"):
                        path.with_name(name).unlink(missing_ok=True)
        raise AssertionError("a database in memory can be opened")


def _prepared(path: Path | None) -> sqlite3.Connection:
    connection = sqlite3.connect(path or ":memory:", check_same_thread=False, timeout=10)
    connection.execute("PRAGMA journal_mode=WAL")
    connection.execute("PRAGMA synchronous=OFF")  # it may be lost with the power: it is derived
    version = connection.execute("PRAGMA user_version").fetchone()[0]
    if version not in (0, VERSION):
        connection.close()
        raise sqlite3.DatabaseError(f"version {version}")
    if version == 0:
        connection.executescript(f"BEGIN IMMEDIATE; {SCHEMA} PRAGMA user_version={VERSION}; COMMIT;")
    connection.execute("SELECT count(*) FROM summary").fetchone()
    return connection
