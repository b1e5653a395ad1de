"""The cabin in words: entries, and what the report says of it."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.core.corners.found import Found
from hakutsu.entries.cabin import CabinLooked, CabinWear
from hakutsu.reckoning import Reckoning
from hakutsu.report.corner_wording import FoundLine
from hakutsu.report.wording import body_words
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]


@body_words.register
def _(body: CabinWear, terms: Terms = PLAIN) -> Said:
    name = cabin_parts()[body.part].name if body.part in cabin_parts() else body.part
    said = (f"{terms.say(name)}: {body.wear}", "renewed" if body.renewed else "", body.note)
    return "Cabin", ", ".join(one for one in said if one)


@body_words.register
def _(body: CabinLooked, terms: Terms = PLAIN) -> Said:
    smells = f"smells of {', '.join(map(str, body.smells))}" if body.smells else ""
    moist = f"moist {', '.join(map(str, body.moist))}" if body.moist else ""
    unmarked = f"{body.unmarked} unmarked controls" if body.unmarked else ""
    said = (smells, moist, *map(str, body.signs), unmarked, body.note)
    return "Cabin", ", ".join(one for one in said if one) or "looked, nothing found"


def cabin_line(one: Found, terms: Terms) -> FoundLine:
    """A finding with its part."""
    name = f"{terms.say(cabin_parts()[one.where].name)}: " if one.where else ""
    return FoundLine(f"{name}{terms.say(one.words)}", str(one.follows), terms.say("; ".join(one.reasons)))


@dataclass(frozen=True, slots=True)
class CabinSection:
    """Findings against what is usual; apart from that what goes beyond the buyer's taste; grades; looks."""

    found: tuple[FoundLine, ...]
    beyond: tuple[str, ...]
    grades: tuple[str, ...]
    looks: tuple[str, ...]
    taste: str

    @property
    def empty(self) -> bool:
        """True when nobody looked."""
        return not (self.grades or self.looks)


def cabin_section(reckoning: Reckoning) -> CabinSection:
    """Gather the section from a reckoning."""
    terms, cabin = reckoning.terms, reckoning.dossier.cabin
    return CabinSection(
        tuple(cabin_line(one, terms) for one in reckoning.cabin.found),
        tuple(terms.say(cabin_parts()[part].name) for part in reckoning.cabin.beyond_taste),
        tuple(body_words(seen.body, terms)[1] for seen in cabin.wear.values()),
        tuple(body_words(seen.body, terms)[1] for seen in cabin.looks),
        str(reckoning.dossier.opening.brief.taste),
    )
