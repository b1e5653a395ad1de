"""The envelope every entry travels in: as drafted by a client, and as kept by the logbook."""

from __future__ import annotations

import hashlib
import json
from datetime import UTC, datetime
from typing import Annotated, Any, Self
from uuid import UUID, uuid4

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, StringConstraints, field_serializer

from hakutsu.entries.registry import Body, check_place, kinds, parse_body

Word = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)]
Remark = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]


class Draft(BaseModel):
    """An entry as a client writes it; its `id` is made by the client, so that sending twice is harmless.

    `strikes` is the id of the entry this one takes back or replaces. `how` says how it was looked at (distance,
    light, by hand). `own_doing` marks what the inspector caused; `for_desk` puts it in the desk queue.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    id: UUID
    at: AwareDatetime
    kind: Word
    version: Annotated[int, Field(ge=1)] = 1
    place: Word | None = None
    body: dict[str, Any] = {}
    strikes: UUID | None = None
    how: Remark = ""
    own_doing: bool = False
    for_desk: bool = False
    pictures: tuple[UUID, ...] = ()

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

    def check(self) -> None:
        """See that the entry may be kept.

        Raises
        ------
        EntryError
            If kind, version, place or a field of the body does not hold.
        """
        check_place(self.kind, self.place)
        self.parsed()


class Entry(Draft):
    """An entry as the logbook keeps it, with author, sequence and hash given at append."""

    inspection: UUID
    by: Word
    seq: int
    hash: str

    def canonical(self, previous: str) -> str:
        """SHA-256 [hex] over the hash before and this entry's content as JSON with sorted keys."""
        content = self.model_dump(mode="json", exclude={"hash"})
        text = json.dumps(content, sort_keys=True, ensure_ascii=False, separators=(",", ":"))
        return hashlib.sha256(f"{previous}\n{text}".encode()).hexdigest()

    def same_content(self, draft: Draft) -> bool:
        """True when `draft` says the same as this entry."""
        return all(getattr(self, name) == getattr(draft, name) for name in Draft.model_fields)
