"""The last entry of every logbook, followed by what was added since it was last looked at."""

from __future__ import annotations

from collections import deque
from threading import Lock
from typing import NamedTuple
from uuid import UUID

from sqlalchemy import Engine, text
from sqlalchemy.engine import Connection

from hakutsu.logbook.changes import Changes

EVERY = text(
    "SELECT i.id, e.seq, e.hash FROM inspection i JOIN entry e ON e.inspection_id = i.id AND e.seq = (SELECT max(seq) "
    "FROM entry WHERE inspection_id = i.id AND seq <= coalesce(i.importing_from, seq))"
)
SINCE = text(
    "SELECT e.inspection_id, e.seq, e.hash FROM entry e JOIN (SELECT inspection_id, max(seq) AS last "
    "FROM entry NOT INDEXED WHERE rowid > :last GROUP BY inspection_id) n "  # which else goes through all by group
    "ON n.inspection_id = e.inspection_id AND n.last = e.seq"
)
IMPORTING = text("SELECT id FROM inspection WHERE importing_from IS NOT NULL")
LAST_ROW = text("SELECT coalesce(max(rowid), 0) FROM entry")


KEPT = 64  # changes that are told one by one


class End(NamedTuple):
    """The last entry of a logbook: its number, 0 where there is none, and its hash."""

    seq: int
    hash: str


class Ends:
    """The ends of all logbooks; what is imported does not count until its last entry is in."""

    def __init__(self, engine: Engine, changes: Changes) -> None:
        self._engine = engine
        self._changes = changes
        self._lock = Lock()
        self._ends: dict[UUID, End] = {}
        self._at: int | None = None
        self._row = -1
        self._importing: frozenset[str] = frozenset()
        self._version = 0
        self._changed: deque[tuple[int, frozenset[UUID] | None]] = deque(maxlen=KEPT)

    def now(self) -> dict[UUID, End]:
        """The end of every inspection that has an entry; not to be changed."""
        with self._lock:
            stamp = self._changes.stamp()
            if stamp != self._at:
                with self._engine.connect() as connection:
                    self._follow(connection)
                self._at = stamp
            return self._ends

    def since(self, version: int) -> tuple[int, set[UUID] | None]:
        """The version of the ends now, and the inspections whose end is another than at a version; none where any may
        be.
        """
        self.now()
        with self._lock:
            if version == self._version:
                return version, set()
            changed = [ids for at, ids in self._changed if at > version]
            if version < 0 or len(changed) < self._version - version or None in changed:
                return self._version, None
            return self._version, {one for ids in changed if ids is not None for one in ids}

    def _follow(self, connection: Connection) -> None:
        importing = frozenset(connection.scalars(IMPORTING))
        row = int(connection.scalar(LAST_ROW) or 0)
        if self._row < 0 or row < self._row or importing != self._importing:
            # Only an import takes entries away again, and rows of theirs may be given anew.
            self._ends = {UUID(one.id): End(one.seq, one.hash) for one in connection.execute(EVERY)}
            self._note(None)
        elif row > self._row:
            new = [one for one in connection.execute(SINCE, {"last": self._row}) if one.inspection_id not in importing]
            changed = {UUID(one.inspection_id): End(one.seq, one.hash) for one in new}
            self._ends = self._ends | changed
            self._note(frozenset(changed))
        self._row, self._importing = row, importing

    def _note(self, changed: frozenset[UUID] | None) -> None:
        self._version += 1
        self._changed.append((self._version, changed))
