"""Search over vehicles, buyers and what was written down."""

from __future__ import annotations

import unicodedata
from dataclasses import dataclass
from uuid import UUID

from pydantic import BaseModel, ConfigDict

from hakutsu.dossier import Dossier
from hakutsu.entries import Entry
from hakutsu.entries.claims import Claim
from hakutsu.entries.film import Reading
from hakutsu.entries.general import Strike
from hakutsu.entries.opening import Brief, Vehicle
from hakutsu.report.wording import body_words
from hakutsu.vehicle.places import places
from hakutsu.vehicle.terms import PLAIN, Terms

LONGEST_SEARCH = 200
_NO_FINDING = (Reading, Strike, Brief, Vehicle)  # numbers, corrections, and what the inspection itself is found by


class Line(BaseModel):
    """An entry in words: what kind, what was said, where, and the room of its inspection it stands in."""

    model_config = ConfigDict(frozen=True)
    kind: str
    words: str
    place: str
    room: str

    @property
    def text(self) -> str:
        """What is searched."""
        return fold(f"{self.kind} {self.words} {self.place}")


class Words(BaseModel):
    """What an inspection is found by, and what is shown of it when it is."""

    model_config = ConfigDict(frozen=True)
    inspection: UUID
    name: str
    registration: str
    colour: str
    buyer: str
    lines: tuple[Line, ...]

    @property
    def names(self) -> str:
        """What the inspection itself is found by."""
        return fold(" ".join(one for one in (self.name, self.registration, self.colour, self.buyer) if one))

    @property
    def text(self) -> str:
        """All that is searched."""
        return "\n".join((self.names, *(line.text for line in self.lines)))


@dataclass(frozen=True, slots=True)
class Found:
    """An inspection that was found: by its vehicle or buyer, by entries, or by both."""

    words: Words
    itself: bool
    hits: tuple[Line, ...]


def fold(words: str) -> str:
    """Words without case and accents, for comparing."""
    parts = unicodedata.normalize("NFKD", words)
    return "".join(one for one in parts if not unicodedata.combining(one)).casefold()


def parts_of(asked: str) -> list[str]:
    """The words of what is asked for, as they are compared."""
    return fold(asked[:LONGEST_SEARCH]).split()


def words_of(dossier: Dossier, terms: Terms = PLAIN) -> Words:
    """The words of an inspection; numbers, corrections and struck entries are not searched."""
    vehicle, brief = dossier.vehicle, dossier.opening.brief
    lines = (line for entry in dossier.entries if (line := _line(dossier, entry, terms)) is not None)
    return Words(
        inspection=dossier.inspection, name=vehicle.name, registration=vehicle.registration, colour=vehicle.colour,
        buyer=brief.buyer, lines=tuple(lines),
    )  # fmt: skip


def search(words: Words, asked: str) -> Found | None:
    """What of an inspection holds every word asked for, in any order.

    A word of the vehicle or buyer may stand beside one of an entry: "estate sill" finds the sill of the estate.
    """
    parts, named = parts_of(asked), words.names
    if not parts:
        return None
    left = [part for part in parts if part not in named]
    if not left:
        return Found(words, True, ())
    hits = tuple(line for line in words.lines if all(part in line.text for part in left))
    return Found(words, False, hits) if hits else None


def _line(dossier: Dossier, entry: Entry, terms: Terms) -> Line | None:
    body = entry.parsed()
    if entry.id in dossier.struck or isinstance(body, _NO_FINDING):
        return None
    kind, said = body_words(body, terms)
    return Line(kind=kind, words=said, place=terms.place(entry.place), room=_room(entry, body))


def _room(entry: Entry, body: object) -> str:
    if isinstance(body, Claim):
        return "claims"
    if entry.place is None:
        return f"logbook#e{entry.seq}"
    return f"place/{entry.place}" if entry.place in places() else f"film?panel={entry.place}"
