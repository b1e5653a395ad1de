"""Search over vehicles, buyers and what was written down."""

from __future__ import annotations

import unicodedata
from dataclasses import dataclass

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


@dataclass(frozen=True, slots=True)
class Hit:
    """An entry that was found: what kind, in words, where, and the room of its inspection it stands in."""

    kind: str
    words: str
    place: str
    room: str


@dataclass(frozen=True, slots=True)
class Found:
    """An inspection that was found: by its vehicle or buyer, by entries, or by both."""

    dossier: Dossier
    itself: bool
    hits: tuple[Hit, ...]


def fold(words: str) -> str:
    """Words without case and accents, for comparing."""
    parts = unicodedata.normalize("NFKD", words)
    return "".join(one for one in parts if not unicodedata.combining(one)).casefold()


def search(dossier: Dossier, asked: str, terms: Terms = PLAIN) -> Found | None:
    """What of an inspection holds every word asked for, in any order; struck entries are not searched.

    A word of the vehicle or buyer may stand beside one of an entry: "estate sill" finds the sill of the estate.
    """
    words = fold(asked[:LONGEST_SEARCH]).split()
    if not words:
        return None
    named = fold(_names(dossier))
    left = [word for word in words if word not in named]
    if not left:
        return Found(dossier, True, ())
    hits = tuple(hit for entry in dossier.entries if (hit := _hit(dossier, entry, left, terms)) is not None)
    return Found(dossier, False, hits) if hits else None


def _names(dossier: Dossier) -> str:
    vehicle, brief = dossier.vehicle, dossier.opening.brief
    return " ".join(part for part in (vehicle.name, vehicle.registration, vehicle.colour, brief.buyer) if part)


def _hit(dossier: Dossier, entry: Entry, words: list[str], terms: Terms) -> Hit | None:
    body = entry.parsed()
    if entry.id in dossier.struck or isinstance(body, _NO_FINDING):
        return None
    kind, said = body_words(body, terms)
    place = terms.place(entry.place)
    text = fold(f"{kind} {said} {place}")
    if not all(word in text for word in words):
        return None
    return Hit(kind, said, place, _room(entry, body))


def _room(entry: Entry, body: object) -> str:
    if isinstance(body, Claim):
        return "claims"
    if entry.place is None:
        return f"logbook#e{entry.seq}"
    return f"place/{entry.place}" if entry.place in places() else f"film?panel={entry.place}"
