"""Lives, spending and the negotiation sheet in words: for pages and report alike."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from decimal import Decimal
from functools import lru_cache

from babel.numbers import format_currency
from markupsafe import Markup

from hakutsu.core.estimate import Estimate
from hakutsu.core.life.jobs import Basis, Job
from hakutsu.core.life.money import Spending
from hakutsu.core.negotiation import Sheet, SheetLine, shared_out, step_of
from hakutsu.dossier import CornersDossier, Facts, MoneyDossier
from hakutsu.entries.money import TREATS
from hakutsu.figures.life_calendar import CalendarRow, life_calendar
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.life import Lives
from hakutsu.report.corner_wording import rough
from hakutsu.report.sections import Making, report_section
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.vocabulary import Consequence

DAYS_A_MONTH = 365.25 / 12
LIKELY_FROM = 0.1
WITHIN = 36.0
FAR_MONTHS = 120.0
DRAWN = 26
TOLD = {Basis.MEASURED: "measured", Basis.FOUND: "measured", Basis.SCHEDULED: "measured"}


def exact_money(amount: Decimal | float, currency: str) -> str:
    """An amount to its smallest coin, as it stands on a bill."""
    return format_currency(amount, currency, locale="en")


def rough_money(amount: float, currency: str) -> str:
    """An amount without coins: for what is estimated."""
    return _without_coins(round(amount), currency)


@lru_cache(maxsize=4096)
def _without_coins(amount: int, currency: str) -> str:
    return format_currency(amount, currency, "¤#,##0", locale="en", currency_digits=False)


@dataclass(frozen=True, slots=True)
class LifeRow:
    """A job: name, when (words and interval), distance, what it rests on, cost, chance in three years, reasons."""

    key: str
    name: str
    when: str
    span: str
    km: str
    basis: str
    cost: str
    chance: str
    reasons: tuple[str, ...]
    settle: bool


def month_words(months: float, begin: date) -> str:
    """A month ahead as a date: "Mar 2027", now, or beyond ten years."""
    if months <= 0.5:
        return "now"
    if months >= FAR_MONTHS:
        return f"after {begin.year + int(FAR_MONTHS / 12)}"
    return f"{begin + timedelta(days=months * DAYS_A_MONTH):%b %Y}"


def _span(due: Estimate, begin: date) -> str:
    low, high = month_words(due.low, begin), month_words(due.high, begin)
    return low if low == high else f"{low} to {high}"


def _km(job: Job, lives: Lives, terms: Terms) -> str:
    km, scale = job.km(lives.km_per_year), terms.scale("distance")
    if job.key.startswith(("tyres", "brakes")) and km.high > 0:
        low, median, high = (
            scale.number(scale.stored(rough(scale.shown(one)))) for one in (km.low, km.median, km.high)
        )
        return f"{median} {scale.label}" if low == high else f"{median} {scale.label} ({low} to {high})"
    return ""


def life_rows(reckoning: Reckoning, lives: Lives) -> list[LifeRow]:
    """Every job, what is to settle first, then by its middle date."""
    terms, currency = reckoning.terms, reckoning.dossier.opening.brief.currency
    rows = []
    for job in lives.jobs:
        due = job.months()
        rows.append(
            LifeRow(
                job.key, terms.say(job.name), month_words(due.median, lives.on), _span(due, lives.on),
                _km(job, lives, terms), terms.say(_basis_words(job)), rough_money(lives.price(job), currency),
                f"{100 * job.chance(WITHIN):.0f} %", tuple(terms.say(one) for one in job.reasons), job.settle,
            )
        )  # fmt: skip
    return rows


def _basis_words(job: Job) -> str:
    age = ", limited by age" if job.limited_by == "age" else ""
    return f"{job.basis}{age}"


def calendar_svgs(reckoning: Reckoning, lives: Lives) -> tuple[Markup, Markup]:
    """The calendar of what may well fall within three years, for a wide and for a narrow screen."""
    rows = []
    for job in lives.jobs:
        if job.settle or job.chance(WITHIN) >= LIKELY_FROM:
            due = job.months()
            told = TOLD.get(job.basis, "guess")
            name = reckoning.terms.say(job.name)
            rows.append(
                CalendarRow(
                    name[:1].upper() + name[1:], due.low, due.median, due.high, told, due.median <= 0, job.settle
                )
            )
    wide, narrow = (Markup(life_calendar(rows[:DRAWN], lives.on, narrow=one)) for one in (False, True))
    return wide, narrow


@dataclass(frozen=True, slots=True)
class DriverRow:
    """A job's part in the spending: name, chance, share of the mean."""

    name: str
    chance: str
    share: str


