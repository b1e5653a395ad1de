"""Search over vehicles, buyers and what was written down."""

from __future__ import annotations

import json
import re
import unicodedata
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass
from uuid import UUID

from pydantic import BaseModel, ConfigDict

from hakutsu.core.findings import named_place
from hakutsu.dossier import Dossier
from hakutsu.entries import Entry
from hakutsu.entries.film import Reading
from hakutsu.entries.general import Strike
from hakutsu.entries.opening import Brief, Vehicle
from hakutsu.entries.registry import Body
from hakutsu.reckoning import Reckoning
from hakutsu.report.wording import body_words
from hakutsu.vehicle.terms import Terms

LONGEST_SEARCH = 200
_KEY = re.compile(r"[a-z]+(_[a-z0-9]+)+|[0-9a-f-]{36}|[0-9TZ:+.-]+")
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


def words_of(reckoning: Reckoning, where: Callable[[Entry, Body], str]) -> Words:
    """The words of an inspection: its findings, and every entry; numbers, corrections and struck ones are not searched.

    Parameters
    ----------
    reckoning : of the inspection
    where : the page that shows an entry, below the inspection's address
    """
    dossier, terms = reckoning.dossier, reckoning.terms
    vehicle, brief = dossier.vehicle, dossier.opening.brief
    said = [line for entry in dossier.entries if (line := _line(dossier, entry, terms, where)) is not None]
    told = {(line.words, line.room) for line in said}
    lines = [*(line for line in _findings(reckoning, where) if (line.words, line.room) not in told), *said]
    return Words(
        inspection=dossier.inspection, name=vehicle.name, registration=vehicle.registration, colour=vehicle.colour,
        buyer=brief.buyer, lines=tuple(lines),
    )  # fmt: skip


def in_logbook(seq: int) -> str:
    """Where an entry is found in the logbook, below the inspection's address."""
    return f"logbook?at={seq}#e{seq}"


def glanced_words(inspection: UUID, drafts: Iterable[str]) -> Words:
    """What an inspection is found by before its words are made: whatever was typed, as it is stored."""
    lines, name, buyer = [], "", ""
    for number, stored in enumerate(drafts, 1):
        try:
            said = json.loads(stored)
        except (ValueError, RecursionError):
            continue
        body = said.get("body") if isinstance(said, dict) else None
        typed = "; ".join(_typed(body))
        if said.get("kind") == "inspection.vehicle":
            vehicle = body.get("vehicle") if isinstance(body, dict) else None
            name = str(vehicle.get("name") or typed) if isinstance(vehicle, dict) else typed
            lines.append(Line(kind="Vehicle", words=typed, place="", room=in_logbook(number)))
        elif said.get("kind") == "inspection.brief":
            buyer = str((body or {}).get("buyer", ""))
        elif typed:
            place = str(said.get("place") or "").replace("_", " ")
            lines.append(Line(kind="Noted", words=typed, place=place, room=in_logbook(number)))
    return Words(inspection=inspection, name=name, registration="", colour="", buyer=buyer, lines=tuple(lines))


def _typed(value: object) -> Iterator[str]:
    """Texts in a body that are words and no keys or ids."""
    if isinstance(value, str) and not _KEY.fullmatch(value):
        yield value
    elif isinstance(value, dict):
        for one in value.values():
            yield from _typed(one)
    elif isinstance(value, list):
        for one in value:
            yield from _typed(one)


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


def _findings(reckoning: Reckoning, where: Callable[[Entry, Body], str]) -> Iterator[Line]:
    """Findings in the words of the report; each leads to the page that shows the entry it rests on first."""
    for one in reckoning.findings:
        entry = reckoning.entries.get(one.evidence[0]) if one.evidence else None
        if entry is not None:
            words, place = reckoning.terms.say(one.words), reckoning.terms.place(named_place(one.subject) or None)
            yield Line(kind=str(one.consequence), words=words, place=place, room=where(entry, entry.parsed()))


def _line(dossier: Dossier, entry: Entry, terms: Terms, where: Callable[[Entry, Body], str]) -> Line | None:
    body = entry.parsed()
    if entry.id in dossier.struck or isinstance(body, _NO_FINDING):
        return None
    kind, said = body_words(body, terms)
    return Line(kind=kind, words=said, place=terms.place(entry.place), room=where(entry, body))
