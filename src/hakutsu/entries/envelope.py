"""The envelope every entry travels in: as drafted by a client, and as kept by the logbook."""

from __future__ import annotations

import hashlib
import json
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Annotated, Any, Self
from uuid import UUID, uuid4

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, field_serializer, field_validator, model_validator

from hakutsu.entries.bounds import MOST_BYTES, Moment, Several, Unstorable, check_storable, within_reason
from hakutsu.entries.registry import Body, EntryError, check_place, kinds, parse_body, version_of
from hakutsu.vehicle.keyed import Keyed

Word = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)]
Remark = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]


class SaidAs(Keyed):
    """How sure it was said."""

    SURE = "sure"
    LIKELY = "likely"
    GUESS = "guess", "a guess"


class Draft(BaseModel):
    """An entry as a client writes it; its `id` is made by the client, so that sending twice is harmless.

    `strikes` is the id of the entry this one takes back or replaces. `how` says how it was looked at (distance,
    light, by hand), `said_as` how sure whoever looked was. `own_doing` marks what the inspector caused; `for_desk` puts
    it in the desk queue.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    id: UUID
    at: Moment
    kind: Word
    version: Annotated[int, Field(ge=1, le=1000)]
    place: Word | None = None
    body: dict[str, Any] = {}
    strikes: UUID | None = None
    how: Remark = ""
    said_as: SaidAs | None = None
    own_doing: bool = False
    for_desk: bool = False
    pictures: Several[UUID] = ()

    @model_validator(mode="before")
    @classmethod
    def _newest(cls, said: Any) -> Any:
        """A body without a version is of the newest that reads it: a page may have written it before an update."""
        if isinstance(said, dict) and "version" not in said:
            return said | {"version": version_of(str(said.get("kind")), said.get("body", {}))}
        return said

    @field_validator("kind", "place", "how")
    @classmethod
    def _text(cls, said: str | None) -> str | None:
        check_storable(said)
        return said

    @field_serializer("at")
    def _in_utc(self, at: datetime) -> str:
        return at.astimezone(UTC).isoformat()

    @classmethod
    def write(cls, kind: str, body: Body, at: datetime, *, id: UUID | None = None, **envelope: Any) -> Self:
        """Draft an entry of a kind from its body, at a time; a random id unless one is given."""
        return cls(
            id=id or uuid4(),
            at=at,
            kind=kind,
            version=kinds()[kind].version,
            body=body.model_dump(mode="json", exclude_defaults=True),
            **envelope,
        )

    def parsed(self) -> Body:
        """The body in its kind's current model.

        Raises
        ------
        EntryError
            If kind, version or a field of the body does not hold.
        """
        return parse_body(self.kind, self.version, self.body)

    def stored(self) -> str:
        """This draft as it is stored: JSON with sorted keys and nothing between them.

        Raises
        ------
        EntryError
            If something in it cannot be stored as it is.
        """
        try:
            check_storable(self.body)
        except Unstorable as error:
            raise EntryError(error.field, error.why) from error
        text = json.dumps(
            self.model_dump(mode="json"), sort_keys=True, ensure_ascii=False, separators=(",", ":"), allow_nan=False
        )
        if len(text) > MOST_BYTES:
            raise EntryError("body", f"at most {MOST_BYTES:,} characters in one entry; these are {len(text):,}")
        return text

    def check(self) -> str:
        """See that the entry may be kept, and give it as it will be stored: what is read back is what was checked.

        Raises
        ------
        EntryError
            If kind, version, place or a field of the body does not hold.
        """
        check_place(self.kind, self.place)
        text = self.stored()
        parse_body(self.kind, self.version, json.loads(text)["body"])
        return text


class Entry(Draft):
    """An entry as the logbook keeps it, with author, sequence and hash given at append."""

    inspection: UUID
    by: Word
    seq: int
    hash: str

    def same_content(self, draft: Draft) -> bool:
        """True when `draft` says the same as this entry."""
        return all(getattr(self, name) == getattr(draft, name) for name in Draft.model_fields)


HASH_VERSION = 2
HASH_VERSIONS = (1, 2)
FIRST_HASH = "0" * 64


def chained(version: int, previous: str, inspection: str, seq: int, by: str, stored: str) -> str:
    """SHA-256 [hex] that binds an entry to the one before it.

    Parameters
    ----------
    version : 1 hashes the entry as JSON with sorted keys, made of what is stored; 2 the stored characters themselves
    previous : hash of the entry before, 64 zeros for the first
    stored : the draft as it is stored

    Raises
    ------
    ValueError
        If the version is not known, or what is stored under version 1 is no JSON object.
    """
    if version == 1:
        content = json.loads(stored)
        if not isinstance(content, dict):
            raise ValueError("no JSON object")
        content |= {"inspection": inspection, "by": by, "seq": seq}
        text = json.dumps(content, sort_keys=True, ensure_ascii=False, separators=(",", ":"))
    elif version == HASH_VERSION:
        head = json.dumps([version, inspection, seq, by], ensure_ascii=False, separators=(",", ":"))
        text = f"{head}\n{stored}"
    else:
        raise ValueError(f"hash version {version} is not known")
    return hashlib.sha256(f"{previous}\n{text}".encode()).hexdigest()


@dataclass(frozen=True, slots=True)
class Unread:
    """An entry of the logbook that this version cannot read: where it stands, by whom, why, and what is stored."""

    seq: int
    by: str
    why: str
    stored: str

    @property
    def kind(self) -> str:
        """Its kind as far as that can be told."""
        return self._said("kind") or "not known"

    @property
    def at(self) -> datetime | None:
        """When it was written down, as far as that can be told."""
        try:
            return within_reason(datetime.fromisoformat(self._said("at")))
        except ValueError:
            return None

    @property
    def place(self) -> str | None:
        """Where it lies, as far as that can be told."""
        return self._said("place") or None

    def _said(self, name: str) -> str:
        try:
            said = json.loads(self.stored)
        except (ValueError, RecursionError):
            return ""
        value = said.get(name) if isinstance(said, dict) else None
        return value[:60] if isinstance(value, str) else ""
