"""Many entries at once: in batches that leave room for others, shown when the last of them is in, or not at all."""

from __future__ import annotations

import time
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from filelock import FileLock, Timeout
from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from hakutsu.logbook.adding import Checked, Refused, add, tip
from hakutsu.logbook.store import Logbook
from hakutsu.logbook.tables import EntryRow, InspectionRow
from hakutsu.logbook.trouble import DataTrouble

BATCH = 500
SHARE = 1.0  # rest between two batches, as a share of what the last one took
LOCK_SECONDS = 30.0


class AnotherImport(DataTrouble):
    """Only one import goes on at a time in a data directory."""


@dataclass(frozen=True, slots=True)
class Arriving:
    """Where entries go: the inspection, when it was opened if it is new here, the last hash it came with, if any."""

    inspection: UUID
    opened_at: datetime
    came_with: str = ""


def import_lock(logbook: Logbook) -> FileLock:
    """The lock that whoever imports holds: what is half in while nobody holds it was left by a crash."""
    return FileLock(logbook.database.with_name("import.lock"))


@contextmanager
def _alone(logbook: Logbook) -> Iterator[None]:
    lock = import_lock(logbook)
    try:
        lock.acquire(timeout=LOCK_SECONDS)
    except Timeout as error:
        raise AnotherImport("another import is under way; try again when it is done") from error
    except OSError as error:
        raise DataTrouble(f"{logbook.database.parent} cannot be written: {error.strerror}") from error
    try:
        yield
    finally:
        lock.release()


class NotAll(ValueError):
    """Some entries were refused, so none was stored."""

    def __init__(self, refused: Sequence[Refused]) -> None:
        super().__init__("; ".join(f"{one.field}: {one.message}" for one in refused[:3]))
        self.refused = refused


def import_entries(logbook: Logbook, arriving: Arriving, entries: Sequence[Checked]) -> int:
    """Append many entries that were looked at, all of them or none; how many were new.

    Each batch is one transaction. Other inspections are written in between; this one takes no other entry until the
    import is done. Nothing of it is shown before, and a crash leaves nothing of it.

    Raises
    ------
    AnotherImport
        If another import does not end in time.
    NotAll
        If any of them is refused.
    """
    bad = [Refused(one.signed.draft.id, one.fault.field, one.fault.message) for one in entries if one.fault]
    if bad:
        raise NotAll(bad)
    with _alone(logbook):
        _clear(logbook)
        before = _begin(logbook, arriving)
        try:
            for start in range(0, len(entries), BATCH):
                began = time.monotonic()
                with logbook.writing() as session:
                    answers = add(session, arriving.inspection, entries[start : start + BATCH])
                    if refused := [one for one in answers if isinstance(one, Refused)]:
                        raise NotAll(refused)
                if start + BATCH < len(entries):
                    rest(SHARE * (time.monotonic() - began))
            return _finish(logbook, arriving, before)
        except BaseException:
            _clear(logbook)
            raise


def rest(seconds: float) -> None:
    """Let others write."""
    time.sleep(seconds)


def _begin(logbook: Logbook, arriving: Arriving) -> int:
    with logbook.writing() as session:
        row = session.get(InspectionRow, str(arriving.inspection))
        last = tip(session, arriving.inspection)[0]
        if row is None:
            opened = arriving.opened_at.isoformat(timespec="seconds")
            row = InspectionRow(id=str(arriving.inspection), opened_at=opened)
            session.add(row)
        row.importing_from = last
    return last


def _finish(logbook: Logbook, arriving: Arriving, before: int) -> int:
    with logbook.writing() as session:
        row = session.get_one(InspectionRow, str(arriving.inspection))
        row.importing_from = None
        added = tip(session, arriving.inspection)[0] - before
        if arriving.came_with and added:
            row.imported_tip = arriving.came_with
        return added


def _clear(logbook: Logbook) -> int:
    """Take out what a crash left half in; how many imports that were."""
    with logbook.writing() as session:
        rows = session.scalars(select(InspectionRow).where(InspectionRow.importing_from.is_not(None))).all()
        for row in rows:
            _clear_one(session, row)
    return len(rows)


def _clear_one(session: Session, row: InspectionRow) -> None:
    half = (EntryRow.inspection_id == row.id) & (EntryRow.seq > row.importing_from)
    session.execute(delete(EntryRow).where(half))
    if row.importing_from == 0:
        session.delete(row)
    else:
        row.importing_from = None


def clear_half_imports(logbook: Logbook) -> int:
    """Take out what a crash left half in, unless an import is under way; how many imports that were."""
    lock = import_lock(logbook)
    try:
        lock.acquire(timeout=0)
    except (Timeout, OSError):
        return 0
    try:
        return _clear(logbook)
    finally:
        lock.release()
