"""An exported inspection taken in again: looked at line by line first, then stored, all of it or nothing."""

from __future__ import annotations

import json
from collections.abc import Iterable
from contextlib import suppress
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Annotated, Any
from uuid import UUID, uuid4

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from hakutsu.entries import Draft
from hakutsu.entries.envelope import FIRST_HASH, HASH_VERSIONS, Word, chained
from hakutsu.entries.pictures import Picture
from hakutsu.exchange.bundle_file import BundleFile, BundleRefused
from hakutsu.logbook import Logbook
from hakutsu.logbook.adding import Checked, Signed, checked
from hakutsu.logbook.importing import Arriving, NotAll, import_entries
from hakutsu.logbook.pictures import PictureFiles, PictureRefused

_ABOUT = ("inspection", "by", "seq", "hash", "hash_version")
MOST_FAULTS = 200


@dataclass(frozen=True, slots=True)
class BadLine:
    """A fault: the line of the logbook, the field, and why it does not do."""

    line: int
    field: str
    reason: str

    def __str__(self) -> str:
        return f"line {self.line}, {self.field}: {self.reason}"


class _About(BaseModel):
    """What a line says beside its draft."""

    model_config = ConfigDict(frozen=True)
    inspection: UUID
    by: Annotated[Word, Field(min_length=1)]
    seq: Annotated[int, Field(ge=1)]
    hash: Annotated[str, Field(max_length=64)] = ""
    hash_version: int = 1


@dataclass(frozen=True, slots=True)
class _Line:
    number: int
    about: _About
    entry: Checked
    stored: str  # the draft as the file has it, in the form that was hashed


@dataclass
class BundlePlan:
    """What importing a file would do: its entries, every fault of it, and what is worth saying."""

    inspection: UUID
    opened_at: datetime
    entries: list[_Line]
    last_hash: str
    bad: list[BadLine] = field(default_factory=list)
    remarks: list[str] = field(default_factory=list)
    pictures: dict[str, Picture] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class Imported:
    """What an import did: into which inspection, entries that were new or there already, pictures that were new."""

    inspection: UUID
    added: int
    known: int
    pictures: int
    remarks: tuple[str, ...]


class NotImported(ValueError):
    """Nothing was stored; every fault of the file."""

    def __init__(self, faults: Iterable[object]) -> None:
        self.faults = [str(one) for one in faults]
        super().__init__("\n".join(self.faults))


def read_bundle(file: BundleFile, logbook: Logbook, *, new_id: bool = False) -> BundlePlan:
    """Look at every line of a file; nothing is stored.

    Raises
    ------
    BundleRefused
        If the file as a whole is not taken.
    """
    manifest = file.manifest()
    bad: list[BadLine] = []
    found = [one for number, raw in file.lines() if (one := _line(number, raw, bad)) is not None]
    if not found and not bad:
        raise BundleRefused("there is no entry in it")
    first = found[0].about.inspection if found else uuid4()
    for one in found:
        if one.about.inspection != first:
            bad.append(BadLine(one.number, "inspection", f"another inspection than that of the lines before, {first}"))
    inspection = uuid4() if new_id else first
    plan = BundlePlan(inspection, _opened_at(manifest, found), found, found[-1].about.hash if found else "", bad)
    _check_order(plan)
    _check_ids(plan, {} if new_id else _stored(logbook, first))
    _look_at_chain(plan)
    _want_vehicle(plan, logbook)
    for one in found:
        if one.entry.fault is None and one.entry.signed.draft.kind == "picture.taken":
            body = one.entry.signed.draft.parsed()
            if isinstance(body, Picture):
                plan.pictures[body.sha256] = body
    plan.bad.sort(key=lambda fault: fault.line)
    return plan


def _line(number: int, raw: bytes, bad: list[BadLine]) -> _Line | None:
    """One line; its faults are noted."""
    try:
        said = json.loads(raw.decode("utf-8-sig" if number == 1 else "utf-8"))
    except (ValueError, RecursionError) as error:
        bad.append(BadLine(number, "line", f"no JSON: {error}"[:200]))
        return None
    if not isinstance(said, dict):
        bad.append(BadLine(number, "line", "no JSON object"))
        return None
    try:
        about = _About.model_validate({key: said.get(key) for key in _ABOUT if key in said})
        draft = Draft.model_validate({key: value for key, value in said.items() if key not in _ABOUT})
    except ValidationError as error:
        for one in error.errors():
            where = ".".join(str(part) for part in one["loc"]) or "line"
            bad.append(BadLine(number, where, one["msg"].removeprefix("Value error, ")))
        return None
    (entry,) = checked([Signed(draft, about.by)])
    if entry.fault is not None:
        bad.append(BadLine(number, entry.fault.field, entry.fault.message))
    mine = {key: value for key, value in said.items() if key not in _ABOUT}
    return _Line(number, about, entry, json.dumps(mine, sort_keys=True, ensure_ascii=False, separators=(",", ":")))


