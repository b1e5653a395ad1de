"""What report and pages say of everything seen outside: marks with remedies and cost, fit, glass, rust, trim."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from babel.numbers import format_currency

from hakutsu.core.body.costing import NOTHING, Cost
from hakutsu.core.body.cues import cue_of_mark
from hakutsu.core.body.remedy import Remedy, remedy_name
from hakutsu.core.body.trim import trim_words
from hakutsu.core.costs import cost_table
from hakutsu.core.film import chance_words, cue_kinds, evidence_words
from hakutsu.core.taste import taste_table
from hakutsu.dossier.body import Seen
from hakutsu.entries.body import Addition, Blemish, Glass, ShowsFrom
from hakutsu.figures.blemishes import Mark
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.outside import Contact
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words


@dataclass(frozen=True, slots=True)
class MarkRow:
    """One blemish: its number, words, what to do about it and why, and the contact that explains it."""

    number: int
    entry: UUID
    words: str
    remedy: str
    because: tuple[str, ...]
    shows_from: ShowsFrom
    contact: int | None
    pictures: int = 0


@dataclass(frozen=True, slots=True)
class PartRows:
    """The blemishes of one panel or part, and what they cost together."""

    place: str
    name: str
    rows: tuple[MarkRow, ...]
    cost: str


def money(reckoning: Reckoning, amount: float) -> str:
    """A whole amount in the currency of the inspection."""
    currency = reckoning.dossier.opening.brief.currency
    return str(format_currency(round(amount), currency, format="¤#,##0", currency_digits=False, locale="en"))


def cost_words(reckoning: Reckoning, cost: Cost) -> str:
    """Expected cost with both ends."""
    if cost == NOTHING:
        return "nothing"
    low, high = round(cost.low), round(cost.high)
    ends = "" if low == high else f" ({low:,} to {high:,})"
    return f"{money(reckoning, cost.expected)}{ends}"


def contact_cost(reckoning: Reckoning, contact: Contact) -> str:
    """What the marks of one contact cost as one job, with its blends."""
    return cost_words(reckoning, reckoning.outside.cost_of(contact.marks).total)


def remedy_words(found: Remedy) -> str:
    """What to try, how likely it does, and what else."""
    if found.otherwise is None:
        return remedy_name(found.first)
    return f"{remedy_name(found.first)} ({100 * found.chance:.0f} %), else {remedy_name(found.otherwise)}"


def numbered(reckoning: Reckoning) -> dict[UUID, int]:
    """Every blemish's number, in the order of the logbook."""
    return {key: i for i, key in enumerate(reckoning.dossier.body.blemishes, 1)}


def _contact_of(reckoning: Reckoning) -> dict[UUID, int]:
    joined = [one for one in reckoning.outside.contacts if one.event is not None]
    return {mark.entry.id: i for i, one in enumerate(joined, 1) for mark in one.marks}


def part_rows(reckoning: Reckoning, shown: Collection[UUID] | None = None) -> list[PartRows]:
    """Blemishes by panel or part in the order they were first met: those shown, or all."""
    numbers, contacts = numbered(reckoning), _contact_of(reckoning)
    by_part = {one.part: one.cost for one in reckoning.outside.costs.parts}
    found: dict[str, list[MarkRow]] = {}
    for key, mark in reckoning.dossier.body.blemishes.items():
        if shown is None or key in shown:
            found.setdefault(mark.place, []).append(_row(reckoning, mark, numbers[key], contacts.get(key)))
    return [
        PartRows(place, reckoning.terms.place(place), tuple(rows), cost_words(reckoning, by_part[place]))
        for place, rows in found.items()
    ]


def _row(reckoning: Reckoning, mark: Seen[Blemish], number: int, contact: int | None) -> MarkRow:
    found = reckoning.outside.remedy(mark)
    hail = reckoning.outside.hail(mark)
    because = found.because + ((f"{hail.words} hail, {hail.per_dm2:.1f} dents a dm²",) if hail else ())
    because += tuple(_moved(reckoning, panel, cue) for panel, cue in cue_of_mark(reckoning.dossier.body, mark.entry.id))
    return MarkRow(
        number,
        mark.entry.id,
        body_words(mark.body, reckoning.terms)[1],
        remedy_words(found),
        because,
        mark.body.shows_from,
        contact,
        len(reckoning.dossier.pictures.of(mark.entry.id)),
    )


def _moved(reckoning: Reckoning, panel: str, cue: str) -> str:
    """How far a mark that is a cue of the film moved the chance that its panel was painted again."""
    moved = reckoning.film.measured_cue(panel, cue)
    if moved is None:
        return f"{cue_kinds()[cue].name}: a cue, once the film of {reckoning.terms.panel(panel).lower()} is read"
    before, after, bits = moved
    name = reckoning.terms.panel(panel)
    both = f"{chance_words(before)} by the paint alone, {chance_words(after)} with the fit too"
    return f"{name}, chance of a repaint: {both} ({evidence_words(bits)})"


