"""The cabin in words: entries, and what the report says of it."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.core.findings import Finding
from hakutsu.entries.cabin import CabinLooked, CabinWear, Control, Inventory, There
from hakutsu.reckoning import Reckoning
from hakutsu.report.finding_wording import FoundLine, found_line
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.inventory import belongings
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
    none = "no smell" if body.no_smell else ""
    dry = f"dry {', '.join(map(str, body.dry))}" if body.dry else ""
    said = (smells, none, moist, dry, *(terms.say(str(one)) for one in body.signs), body.note)
    return "Cabin", ", ".join(one for one in said if one) or "looked at"


@body_words.register
def _(body: Inventory, terms: Terms = PLAIN) -> Said:
    name = belongings()[body.thing].name if body.thing in belongings() else body.thing
    return "Inventory", f"{terms.say(name)}: {body.there}"


@body_words.register
def _(body: Control, terms: Terms = PLAIN) -> Said:
    said = (body.looks, body.where, f"did {body.does}" if body.does else "nobody knows what it does",
            f"picture {body.picture}" if body.picture else "")  # fmt: skip
    return "Control without a mark", ", ".join(one for one in said if one)


def cabin_line(one: Finding, terms: Terms) -> FoundLine:
    """A finding, with its part where it is of one."""
    return found_line(one, terms, named=one.subject in cabin_parts())


@dataclass(frozen=True, slots=True)
class CabinSection:
    """Findings against what is usual; apart from that what goes beyond the buyer's taste; grades; looks; what is there
    and what is missing; controls without a mark.
    """

    found: tuple[FoundLine, ...]
    beyond: tuple[str, ...]
    grades: tuple[str, ...]
    looks: tuple[str, ...]
    taste: str
    present: tuple[str, ...] = ()
    missing: tuple[str, ...] = ()
    controls: tuple[str, ...] = ()

    @property
    def empty(self) -> bool:
        """True when nobody looked."""
        return not (self.grades or self.looks or self.present or self.missing or self.controls)


def cabin_section(reckoning: Reckoning) -> CabinSection:
    """Gather the section from a reckoning."""
    terms, cabin = reckoning.terms, reckoning.dossier.cabin
    return CabinSection(
        tuple(cabin_line(one, terms) for one in reckoning.cabin.found),
        tuple(terms.say(cabin_parts()[part].name) for part in reckoning.cabin.beyond_taste),
        tuple(body_words(seen.body, terms)[1] for seen in cabin.wear.values()),
        tuple(body_words(seen.body, terms)[1] for seen in cabin.looks),
        str(reckoning.dossier.opening.brief.taste),
        _things(reckoning, There.PRESENT),
        _things(reckoning, There.MISSING),
        tuple(body_words(seen.body, terms)[1] for seen in cabin.controls),
    )


def _things(reckoning: Reckoning, there: There) -> tuple[str, ...]:
    seen = reckoning.dossier.cabin.inventory
    return tuple(
        reckoning.terms.say(one.name)
        for key, one in belongings().items()
        if key in seen and seen[key].body.there is there
    )


@report_section("cabin", 80, "_cabin.html")
def _cabin(making: Making) -> CabinSection:
    """The cabin."""
    return cabin_section(making.reckoning)
