"""What comes next in an inspection: one thing, with why and where; for the overview and the end of every page."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime

from hakutsu.dossier import Covered
from hakutsu.dossier.papers import PapersDossier
from hakutsu.entries.general import AskSeller, ForDesk, Station
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.places import places
from hakutsu.web.round.leads import lead
from hakutsu.web.station import Phase

DESK = "desk"


@dataclass(frozen=True, slots=True)
class Next:
    """One thing to do: what, why it comes now, and its page below the inspection's address."""

    words: str
    because: str
    room: str


def phase_of(reckoning: Reckoning) -> Phase:
    """The phase an inspection is in, by what is done: nothing seen yet, at the vehicle, at the desk, or finished."""
    dossier = reckoning.dossier
    if dossier.opening.stage.done:
        return Phase.REPORT
    places = [one for one in dossier.place_coverage() if one.place != DESK]
    if dossier.day.arrival is None and all(one.open == one.expected for one in places):
        return Phase.PREPARE
    return Phase.AT_THE_VEHICLE if any(one.open for one in places) else Phase.DESK


def next_step(reckoning: Reckoning, now: datetime, after: str = "") -> Next:
    """What comes next; of those that lead to the page one is on (`after`), the one behind it."""
    every = _wanted(reckoning, now)
    return next((one for one in every if one.room != after), Next("Read the report", "nothing is left to do", "report"))


def _wanted(reckoning: Reckoning, now: datetime) -> Iterator[Next]:
    """All that wants doing, the most pressing first. What a stand-down forbids stands on every page by itself."""
    if reckoning.dossier.opening.stage.done:
        yield Next("Read the report", "the inspection is finished", "report")
        return
    yield from _to_begin(reckoning)
    yield from _again(reckoning, now)
    if step := reckoning.run_sheet.first(now):
        say = reckoning.terms.say
        yield Next(say(step.name), say(f"{{place {step.place}}}, by the run sheet"), lead(step.key))
    yield from _places(reckoning)
    yield from _papers(reckoning)
    yield from _at_the_desk(reckoning)
    yield Next("Finish the inspection", "what was not checked is asked about", "gaps?finishing=yes")


def _to_begin(reckoning: Reckoning) -> Iterator[Next]:
    dossier = reckoning.dossier
    if dossier.facts.entry is None and not dossier.facts.mentions:
        yield Next("Key facts", "what is asked for follows from year, power and body", "facts")
    if dossier.day.arrival is None:
        yield Next("Save the arrival", "cold or warm, light, dirt: it decides what can be judged", "arrival")


def _again(reckoning: Reckoning, now: datetime) -> Iterator[Next]:
    """Readings, looks and tries that want repeating."""
    terms = reckoning.terms
    if surprises := reckoning.film.analysis.open_surprises:
        panel = terms.panel(surprises[0].observation.panel)
        yield Next(f"Measure again: {panel}", "a reading stands out and is not repeated", "film")
    if due := sum(one.due for one in reckoning.second_looks(now)):
        yield Next("Look again", f"{due} second look{'s' if due > 1 else ''} due", "round")
    if retests := reckoning.functions.retests:
        yield Next(f"Try again: {terms.say(retests[0][0].name)}", "it answered in two ways", "functions")


def _places(reckoning: Reckoning) -> Iterator[Next]:
    for one in reckoning.dossier.place_coverage():
        if one.open and one.place != DESK:
            words = reckoning.terms.say(places()[one.place].name)
            looked = "not looked at yet" if one.looked is Covered.OPEN else f"{one.open} of {one.expected} open"
            yield Next(f"Go to: {words}", looked, f"place/{one.place}")


def _papers(reckoning: Reckoning) -> Iterator[Next]:
    papers = reckoning.dossier[PapersDossier]
    if not papers.numbers and not reckoning.dossier.general.limited(Station.PAPERS):
        yield Next("Read the identity number", "plate, stamp and papers say which vehicle it is", "papers/identity")
    if not papers.records:
        yield Next("Records of the distance", "two dated ones and it can be judged", "papers/distance")


def _at_the_desk(reckoning: Reckoning) -> Iterator[Next]:
    general = reckoning.dossier.general
    if asked := len(general.open(AskSeller)):
        yield Next("Ask the seller", f"{asked} to ask", "round")
    if waits := len(general.open(ForDesk)):
        yield Next("Desk questions", f"{waits} open", "desk")
    if unpriced := reckoning.lives.sheet.unpriced:
        yield Next("Price what is to settle", f"{unpriced} without a price", "life/sheet")
