"""Adding entries behind the last one: looked at first, then chained and stored in the open transaction."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from uuid import UUID

from pydantic import ValidationError
from sqlalchemy import bindparam, insert, text
from sqlalchemy.orm import Session

from hakutsu.core.keys import check_keys
from hakutsu.entries import Draft, EntryError
from hakutsu.entries.envelope import FIRST_HASH, HASH_VERSION, chained
from hakutsu.logbook.tables import EntryRow

AT_ONCE = 500  # parameters in one query
# Written out: to compose them anew for each entry would take longer than to ask.
TIP = text("SELECT seq, hash FROM entry WHERE inspection_id = :inspection ORDER BY seq DESC LIMIT 1")
KNOWN = text("SELECT id, draft FROM entry WHERE inspection_id = :inspection AND id IN :ids").bindparams(
    bindparam("ids", expanding=True)
)


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


@dataclass(frozen=True, slots=True)
class Signed:
    """A draft and who wrote it."""

    draft: Draft
    by: str


def tip(session: Session, inspection: UUID) -> tuple[int, str]:
    """Number and hash of the last entry; 0 and zeros where there is none."""
    found = session.execute(TIP, {"inspection": str(inspection)}).first()
    return (found.seq, found.hash) if found else (0, FIRST_HASH)


@dataclass(frozen=True, slots=True)
class Checked:
    """A draft that was looked at: as it will be stored, or why it will not."""

    signed: Signed
    stored: str
    fault: EntryError | None = None


def look_at(signed: Signed) -> Checked:
    """Look at a draft: as it will be stored, or why it will not be."""
    try:
        stored = signed.draft.check()
        check_keys(signed.draft.parsed())
    except EntryError as error:
        return Checked(signed, "", error)
    return Checked(signed, stored)


def checked(signed: Iterable[Signed]) -> list[Checked]:
    """Look at drafts before anything is stored."""
    return [look_at(one) for one in signed]


def add(session: Session, inspection: UUID, drafts: Sequence[Checked]) -> list[Acknowledged | Refused]:
    """Add drafts that were looked at behind the last entry, in the open transaction; no query for each."""
    asked = {str(one.signed.draft.id) for one in drafts if one.fault is None}
    asked |= {str(one.signed.draft.strikes) for one in drafts if one.signed.draft.strikes is not None}
    known = _known(session, inspection, sorted(asked))
    seq, previous = tip(session, inspection)
    rows, answers = [], []
    for one in drafts:
        answer = _answer(one, known)
        answers.append(answer)
        draft, by = one.signed.draft, one.signed.by
        if isinstance(answer, Refused) or str(draft.id) in known:
            continue
        seq += 1
        previous = chained(HASH_VERSION, previous, str(inspection), seq, by, one.stored)
        rows.append(
            {"inspection_id": str(inspection), "seq": seq, "id": str(draft.id), "by": by, "hash": previous,
             "hash_version": HASH_VERSION, "draft": one.stored}
        )  # fmt: skip
        known[str(draft.id)] = one.stored
    if rows:
        session.execute(insert(EntryRow), rows)
    return answers


def _known(session: Session, inspection: UUID, ids: Sequence[str]) -> dict[str, str]:
    """What is stored under each of these ids in the inspection's logbook."""
    found: dict[str, str] = {}
    for start in range(0, len(ids), AT_ONCE):
        some = ids[start : start + AT_ONCE]
        found |= {row.id: row.draft for row in session.execute(KNOWN, {"inspection": str(inspection), "ids": some})}
    return found


def _answer(one: Checked, known: dict[str, str]) -> Acknowledged | Refused:
    draft = one.signed.draft
    if one.fault is not None:
        return Refused(draft.id, one.fault.field, one.fault.message)
    before = known.get(str(draft.id))
    if before is not None and before != one.stored and not _same(before, draft):
        return Refused(draft.id, "id", "another entry already has this id; send it again with a new one")
    if draft.strikes is not None and str(draft.strikes) not in known:
        return Refused(draft.id, "strikes", "the entry to strike is not in this inspection's logbook")
    return Acknowledged(draft.id)


def _same(stored: str, draft: Draft) -> bool:
    try:
        return Draft.model_validate_json(stored) == draft
    except ValidationError:
        return False
