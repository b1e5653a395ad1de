"""A finding in the reader's terms: words, what it asks for, reasons, and what would settle it."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.core.findings import Finding, named_place
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.vocabulary import Consequence

EXCUSED = {"own_doing": "we caused it: counts for nothing", "suspended": "we caused it: until it is looked at again"}


@dataclass(frozen=True, slots=True)
class FoundLine:
    """A finding in the reader's terms: words, what it asks for, reasons; `grave`: settled before paying, or worse."""

    words: str
    follows: str
    reasons: str
    grave: bool = False


def named_words(one: Finding, terms: Terms) -> str:
    """A finding with where it lies, unless its words say so."""
    words, place = terms.say(one.words), terms.place(named_place(one.subject) or None)
    return words if not place or place.casefold() in words.casefold() else f"{place}: {words}"


def found_line(one: Finding, terms: Terms, *, named: bool = False) -> FoundLine:
    """A finding in the reader's terms; `named` with where it lies."""
    reasons = [terms.say(reason) for reason in one.reasons]
    if one.open is not None and one.open.check not in one.reasons and one.open.check not in one.words:
        reasons.append(f"to be sure: {terms.say(one.open.check)}")
    if one.excused:
        reasons.append(EXCUSED[one.excused])
    fine = one.consequence is Consequence.FINE
    words = named_words(one, terms) if named else terms.say(one.words)
    return FoundLine(words, "no fault" if fine else str(one.consequence), "; ".join(reasons), one.settles)
