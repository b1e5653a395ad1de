"""Whether anything was committed since, asked without reading: what was read before holds as long as nothing was."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable
from itertools import count
from threading import Lock
from typing import TypeVar

from sqlalchemy import Engine

T = TypeVar("T")
_unlike = count(-1, -1)


class Changes:
    """The state of a database as a number: another one whenever any connection, of any process, has committed.

    SQLite tells a connection that another one has written (`PRAGMA data_version`); nothing is written by this one.
    """

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._connection: sqlite3.Connection | None = None
        self._lock = Lock()
        self._kept: dict[object, object] = {}
        self._at: int | None = None

    def stamp(self) -> int:
        """The state now; where it cannot be told, one unlike any other."""
        with self._lock:
            return self._stamp()

    def _stamp(self) -> int:
        try:
            if self._connection is None:
                name = self._engine.url.database or ""
                uri = name if name.startswith("file:") else f"file:{name}?mode=ro"
                self._connection = sqlite3.connect(uri, uri=True, check_same_thread=False, isolation_level=None)
            return int(self._connection.execute("PRAGMA data_version").fetchone()[0])
        except sqlite3.Error:
            self._connection = None
            return next(_unlike)

    def kept(self, key: object, read: Callable[[], T]) -> T:
        """What was read under a key, read again only after something was committed.

        The state is asked for first: what is committed while it is read is read again the next time.
        """
        with self._lock:
            now = self._stamp()
            if now != self._at:
                self._kept.clear()
                self._at = now
            if key in self._kept:
                found: T = self._kept[key]  # type: ignore[assignment]
                return found
        value = read()
        with self._lock:
            if self._at == now:
                self._kept[key] = value
        return value

    def close(self) -> None:
        """Let the database go."""
        with self._lock:
            if self._connection is not None:
                self._connection.close()
                self._connection = None