def _opened_at(manifest: dict[str, Any], found: list[_Line]) -> datetime:
    with suppress(TypeError, ValueError):
        at = datetime.fromisoformat(str(manifest["opened_at"])) if "opened_at" in manifest else None
        if at is not None and at.tzinfo is not None:
            return at
    return found[0].entry.signed.draft.at if found else datetime.now(UTC)


def _check_order(plan: BundlePlan) -> None:
    last = 0
    for one in plan.entries:
        if one.about.seq <= last:
            plan.bad.append(BadLine(one.number, "seq", f"{one.about.seq} does not follow {last}"))
        last = max(last, one.about.seq)


def _stored(logbook: Logbook, inspection: UUID) -> dict[UUID, Draft]:
    if not logbook.holds(inspection):
        return {}
    return {entry.id: entry for entry in logbook.entries(inspection)}


def _check_ids(plan: BundlePlan, stored: dict[UUID, Draft]) -> None:
    """Ids stand for one entry each, and what is taken back was there before."""
    seen: dict[UUID, Draft] = dict(stored)
    for one in plan.entries:
        draft = one.entry.signed.draft
        before = seen.get(draft.id)
        if before is not None and any(getattr(before, name) != getattr(draft, name) for name in Draft.model_fields):
            plan.bad.append(BadLine(one.number, "id", "another entry has this id"))
        if draft.strikes is not None and draft.strikes not in seen:
            plan.bad.append(BadLine(one.number, "strikes", "no entry before it has this id"))
        seen.setdefault(draft.id, draft)


def _look_at_chain(plan: BundlePlan) -> None:
    """Say where the file's own hashes do not hold; entries are chained anew all the same."""
    previous = FIRST_HASH
    for one in plan.entries:
        about = one.about
        if not about.hash or about.hash_version not in HASH_VERSIONS:
            continue
        if about.hash != chained(about.hash_version, previous, str(about.inspection), about.seq, about.by, one.stored):
            plan.remarks.append(f"line {one.number}: its hash does not follow from the line before: changed since?")
        previous = about.hash


def _want_vehicle(plan: BundlePlan, logbook: Logbook) -> None:
    kinds = {one.entry.signed.draft.kind for one in plan.entries}
    if plan.entries and "inspection.vehicle" not in kinds and not logbook.holds(plan.inspection):
        plan.bad.append(BadLine(plan.entries[0].number, "kind", "an inspection needs an inspection.vehicle"))


def import_bundle(file: BundleFile, logbook: Logbook, pictures: PictureFiles, *, new_id: bool = False) -> Imported:
    """Take an exported inspection in. Twice is harmless: what is there already is left as it is.

    Raises
    ------
    BundleRefused
        If the file as a whole is not taken.
    NotImported
        If anything in it does not do; nothing is stored then.
    """
    plan = read_bundle(file, logbook, new_id=new_id)
    if plan.bad:
        more = [f"and {len(plan.bad) - MOST_FAULTS:,} more"] if len(plan.bad) > MOST_FAULTS else []
        raise NotImported([*plan.bad[:MOST_FAULTS], *more])
    fresh: list[str] = []
    try:
        kept = _take_pictures(plan, file, pictures, fresh)
        arriving = Arriving(plan.inspection, plan.opened_at, plan.last_hash)
        added = import_entries(logbook, arriving, [one.entry for one in plan.entries])
    except NotAll as error:
        _forget(fresh, logbook, pictures)
        numbers = {one.entry.signed.draft.id: one.number for one in plan.entries}
        raise NotImported(BadLine(numbers[one.id], one.field, one.message) for one in error.refused) from error
    except BaseException:
        _forget(fresh, logbook, pictures)
        raise
    return Imported(plan.inspection, added, len(plan.entries) - added, kept, tuple(plan.remarks))


def _forget(fresh: Iterable[str], logbook: Logbook, pictures: PictureFiles) -> None:
    for sha256 in fresh:
        if not logbook.mentions(sha256):
            pictures.forget(sha256)


def _take_pictures(plan: BundlePlan, file: BundleFile, pictures: PictureFiles, fresh: list[str]) -> int:
    kept = 0
    for sha256, body in plan.pictures.items():
        if pictures.original(sha256).is_file():
            continue
        if sha256 not in file.pictures:
            plan.remarks.append(f"picture {body.name or sha256} ({sha256[:12]}…) is missing")
            continue
        try:
            with pictures.receive() as incoming:
                for piece in file.picture(sha256):
                    incoming.write(piece)
                stored = incoming.keep("", expected=(sha256, body.mime))
        except PictureRefused as error:
            raise NotImported([f"picture {sha256}: {error}"]) from error
        fresh.append(stored.sha256)
        kept += 1
    return kept