@dataclass(frozen=True, slots=True)
class SpendingTable:
    """One horizon: quantiles of the total, its mean, and drivers whose shares add up to it as they stand."""

    months: int
    low: str
    median: str
    high: str
    mean: str
    drivers: tuple[DriverRow, ...]


def spending_tables(spent: Sequence[Spending], currency: str, terms: Terms) -> list[SpendingTable]:
    """Every horizon in words; shares are rounded so that they add up to the mean."""
    found = []
    for one in spent:
        unit = max(step_of(currency), Decimal(1))
        shares, total = shared_out([driver.share for driver in one.drivers], currency, unit)
        rows = tuple(
            DriverRow(terms.say(driver.name), f"{100 * driver.chance:.0f} %", rough_money(float(share), currency))
            for driver, share in zip(one.drivers, shares, strict=True)
        )
        low, median, high = (rough_money(rough(amount), currency) for amount in (one.p10, one.p50, one.p90))
        found.append(SpendingTable(one.months, low, median, high, rough_money(float(total), currency), rows))
    return found


@dataclass(frozen=True, slots=True)
class SheetRow:
    """A line of the negotiation sheet in words; `code` and `subject` are what it is kept by."""

    code: str
    subject: str
    words: str
    because: str
    amount: str
    figure: str
    own: bool
    note: str
    disclosed: bool
    taken_off: bool
    partly: str


@dataclass(frozen=True, slots=True)
class SheetGroup:
    """Lines of one treatment under a heading; those told of before the price was named stand apart from new ones."""

    treat: Consequence
    name: str
    rows: tuple[SheetRow, ...]


@dataclass(frozen=True, slots=True)
class SheetTable:
    """The negotiation sheet: lines by what becomes of them, the sum to settle and how much of it is for looks alone,
    the asking price and what is left; at an auction instead what comes on top of the hammer price, part by part.
    """

    groups: tuple[SheetGroup, ...]
    settled: str
    looks: str
    unpriced: int
    disclosed: int
    asking: str
    left: str
    auction: bool
    on_top: tuple[tuple[str, str], ...]
    above_hammer: str


def sheet_table(sheet: Sheet, terms: Terms) -> SheetTable:
    """The sheet in words."""

    def money(amount: Decimal) -> str:
        return exact_money(amount, sheet.currency)

    return SheetTable(
        _groups(sheet, terms), money(sheet.settled), money(sheet.looks) if sheet.looks else "", sheet.unpriced,
        sum(line.disclosed and not line.taken for line in sheet.treated(Consequence.SETTLE)),
        "" if sheet.asking is None else money(sheet.asking), "" if sheet.left is None else money(sheet.left),
        sheet.on_top is not None, tuple((name, money(amount)) for name, amount in sheet.on_top or ()),
        money(sheet.above_hammer),
    )  # fmt: skip


TOLD_BEFORE = "Told of before the price was named"


