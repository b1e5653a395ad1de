"""The logbook: append drafts durably, read entries back in order."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from sqlalchemy import Engine, func, select, text
from sqlalchemy.orm import Session

from hakutsu.entries import Draft, Entry, EntryError
from hakutsu.logbook.library import Library
from hakutsu.logbook.tables import EntryRow, InspectionRow, SettingRow
from hakutsu.logbook.words import SearchWords

ACCOUNT = "account.name"
FIRST_HASH = "0" * 64


@dataclass(frozen=True, slots=True)
class Acknowledged:
    """The entry is stored for good."""

    id: UUID


@dataclass(frozen=True, slots=True)
class Refused:
    """The entry was not stored; which field is wrong, and why."""

    id: UUID
    field: str
    message: str


class Logbook:
    """Inspections and their entries. Entries are only ever added."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self.library = Library(engine)  # what is kept from one inspection to the next
        self.words = SearchWords(engine)

    @contextmanager
    def _writing(self) -> Iterator[Session]:
        with Session(self._engine) as session:
            session.execute(text("BEGIN IMMEDIATE"))
            try:
                yield session
                session.commit()
            except BaseException:
                session.rollback()
                raise

    def open_inspection(self, inspection: UUID, at: datetime) -> None:
        """Make room for an inspection; doing it twice is harmless."""
        with self._writing() as session:
            if session.get(InspectionRow, str(inspection)) is None:
                session.add(InspectionRow(id=str(inspection), opened_at=at.isoformat(timespec="seconds")))

    def inspections(self) -> list[UUID]:
        """Ids of all inspections, newest first."""
        with Session(self._engine) as session:
            rows = session.scalars(select(InspectionRow.id).order_by(InspectionRow.opened_at.desc()))
            return [UUID(row) for row in rows]

    def holds(self, inspection: UUID) -> bool:
        """True if the inspection exists."""
        with Session(self._engine) as session:
            return session.get(InspectionRow, str(inspection)) is not None

    def append(self, inspection: UUID, drafts: Sequence[Draft], by: str) -> list[Acknowledged | Refused]:
        """Append drafts in one transaction, durable when this returns.

        A draft whose id is already there with the same content is acknowledged again. A bad draft is refused by
        itself; the good ones beside it are kept.

        Raises
        ------
        LookupError
            If there is no such inspection.
        """
        with self._writing() as session:
            if session.get(InspectionRow, str(inspection)) is None:
                raise LookupError(f"no inspection {inspection}")
            return [self._append_one(session, inspection, draft, by) for draft in drafts]

    def _append_one(self, session: Session, inspection: UUID, draft: Draft, by: str) -> Acknowledged | Refused:
        try:
            draft.check()
        except EntryError as error:
            return Refused(draft.id, error.field, error.message)
        known = session.get(EntryRow, str(draft.id))
        if known is not None:
            same = known.inspection_id == str(inspection) and _entry(known).same_content(draft)
            if same:
                return Acknowledged(draft.id)
            return Refused(draft.id, "id", "another entry already has this id; send it again with a new one")
        if draft.strikes is not None:
            struck = session.get(EntryRow, str(draft.strikes))
            if struck is None or struck.inspection_id != str(inspection):
                return Refused(draft.id, "strikes", "the entry to strike is not in this inspection's logbook")
        seq, previous = self._tip(session, inspection)
        entry = Entry(**draft.model_dump(), inspection=inspection, by=by, seq=seq + 1, hash="")
        session.add(
            EntryRow(
                id=str(entry.id),
                inspection_id=str(inspection),
                seq=entry.seq,
                by=entry.by,
                hash=entry.canonical(previous),
                draft=draft.model_dump(mode="json"),
            )
        )
        session.flush()
        return Acknowledged(draft.id)

    def _tip(self, session: Session, inspection: UUID) -> tuple[int, str]:
        last = session.execute(
            select(EntryRow.seq, EntryRow.hash)
            .where(EntryRow.inspection_id == str(inspection))
            .order_by(EntryRow.seq.desc())
            .limit(1)
        ).first()
        return (last.seq, last.hash) if last else (0, FIRST_HASH)

    def tip(self, inspection: UUID) -> str:
        """Hash of the last entry: it changes when, and only when, the logbook does."""
        with Session(self._engine) as session:
            return self._tip(session, inspection)[1]

    def tips(self) -> dict[UUID, str]:
        """Hash of the last entry of every inspection that has one."""
        last = select(EntryRow.inspection_id, func.max(EntryRow.seq).label("seq")).group_by(EntryRow.inspection_id)
        ends = last.subquery()
        with Session(self._engine) as session:
            rows = session.execute(
                select(EntryRow.inspection_id, EntryRow.hash).join(
                    ends, (EntryRow.inspection_id == ends.c.inspection_id) & (EntryRow.seq == ends.c.seq)
                )
            )
            return {UUID(inspection): tip for inspection, tip in rows}

    def lengths(self) -> dict[UUID, int]:
        """Number of the last entry of every inspection that has one."""
        with Session(self._engine) as session:
            rows = session.execute(
                select(EntryRow.inspection_id, func.max(EntryRow.seq)).group_by(EntryRow.inspection_id)
            )
            return {UUID(inspection): seq for inspection, seq in rows}

    def entries(self, inspection: UUID) -> list[Entry]:
        """All entries of an inspection in order, struck ones included."""
        with Session(self._engine) as session:
            rows = session.scalars(
                select(EntryRow).where(EntryRow.inspection_id == str(inspection)).order_by(EntryRow.seq)
            )
            return [_entry(row) for row in rows]

    def first_broken(self, inspection: UUID) -> int | None:
        """Sequence number of the first entry whose hash does not follow from the one before, or none."""
        previous = FIRST_HASH
        for entry in self.entries(inspection):
            if entry.hash != entry.canonical(previous):
                return entry.seq
            previous = entry.hash
        return None

    @property
    def account(self) -> str:
        """Name under which the one local account signs its entries; empty until given."""
        with Session(self._engine) as session:
            row = session.get(SettingRow, ACCOUNT)
            return str(row.value) if row else ""

    @account.setter
    def account(self, name: str) -> None:
        with self._writing() as session:
            session.merge(SettingRow(key=ACCOUNT, value=name))

    def count(self) -> int:
        """Number of entries in all inspections."""
        with Session(self._engine) as session:
            return session.scalar(select(func.count()).select_from(EntryRow)) or 0


def _entry(row: EntryRow) -> Entry:
    return Entry.model_validate(
        {**row.draft, "inspection": row.inspection_id, "by": row.by, "seq": row.seq, "hash": row.hash}
    )
