"""The logbook: append drafts durably, read entries back in order."""

from __future__ import annotations

import json
import time
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from datetime import datetime
from pathlib import Path
from uuid import UUID

from pydantic import ValidationError
from sqlalchemy import Engine, Row, func, select, text
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

from hakutsu.entries import Draft, Entry, Unread
from hakutsu.entries.envelope import FIRST_HASH
from hakutsu.logbook.adding import Acknowledged, Refused, Signed, add, look_at
from hakutsu.logbook.changes import Changes
from hakutsu.logbook.derived import Derived
from hakutsu.logbook.ends import End, Ends
from hakutsu.logbook.library import Library
from hakutsu.logbook.tables import EntryRow, InspectionRow, SettingRow
from hakutsu.logbook.trouble import DataTrouble

ACCOUNT = "account.name"
WAIT_SECONDS, LOOK_SECONDS = 10.0, 0.05
# What is imported is shown when its last entry is in.
LAST = text(
    "SELECT i.importing_from, e.seq, e.hash FROM inspection i LEFT JOIN entry e ON e.inspection_id = i.id AND e.seq = "
    "(SELECT max(seq) FROM entry WHERE inspection_id = i.id AND seq <= coalesce(i.importing_from, seq)) "
    "WHERE i.id = :inspection"
)
IMPORTING = text("SELECT importing_from FROM inspection WHERE id = :inspection")
SETTING = text("SELECT value FROM setting WHERE key = :key")
ROWS = text(
    'SELECT seq, "by", hash, hash_version, draft FROM entry WHERE inspection_id = :inspection AND seq > :after '
    "AND seq <= coalesce(:upto, seq) AND seq <= "
    "coalesce((SELECT importing_from FROM inspection WHERE id = :inspection), seq) ORDER BY seq"
)


class ImportUnderWay(DataTrouble):
    """Entries are being imported into this inspection: it takes others when that is done."""