def sheet_marks(reckoning: Reckoning, shown: Collection[UUID] | None = None) -> list[Mark]:
    """Blemishes for the shell sheet: those shown, or all."""
    contacts = _contact_of(reckoning)
    return [
        Mark(number, mark.place, str(mark.body.kind), mark.body.path, body_words(mark.body, reckoning.terms)[1],
             mark.entry.id in contacts)
        for (mark, number) in zip(reckoning.dossier.body.blemishes.values(), numbered(reckoning).values(), strict=True)
        if shown is None or mark.entry.id in shown
    ]  # fmt: skip


def showing(reckoning: Reckoning, reach: Collection[ShowsFrom]) -> set[UUID]:
    """Marks that show from within reach."""
    return {key for key, mark in reckoning.dossier.body.blemishes.items() if mark.body.shows_from in reach}


def of_interest(reckoning: Reckoning) -> set[UUID]:
    """Marks this buyer reads of: they show from far enough, or something is asked for because of them."""
    reach = taste_table().reads[reckoning.dossier.opening.brief.taste]
    return showing(reckoning, reach) | {mark.entry.id for mark in reckoning.outside.asked_for}


@dataclass(frozen=True, slots=True)
class BlendRow:
    """A blend into a neighbour."""

    name: str
    cost: str


@dataclass(frozen=True, slots=True)
class OutsideSection:
    """Everything the report says of the outside, as far as the buyer's taste wants it."""

    parts: list[PartRows]
    hidden: int
    blends: list[BlendRow]
    total: str
    contacts: list[str]
    fit: list[tuple[str, str]]
    glass: list[tuple[str, str]]
    rust: list[tuple[str, str]]
    trim: list[tuple[str, str]]
    additions: list[tuple[str, str]]
    none: list[str]

    @property
    def empty(self) -> bool:
        """True when nothing was written down of the outside."""
        return not (
            self.parts or self.hidden or self.fit or self.glass or self.rust or self.trim or self.additions or self.none
        )


def holes_words(reckoning: Reckoning, piece: Addition) -> str:
    """What closing the holes of a fitting costs once it is taken off."""
    if not piece.holes:
        return ""
    settings = reckoning.settings
    low, high = (
        piece.holes * float(one) for one in cost_table(settings.costs)["close_hole"].cost(settings.labour_rate)
    )
    return f"taken off, closing its holes costs {cost_words(reckoning, Cost(low, (low + high) / 2, high))}"


def outside_section(reckoning: Reckoning) -> OutsideSection:
    """Gather the section from a reckoning."""
    terms, body, outside = reckoning.terms, reckoning.dossier.body, reckoning.outside
    shown = of_interest(reckoning)
    numbers = numbered(reckoning)

    def lines(seen: Iterable[Seen[Any]]) -> list[tuple[str, str]]:
        return [(terms.place(one.place), body_words(one.body, terms)[1]) for one in seen]

    glass, sound = [], []
    for one, (place, text) in zip(body.glass, lines(body.glass), strict=True):
        if one.body == Glass():
            sound.append(place)
            continue
        more = [*outside.glass_words(one)]
        if one.place in outside.odd_marks and one.body.date_mark:
            more.append(f"the other panes are marked {outside.odd_marks[one.place]}: this one was replaced")
        glass.append((place, "; ".join([text, *more])))
    if sound:
        glass.append(("Nothing wrong", "; ".join(sound)))
    return OutsideSection(
        part_rows(reckoning, shown),
        len(body.blemishes) - len(shown),
        [BlendRow(terms.place(key), cost_words(reckoning, cost)) for key, cost in outside.costs.blends.items()],
        cost_words(reckoning, outside.costs.total),
        [
            f"{one.event.body.what or 'one contact'}: numbers "
            f"{', '.join(str(numbers[mark.entry.id]) for mark in one.marks)}; "
            f"as one job {contact_cost(reckoning, one)}, part of the sum above"
            for one in outside.contacts
            if one.event is not None
        ],
        [(terms.place(key), terms.say("; ".join(found.words))) for key, found in outside.fits.items() if found.words],
        glass,
        lines(body.rust),
        [
            (place, f"{text}: {words}" if (words := terms.say(trim_words(one.body))) else text)
            for one, (place, text) in zip(body.trim, lines(body.trim), strict=True)
        ],
        [
            (place, "; ".join(part for part in (text, holes_words(reckoning, one.body)) if part))
            for one, (place, text) in zip(body.additions, lines(body.additions), strict=True)
        ],
        [f"{one.body.text}: {terms.place(one.place)}" for one in body.none],
    )


@report_section("outside", 40, "_outside.html")
def _outside(making: Making) -> OutsideSection:
    """Everything seen outside."""
    return outside_section(making.reckoning)
