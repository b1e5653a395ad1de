"""The chain of hashes, checked: from the last entry that held on, or the whole of it."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from sqlalchemy import func, select
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm import Session

from hakutsu.entries.envelope import FIRST_HASH, chained
from hakutsu.logbook.store import Logbook
from hakutsu.logbook.tables import CheckedRow, EntryRow
from hakutsu.logbook.trouble import words

AT_ONCE = 200


@dataclass(frozen=True, slots=True)
class Checked:
    """How far a logbook holds: number and hash of the last entry that follows from the one before, when that was seen,
    and where not: the number of the first entry that does not, and why.
    """

    seq: int
    hash: str
    at: datetime
    fault_seq: int | None = None
    fault: str = ""


class Integrity:
    """Checks logbooks, and keeps how far each was checked."""

    def __init__(self, logbook: Logbook) -> None:
        self._logbook = logbook

    def check(self, inspection: UUID, now: datetime, *, whole: bool = False) -> Checked:
        """Check an inspection from the last entry that held on; the whole of it if asked. What was found is kept.

        An entry that is changed, missing, or put in later does not follow from the one before it; a logbook cut short
        is shorter than when it was last checked.
        """
        found, new = self._found(inspection, now, whole)
        if new:
            self._keep({inspection: found})
        return found

    def _found(self, inspection: UUID, now: datetime, whole: bool) -> tuple[Checked, bool]:
        """What a check finds, and whether that is more than was known."""
        before = self.last(inspection)
        start = Checked(0, FIRST_HASH, now) if whole or before is None else before
        found = self._follow(inspection, start, now)
        if whole and before is not None and before.seq and found.fault_seq is None:
            fault = self._moved(inspection, before)
            found = Checked(found.seq, found.hash, now, *fault) if fault else found
        known = before is not None and (before.seq, before.hash, before.fault_seq)
        return found, (found.seq, found.hash, found.fault_seq) != known

    def _follow(self, inspection: UUID, start: Checked, now: datetime) -> Checked:
        seq, previous = start.seq, start.hash
        if seq and (fault := self._moved(inspection, start)):
            return Checked(seq, previous, now, *fault)
        try:
            rows = self._logbook.rows(inspection, seq)
        except DBAPIError as error:
            return Checked(seq, previous, now, seq + 1, f"the database {words(error)}")
        for row in rows:
            if row.seq != seq + 1:
                return Checked(seq, previous, now, seq + 1, "it is missing")
            try:
                held = row.hash == chained(row.hash_version, previous, str(inspection), row.seq, row.by, row.draft)
            except (TypeError, ValueError, RecursionError) as error:
                return Checked(seq, previous, now, row.seq, f"it cannot be read: {error}")
            if not held:
                return Checked(seq, previous, now, row.seq, "it does not follow from the one before")
            seq, previous = row.seq, row.hash
        return Checked(seq, previous, now)

    def _moved(self, inspection: UUID, start: Checked) -> tuple[int, str] | None:
        """What became of the entry checked last: nothing if it is still what it was."""
        mine = select(EntryRow.hash).where(EntryRow.inspection_id == str(inspection), EntryRow.seq == start.seq)
        with Session(self._logbook.engine) as session:
            try:
                there = session.scalar(mine)
                last = session.scalar(select(func.max(EntryRow.seq)).where(EntryRow.inspection_id == str(inspection)))
            except DBAPIError as error:
                return start.seq, f"the database {words(error)}"
        if there is None:
            return (last or 0) + 1, f"{start.seq} entries were here when it was last checked, now {last or 0}"
        return None if there == start.hash else (start.seq, "it is not the one that was here when it was last checked")

    def last(self, inspection: UUID) -> Checked | None:
        """How an inspection was found when it was last checked."""
        with Session(self._logbook.engine) as session:
            try:
                row = session.get(CheckedRow, str(inspection))
                return _checked(row) if row else None
            except (DBAPIError, ValueError):
                return None

    def faults(self) -> dict[UUID, Checked]:
        """Inspections whose logbook was found not to hold."""
        return self._logbook.changes.kept("faults", self._faults)

    def _faults(self) -> dict[UUID, Checked]:
        with Session(self._logbook.engine) as session:
            try:
                rows = session.scalars(select(CheckedRow).where(CheckedRow.fault_seq.is_not(None)))
                return {UUID(row.inspection_id): _checked(row) for row in rows}
            except (DBAPIError, ValueError):
                return {}

    def _keep(self, every: Mapping[UUID, Checked]) -> None:
        try:
            with self._logbook.writing() as session:
                for inspection, found in every.items():
                    session.merge(
                        CheckedRow(
                            inspection_id=str(inspection), seq=found.seq, hash=found.hash, at=found.at.isoformat(),
                            fault_seq=found.fault_seq, fault=found.fault[:200],
                        )
                    )  # fmt: skip
        except DBAPIError:
            return  # a database that cannot be written is checked again the next time

    def check_all(
        self, now: Callable[[], datetime], *, whole: bool = False, stopped: Callable[[], bool] = lambda: False
    ) -> Iterator[tuple[UUID, Checked]]:
        """Check every inspection, one after the other, until stopped; what was found is kept many at once."""
        kept: dict[UUID, Checked] = {}
        try:
            for inspection in self._logbook.inspections():
                if stopped():
                    return
                found, new = self._found(inspection, now(), whole)
                if new:
                    kept[inspection] = found
                if len(kept) >= AT_ONCE:
                    self._keep(kept)
                    kept.clear()
                yield inspection, found
        finally:
            if kept:
                self._keep(kept)


def _checked(row: CheckedRow) -> Checked:
    return Checked(row.seq, row.hash, datetime.fromisoformat(row.at), row.fault_seq, row.fault)