class Logbook:
    """Inspections and their entries. Entries are only ever added."""

    def __init__(self, engine: Engine) -> None:
        self.engine = engine
        self.changes = Changes(engine)
        self.library = Library(engine, self.changes)  # what is kept from one inspection to the next
        self._ends = Ends(engine, self.changes)
        self.derived = Derived(self.database, writable=not self.read_only)

    @property
    def database(self) -> Path:
        """The file all of it lies in."""
        name = (self.engine.url.database or "").removeprefix("file:")
        return Path(name.partition("?")[0])

    @property
    def read_only(self) -> bool:
        """Whether it was opened for reading, because nothing can be written where it lies."""
        return self.engine.url.query.get("mode") == "ro" or "mode=ro" in str(self.engine.url)

    @contextmanager
    def writing(self) -> Iterator[Session]:
        """A transaction that holds the right to write from its first moment."""
        with Session(self.engine) as session:
            session.execute(text("BEGIN IMMEDIATE"))
            try:
                yield session
                session.commit()
            except BaseException:
                session.rollback()
                raise

    def open_inspection(self, inspection: UUID, at: datetime) -> None:
        """Make room for an inspection; doing it twice is harmless."""
        with self.writing() as session:
            if session.get(InspectionRow, str(inspection)) is None:
                session.add(InspectionRow(id=str(inspection), opened_at=at.isoformat(timespec="seconds")))

    def inspections(self) -> list[UUID]:
        """Ids of all inspections, newest first; of a damaged database those that can still be read."""
        shown = func.coalesce(InspectionRow.importing_from, 1) > 0
        newest = select(InspectionRow.id).where(shown).order_by(InspectionRow.opened_at.desc())
        with Session(self.engine) as session:
            try:
                return [UUID(row) for row in session.scalars(newest)]
            except DBAPIError:
                return self._readable(session)

    def _readable(self, session: Session) -> list[UUID]:
        found: dict[UUID, None] = {}
        for query in (select(InspectionRow.id), select(EntryRow.inspection_id).distinct()):
            try:
                for row in session.scalars(query.execution_options(yield_per=1)):
                    found[UUID(row)] = None
            except (DBAPIError, ValueError):
                continue  # what lies behind the damaged part cannot be reached from here
        if not found:
            session.scalars(select(InspectionRow.id)).all()  # says what is wrong
        return list(found)

    def holds(self, inspection: UUID) -> bool:
        """True if the inspection exists."""
        return self.end(inspection) is not None

    def opened_at(self, inspection: UUID) -> str:
        """When an inspection was opened, as it is stored; empty where there is none."""
        with Session(self.engine) as session:
            row = session.get(InspectionRow, str(inspection))
            return row.opened_at if row else ""

    def all_opened_at(self) -> dict[UUID, str]:
        """When each inspection was opened."""
        with Session(self.engine) as session:
            rows = session.execute(select(InspectionRow.id, InspectionRow.opened_at))
            return {UUID(row.id): row.opened_at for row in rows}

    def imported_tip(self, inspection: UUID) -> str:
        """Last hash of the logbook an inspection was imported from; empty where it was not imported."""
        with Session(self.engine) as session:
            row = session.get(InspectionRow, str(inspection))
            return (row.imported_tip if row else None) or ""

    def append(self, inspection: UUID, drafts: Sequence[Draft], by: str) -> list[Acknowledged | Refused]:
        """Append drafts in one transaction, durable when this returns.

        A draft whose id is already there with the same content is acknowledged again. A bad draft is refused by
        itself; the good ones beside it are kept.

        Raises
        ------
        LookupError
            If there is no such inspection.
        ImportUnderWay
            If an import into this inspection does not end within ten seconds.
        """
        checked = [look_at(Signed(draft, by)) for draft in drafts]
        until = time.monotonic() + WAIT_SECONDS
        while True:
            with self.writing() as session:
                row = session.execute(IMPORTING, {"inspection": str(inspection)}).first()
                if row is None or row.importing_from == 0:
                    raise LookupError(f"no inspection {inspection}")
                if row.importing_from is None:
                    return add(session, inspection, checked)
            if time.monotonic() > until:
                raise ImportUnderWay("entries are being imported into this inspection; try again in a moment")
            time.sleep(LOOK_SECONDS)

    def tip(self, inspection: UUID) -> str:
        """Hash of the last entry: it changes when, and only when, the logbook does."""
        return (self.end(inspection) or End(0, FIRST_HASH)).hash

    def end(self, inspection: UUID) -> End | None:
        """The last entry that is shown, as number and hash; none where there is no such inspection."""
        return self.changes.kept(("end", inspection), lambda: self._end(inspection))

    def _end(self, inspection: UUID) -> End | None:
        with self.engine.connect() as connection:
            found = connection.execute(LAST, {"inspection": str(inspection)}).first()
        if found is None or found.importing_from == 0:
            return None
        return End(found.seq, found.hash) if found.seq else End(0, FIRST_HASH)

    def ends(self) -> Mapping[UUID, End]:
        """The last entry of every inspection that has one."""
        return self._ends.now()

    def ends_since(self, version: int) -> tuple[int, set[UUID] | None]:
        """The version of all ends, and whose are others than at an earlier version; none where any may be."""
        return self._ends.since(version)

    def tips(self) -> dict[UUID, str]:
        """Hash of the last entry of every inspection that has one."""
        return {inspection: end.hash for inspection, end in self.ends().items()}

    def entries(self, inspection: UUID) -> list[Entry]:
        """All entries of an inspection that can be read, in order, struck ones included."""
        return self.read(inspection)[0]

    def read(self, inspection: UUID, after: int = 0, upto: int | None = None) -> tuple[list[Entry], list[Unread]]:
        """All entries of an inspection in order, struck ones included: those this version can read, and the others.

        Those behind the number `after`, and up to the number `upto`.
        """
        found: list[Entry] = []
        unread: list[Unread] = []
        for row in self.rows(inspection, after, upto):
            try:
                found.append(entry_of(inspection, row))
            except (ValueError, RecursionError) as error:
                unread.append(Unread(row.seq, str(row.by), _why(error), str(row.draft)))
        return found, unread

    def rows(
        self, inspection: UUID, after: int = 0, upto: int | None = None
    ) -> list[Row[tuple[int, str, str, int, str]]]:
        """Entries as they are stored (`seq`, `by`, `hash`, `hash_version`, `draft`), behind a number, up to one."""
        with self.engine.connect() as connection:
            return list(connection.execute(ROWS, {"inspection": str(inspection), "after": after, "upto": upto}))

    @property
    def account(self) -> str:
        """Name under which the one local account signs its entries; empty until given, or where it cannot be read."""
        return self.changes.kept("account", self._account)

    @account.setter
    def account(self, name: str) -> None:
        with self.writing() as session:
            session.merge(SettingRow(key=ACCOUNT, value=name))

    def _account(self) -> str:
        try:
            with self.engine.connect() as connection:
                stored = connection.scalar(SETTING, {"key": ACCOUNT})
        except DBAPIError:
            return ""
        return str(json.loads(stored)) if stored else ""

    def mentions(self, sha256: str) -> bool:
        """Whether any entry, struck or not, names a file by its hash."""
        with Session(self.engine) as session:
            return session.scalar(select(EntryRow.seq).where(EntryRow.draft.contains(sha256)).limit(1)) is not None

    def count(self) -> int:
        """Number of entries in all inspections."""
        with Session(self.engine) as session:
            return session.scalar(select(func.count()).select_from(EntryRow)) or 0


def _why(error: Exception) -> str:
    if not isinstance(error, ValidationError):
        return "what is stored is no entry"
    first = error.errors()[0]
    where = ".".join(str(part) for part in first["loc"])
    return f"{where}: {first['msg'].removeprefix('Value error, ')}"


def entry_of(inspection: UUID, row: Row[tuple[int, str, str, int, str]]) -> Entry:
    """An entry as it is stored, read.

    Raises
    ------
    ValueError
        If its envelope cannot be read.
    """
    said = json.loads(row.draft)
    if not isinstance(said, dict):
        raise ValueError("no entry")
    return Entry.model_validate({**said, "inspection": inspection, "by": row.by, "seq": row.seq, "hash": row.hash})
