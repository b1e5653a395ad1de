"""Functions in words: entries, and what the report says of them."""

from __future__ import annotations

from dataclasses import dataclass

from hakutsu.core.functions import Status
from hakutsu.entries.functions import FittedSaid, Lamp, Result, Tried
from hakutsu.reckoning import Reckoning
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.equipment import equipment
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]


def item_name(key: str) -> str:
    """A thing to try by its key."""
    return equipment()[key].name if key in equipment() else key.replace("_", " ")


@body_words.register
def _(body: Tried, terms: Terms = PLAIN) -> Said:
    share = f"{body.working} of {body.of}" if body.working is not None and body.of is not None else ""
    result = str(body.result).removesuffix(", but") + (", but" if body.but and body.result is Result.BUT else "")
    words = " ".join(part for part in (f"{result}:" if body.but else result, body.but) if part)
    return "Tried", terms.say(f"{item_name(body.item)}: {words}") + (f" ({share})" if share else "")


@body_words.register
def _(body: FittedSaid, terms: Terms = PLAIN) -> Said:
    return "Fitted" if body.there else "Not fitted", terms.say(item_name(body.item))


@body_words.register
def _(body: Lamp, terms: Terms = PLAIN) -> Said:
    return "Dashboard lamp", ", ".join(
        part for part in (body.name, "red" if body.red else "", str(body.kind), body.note) if part
    )


@dataclass(frozen=True, slots=True)
class FunctionsSection:
    """What does not simply work, what does, what nobody tried; lamps; a claim they contradict."""

    lines: tuple[tuple[str, str], ...]
    works: tuple[str, ...]
    untested: tuple[str, ...]
    lamps: tuple[str, ...]
    against: tuple[str, ...]

    @property
    def empty(self) -> bool:
        """True when nothing was tried and no lamp noted."""
        return not (self.lines or self.works or self.lamps)


def functions_section(reckoning: Reckoning) -> FunctionsSection:
    """Gather the section from a reckoning."""
    terms, found = reckoning.terms, reckoning.functions
    lines, works, untested = list[tuple[str, str]](), list[str](), list[str]()
    for one, status in found.statuses:
        name = terms.say(one.name)
        if status.status is Status.WORKS:
            works.append(name)
        elif status.status is Status.UNTESTED:
            untested.append(name)
        else:
            lines.append((name, status.said))
    lamps = tuple(body_words(seen.body, terms)[1] for seen in reckoning.dossier.functions.lamps)
    return FunctionsSection(tuple(lines), tuple(works), tuple(untested), lamps, tuple(found.lamps_against_claim))


@report_section("functions", 90, "_functions.html")
def _functions(making: Making) -> FunctionsSection:
    """Functions and lamps."""
    return functions_section(making.reckoning)