def _groups(sheet: Sheet, terms: Terms) -> tuple[SheetGroup, ...]:
    """What to settle, new and told of before; then the other treatments."""
    found = []
    for treat in TREATS:
        rows = [_sheet_row(line, sheet, terms) for line in sheet.treated(treat)]
        before = tuple(row for row in rows if row.disclosed and treat is Consequence.SETTLE)
        name = f"{treat}: new" if treat is Consequence.SETTLE else str(treat)
        found.append(SheetGroup(treat, name, tuple(row for row in rows if row not in before)))
        found += [SheetGroup(treat, TOLD_BEFORE, before)] if before else []
    return tuple(found)


def _sheet_row(line: SheetLine, sheet: Sheet, terms: Terms) -> SheetRow:
    partly, settled = "", line.treat is Consequence.SETTLE and not line.disclosed
    if settled and line.amount is not None and line.taken < line.amount:
        partly = f"{exact_money(line.taken, sheet.currency)} of it counts here: the rest stands in lines of its own"
    return SheetRow(
        line.item.code, line.item.subject, terms.say(line.item.words), terms.say(line.item.because),
        "not priced" if line.amount is None else exact_money(line.amount, sheet.currency),
        "" if line.amount is None else str(line.amount), line.own, line.note, line.disclosed, bool(line.taken), partly,
    )  # fmt: skip


@dataclass(frozen=True, slots=True)
class LifeSection:
    """What the report says of lives and money: only what may well fall within three years, and what is settled.

    `told` is false when nobody measured, graded or said anything of what wears: then there is nothing to report.
    """

    distance: str
    on: str
    told: bool
    assumed: bool
    unknown: tuple[str, ...]
    calendar: str
    calendar_narrow: str
    rows: tuple[LifeRow, ...]
    spending: tuple[SpendingTable, ...]
    sheet: SheetTable

    @property
    def empty(self) -> bool:
        """True when there is nothing to report."""
        return not self.told


def told(reckoning: Reckoning) -> bool:
    """Whether anybody measured, graded, proved or priced anything, said what drives the vehicle, or found anything."""
    dossier = reckoning.dossier
    known = (dossier.corners, CornersDossier()), (dossier.facts, Facts()), (dossier.money, MoneyDossier())
    return any(state != empty for state, empty in known) or bool(reckoning.lives.sheet.lines)


def life_section(reckoning: Reckoning) -> LifeSection:
    """Gather the section; jobs unlikely within three years are left to the annex."""
    lives, terms = reckoning.lives, reckoning.terms
    currency = reckoning.dossier.opening.brief.currency
    likely = {job.key for job in lives.jobs if job.settle or job.chance(WITHIN) >= LIKELY_FROM}
    return LifeSection(
        terms.quantity("distance", lives.km_per_year),
        f"{lives.on:%d %B %Y}",
        told(reckoning),
        lives.assumed,
        tuple(terms.say(one) for one in lives.unknown),
        *calendar_svgs(reckoning, lives),
        tuple(row for row in life_rows(reckoning, lives) if row.key in likely),
        tuple(spending_tables(lives.spending, currency, terms)),
        sheet_table(lives.sheet, terms),
    )


@dataclass(frozen=True, slots=True)
class MoneyFirst:
    """What the report says of money before the details: the sum to settle, and the longest horizon."""

    sheet: SheetTable
    months: SpendingTable | None
    told: bool

    @property
    def empty(self) -> bool:
        """True when there is nothing to report."""
        return not self.told


@report_section("money", 4, "_money.html")
def _money(making: Making) -> MoneyFirst:
    """The money in a few lines."""
    lives, terms = making.reckoning.lives, making.reckoning.terms
    tables = spending_tables(lives.spending, making.reckoning.dossier.opening.brief.currency, terms)
    return MoneyFirst(sheet_table(lives.sheet, terms), tables[-1] if tables else None, told(making.reckoning))


@report_section("life", 110, "_life.html", kept=True)
def _life(making: Making) -> LifeSection:
    """Lives, money and the negotiation sheet."""
    return life_section(making.reckoning)
