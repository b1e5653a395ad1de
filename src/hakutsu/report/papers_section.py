"""Numbers, dates and distance in words: entries, and what the report says of them."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass

from markupsafe import Markup

from hakutsu.core.papers.dated import interval_words, mark_name
from hakutsu.core.papers.numbers import NAMES
from hakutsu.core.papers.telling import distance_words, spoken_day
from hakutsu.entries.papers import (
    Agrees,
    Answer,
    CodeRead,
    DatedMark,
    DistanceRecord,
    EngineNumber,
    Inside,
    LotNumber,
    NumberRead,
    RegisterAsked,
)
from hakutsu.figures.papers import MarkLine, dates_line, distance_line, number_grid
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.papers import DatedHere, PapersReckoned
from hakutsu.report.finding_wording import FoundLine, found_line
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.papers import RESTS_ON, registers
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]


def _joined(parts: Iterable[str]) -> str:
    return ", ".join(one for one in parts if one)


@body_words.register
def _(body: NumberRead, terms: Terms = PLAIN) -> Said:
    fixed = _joined(str(one) for one in body.fixed)
    picture = "read from a picture" if body.from_picture else ""
    return "Identity number", _joined((f"{NAMES[body.where]}: {body.text}", picture, fixed, body.note))


@body_words.register
def _(body: EngineNumber, terms: Terms = PLAIN) -> Said:
    ends = "" if body.ends is None else "end marks there" if body.ends else "end marks missing"
    return "Engine number", _joined((f"{body.made}: {body.text}", ends, body.note))


@body_words.register
def _(body: CodeRead, terms: Terms = PLAIN) -> Said:
    seen = "" if body.seen is Agrees.UNKNOWN else str(body.seen)
    inside = "" if body.inside is Inside.UNKNOWN else f"inside the shuts: {body.inside}"
    return f"{body.of} code".capitalize(), _joined((body.text, seen, inside, body.explained)) or "nothing told"


@body_words.register
def _(body: LotNumber, terms: Terms = PLAIN) -> Said:
    return "Lot number", body.text


@body_words.register
def _(body: DatedMark, terms: Terms = PLAIN) -> Said:
    return "Date", _joined((f"{mark_name(body.mark)}: {body.text}", body.table, body.note))


@body_words.register
def _(body: DistanceRecord, terms: Terms = PLAIN) -> Said:
    shown = body.value if "?" in body.value else f"{int(body.value):,}"
    digits = f"{body.dial_digits} digits" if body.dial_digits else ""
    when = body.on or "no date"
    return "Distance record", _joined((f"{when}: {shown} {body.unit}", str(body.source), digits, body.by))


@body_words.register
def _(body: RegisterAsked, terms: Terms = PLAIN) -> Said:
    name = registers()[body.register_key].name if body.register_key in registers() else body.register_key
    return "Register", _joined((f"{name}: {body.answer}", f"asked of {body.of}" if body.of else "", body.note))


def mark_lines(reckoning: Reckoning) -> list[MarkLine]:
    """Dated marks as they are drawn: with their place, the oldest first."""
    papers = reckoning.station(PapersReckoned)
    last = (reckoning.corners.on, reckoning.corners.on)
    known = sorted(papers.marks, key=lambda one: one.dated.intervals[0] if one.dated.intervals else last)
    return [MarkLine(_placed(reckoning, one), one.dated.intervals, one.dated.verdict) for one in known]


def _placed(reckoning: Reckoning, one: DatedHere) -> str:
    place = reckoning.terms.place(one.dated.mark.place)
    name = mark_name(one.key)
    return f"{place}: {name}" if place else name.capitalize()


@dataclass(frozen=True, slots=True)
class PapersSection:
    """Drawings, findings, what was not read, and registers asked or still to ask."""

    grid: Markup
    dates: Markup
    built: str
    distance: Markup
    told: str
    span: str
    doubt: bool
    lines: tuple[FoundLine, ...]
    unread: tuple[str, ...]
    asked: tuple[str, ...]
    to_ask: tuple[tuple[str, str], ...]

    @property
    def empty(self) -> bool:
        """True where nothing of it was read and nothing asked."""
        return not (self.grid or self.dates or self.distance or self.lines or self.asked)


def papers_section(reckoning: Reckoning) -> PapersSection:
    """Gather the section from a reckoning."""
    papers, terms = reckoning.station(PapersReckoned), reckoning.terms
    told = papers.told
    drawn = distance_line(told.history, told.distance, _in_words(terms)) if told.distance else ""
    said = distance_words(told.distance, told.history, spoken_day) if told.distance else ""
    span = ""
    if told.distance:
        ends = f"{{distance {told.distance.km.p10:.0f}}} to {{distance {told.distance.km.p90:.0f}}}"
        span = terms.say(f"In all it probably ran {ends}")
    read = {one.where for one in papers.readings}
    asked = papers.asked
    line = dates_line(mark_lines(reckoning), papers.built, reckoning.corners.on) if papers.noted_dates else ""
    found = reckoning.findings_of("papers")
    return PapersSection(
        Markup(number_grid(papers.grid)), Markup(line),
        interval_words(papers.built) if papers.built else "", Markup(drawn), said, span,
        any(one.code.startswith("papers.distance_") for one in found), tuple(found_line(one, terms) for one in found),
        tuple(NAMES[one] for one in RESTS_ON if one not in read),
        tuple(body_words(one, terms)[1] for one in asked.values() if one.answer is not Answer.NO_ANSWER),
        tuple((row.name, row.where) for key, row in registers().items()
              if key not in asked or asked[key].answer is Answer.NO_ANSWER),
    )  # fmt: skip


def _in_words(terms: Terms) -> Callable[[float], str]:
    return lambda km: terms.say(f"{{distance {km:.0f}}}")


@report_section("papers", 108, "_papers.html")
def _papers(making: Making) -> PapersSection:
    """Identity, dates and distance."""
    return papers_section(making.reckoning)
