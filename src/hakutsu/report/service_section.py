"""Service papers in words: entries, and what the report says of them."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from markupsafe import Markup

from hakutsu.core.papers.telling import spoken_day
from hakutsu.core.service.schedule import ItemStands
from hakutsu.core.service.told import Matched, item_name
from hakutsu.dossier.service import ServiceDossier
from hakutsu.entries.registry import Body
from hakutsu.entries.service import (
    Advisory,
    Countdown,
    Counts,
    Cover,
    Keys,
    Owners,
    Plan,
    PlanRow,
    ServiceDone,
    TestHeld,
)
from hakutsu.figures.service import service_line
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.service import ServiceReckoned
from hakutsu.report.finding_wording import FoundLine, found_line
from hakutsu.report.sections import Making, report_section
from hakutsu.report.wording import body_words
from hakutsu.vehicle.service import ByWhom, advisory_topics
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]


def _joined(parts: Iterable[str]) -> str:
    return ", ".join(one for one in parts if one)


def _at(km: float | None) -> str:
    return f"at {{distance {km:.0f}}}" if km is not None else ""


def interval_words(row: PlanRow) -> str:
    """An interval in words for `Terms.say`."""
    every = f"{{distance {row.km:.0f}}}" if row.km else ""
    months = (
        "" if not row.months else f"{row.months / 12:g} years" if row.months % 12 == 0 else f"{row.months:g} months"
    )
    return " or ".join(one for one in (every, "1 year" if months == "1 years" else months) if one)


@body_words.register
def _(body: ServiceDone, terms: Terms = PLAIN) -> Said:
    what = "service by the plan" if body.whole else ""
    by = "" if body.by is ByWhom.UNKNOWN else str(body.by)
    items = _joined(item_name(one) for one in body.items)
    number = f"no. {body.number}" if body.number else ""
    said = _joined((body.on, _at(body.at_km), what, items, by, str(body.proof), number, body.note))
    return "Service", terms.say(said)


@body_words.register
def _(body: Plan, terms: Terms = PLAIN) -> Said:
    rows = "; ".join(f"{item_name(one.item)} every {interval_words(one)}" for one in body.rows)
    return "Plan", terms.say(f"{body.name}: {rows}" if body.name else rows)


@body_words.register
def _(body: Countdown, terms: Terms = PLAIN) -> Said:
    km = "" if body.remaining_km is None else f"{{distance {body.remaining_km:.0f}}}"
    days = "" if body.remaining_days is None else f"{body.remaining_days:.0f} days"
    return "Countdown of the dashboard", terms.say(" and ".join(one for one in (km, days) if one))


@body_words.register
def _(body: TestHeld, terms: Terms = PLAIN) -> Said:
    until = f"holds until {body.until}" if body.until else ""
    return "Test", terms.say(_joined((body.on, _at(body.at_km), str(body.ended), until, body.note)))


@body_words.register
def _(body: Advisory, terms: Terms = PLAIN) -> Said:
    topic = advisory_topics()[body.topic].name if body.topic in advisory_topics() else body.topic
    return "Advisory", _joined((body.on, body.words or topic))


@body_words.register
def _(body: Owners, terms: Terms = PLAIN) -> Said:
    counts = "" if body.counts is Counts.UNKNOWN else str(body.counts)
    return "Owners", _joined((str(body.count), counts, body.document))


@body_words.register
def _(body: Keys, terms: Terms = PLAIN) -> Said:
    work = "" if body.work is None else f"{body.work} work"
    return "Keys", _joined((f"{body.there} there", work, body.note))


@body_words.register
def _(body: Cover, terms: Terms = PLAIN) -> Said:
    far = f"to {{distance {body.until_km:.0f}}}" if body.until_km else ""
    until = _joined((f"until {body.until}" if body.until else "", far))
    goes = "" if body.transferable is None else "goes over to a buyer" if body.transferable else "stays behind"
    return "Cover", terms.say(_joined((str(body.kind), body.by, until, goes, body.proof)))


@dataclass(frozen=True, slots=True)
class ItemLine:
    """An item in words: interval, last done, missed, due next."""

    name: str
    every: str
    last: str
    missed: int
    due: str
    overdue: bool


def item_line(one: ItemStands, terms: Terms) -> ItemLine:
    """An item of the plan as tables tell it."""
    at = terms.say(f"{{distance {one.last_km:.0f}}}") if one.last_km is not None else ""
    when = spoken_day(one.last_on) if one.last_on else ""
    last = ", ".join(word for word in (when, at) if word) or ("" if not one.done else "no date")
    km = terms.say(f" or {{distance {one.next_km:.0f}}}") if one.next_km is not None else ""
    due = "now" if one.overdue else f"{one.next_on:%B} {one.next_on.year}{km}"
    return ItemLine(item_name(one.item), terms.say(interval_words(one.row)), last, one.missed, due, one.overdue)


def advisory_line(one: Matched, terms: Terms) -> tuple[str, str, str]:
    """An advisory, what became of it, and what was found."""
    place = terms.place(one.place) if one.place else ""
    words = body_words(one.body, terms)[1]
    by = "; ".join(terms.say(each.words) for each in one.by[:3])
    return (f"{place}: {words}" if place else words), str(one.came), by


@dataclass(frozen=True, slots=True)
class ServiceSection:
    """Drawing, the items of the plan, findings, advisories, and what else the papers say."""

    drawing: Markup
    maker: bool
    items: tuple[ItemLine, ...]
    lines: tuple[FoundLine, ...]
    advisories: tuple[tuple[str, str, str], ...]
    told: tuple[str, ...]

    @property
    def empty(self) -> bool:
        """True where no paper was read."""
        return not (self.items or self.lines or self.advisories or self.told)


def service_section(reckoning: Reckoning) -> ServiceSection:
    """Gather the section from a reckoning."""
    service, terms, state = reckoning.station(ServiceReckoned), reckoning.terms, reckoning.dossier[ServiceDossier]
    items = service.items if service.works else []
    bodies: list[Body] = [one.body for every in (state.tests, state.owners, state.covers) for one in every]
    bodies += [one.body for one in (state.keys, state.countdown) if one is not None]
    told = (body_words(one, terms) for one in bodies)
    return ServiceSection(
        Markup(service_line(items, service.life, item_name)), service.plan.maker,
        tuple(item_line(one, terms) for one in items),
        tuple(found_line(one, terms) for one in reckoning.findings_of("service")),
        tuple(advisory_line(one, terms) for one in service.advisories),
        tuple(f"{title}: {words}" for title, words in told),
    )  # fmt: skip


@report_section("service", 109, "_service.html")
def _service(making: Making) -> ServiceSection:
    """Service papers."""
    return service_section(making.reckoning)
