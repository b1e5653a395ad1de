"""What service papers come to as findings."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from uuid import UUID

from hakutsu.core.findings import Finding, found, is_of
from hakutsu.core.life.components import scheduled_items
from hakutsu.core.papers.telling import spoken_day
from hakutsu.core.service.schedule import CountdownSays, ItemStands, Work
from hakutsu.entries.service import Advisory, Counts, Cover, CoverKind, Keys, Owners
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.service import ByWhom, ProofOf, advisory_topics

SERVICE, TESTS, OWNERS, COVER, KEYS = "service", "tests", "owners", "cover", "keys"
CRITICAL = ("timing_belt", "brake_fluid")  # what breaks an engine or the brakes where it is left too long
NAMED = 3
GRADED = ("corners.gear_failed", "corners.gear_failing", "corners.gear_worn", "corners.gear_untold")


def item_name(key: str) -> str:
    """An item of a plan in words."""
    return scheduled_items()[key].name if key in scheduled_items() else key.replace("_", " ")


def plan_found(items: Sequence[ItemStands], entries: Sequence[UUID], *, maker: bool) -> list[Finding]:
    """Services missing between those that are proven, and what is overdue; nothing where nobody read papers."""
    if not entries:
        return []
    whose = "by the maker’s plan" if maker else "by usual intervals: the maker’s plan is not told"
    told = []
    for one in items:
        name = item_name(one.item)
        if one.missed and one.done:
            times = "once" if one.missed == 1 else f"{one.missed} times"
            words = f"{name}: not proven {times} between what is proven"
            told.append(found("service.missing", one.item, words, [whose]).seen_in(*entries))
        if one.overdue:
            code = "service.critical" if one.item in CRITICAL else "service.overdue"
            since = _since(one)
            words = f"{name}: overdue, {since}"
            told.append(found(code, one.item, words, [whose]).seen_in(*entries))
    return told


def _since(one: ItemStands) -> str:
    if one.last_on is not None:
        return f"last proven {spoken_day(one.last_on)}"
    if one.last_km is not None:
        return f"last proven at {{distance {one.last_km:.0f}}}"
    return "never proven"


def said_found(works: Sequence[Work]) -> list[Finding]:
    """Work that is only said: it resets nothing."""
    told = []
    for one in works:
        if one.proof is ProofOf.SAID and one.by is not ByWhom.DELIVERY:
            what = ", ".join(item_name(item) for item in one.items) or "service"
            told.append(
                found("service.said_only", SERVICE, f"{what}: said to be done, without proof").seen_in(one.entry)
            )
    return told


def countdown_found(says: CountdownSays | None, entry: UUID) -> list[Finding]:
    """A countdown that does not fit the last service."""
    if says is None or not says.differs:
        return []
    parts = []
    if says.km is not None and says.plan_km:
        parts.append(f"distance since the last service and what is left make {{distance {says.km:.0f}}},"
                     f" the plan says {{distance {says.plan_km:.0f}}}")  # fmt: skip
    if says.days is not None and says.plan_days:
        parts.append(f"days since and days left make {says.days:.0f}, the plan says {says.plan_days:.0f}")
    words = "countdown of the dashboard does not fit the last service that is proven"
    return [found("service.countdown", SERVICE, words, parts).seen_in(entry)]


class Came(Keyed):
    """What became of an advisory."""

    TRUE = "true", "found again"
    RIGHT = "right", "looked at, not found"
    OPEN = "open", "not looked at yet"


@dataclass(frozen=True, slots=True)
class Matched:
    """An advisory, what became of it, and the findings it came true by."""

    body: Advisory
    entry: UUID
    place: str
    came: Came
    by: tuple[Finding, ...]


def matched(
    advisories: Sequence[tuple[Advisory, UUID, str]],
    findings: Sequence[Finding],
    looked: Callable[[str], bool],
    side: Callable[[str], str | None],
) -> list[Matched]:
    """Advisories against what was found.

    Parameters
    ----------
    advisories : each with its entry and its place, if any
    findings : of all other stations
    looked : whether anything of a kind of look was taken
    side : the side of the vehicle a place lies on, none for neither
    """
    told = []
    for body, entry, place in advisories:
        row = advisory_topics().get(body.topic)
        codes = row.codes if row else ()
        parts = row.parts if row else ()
        by = [one for one in findings if _of(one.code, codes) and _mine(one, parts) and _near(one, place, side)]
        seen = bool(row and row.looks) and any(looked(one) for one in row.looks) if row else False
        came = Came.TRUE if by else Came.RIGHT if seen else Came.OPEN
        told.append(Matched(body, entry, place, came, tuple(by)))
    return told


def _of(code: str, codes: tuple[str, ...]) -> bool:
    plain = tuple(one for one in codes if "*" not in one or one.endswith("*"))
    inner = [one.partition("*") for one in codes if "*" in one and not one.endswith("*")]
    return is_of(code, plain) or any(code.startswith(head) and code.endswith(tail) for head, _, tail in inner)


def _mine(one: Finding, parts: tuple[str, ...]) -> bool:
    """Of graded parts only those the topic is about."""
    return not parts or one.code not in GRADED or one.subject.partition(":")[0] in parts


def _near(one: Finding, place: str, side: Callable[[str], str | None]) -> bool:
    mine, other = side(place) if place else None, side(one.at)
    return mine is None or other is None or mine == other


def advisories_found(rows: Sequence[Matched]) -> list[Finding]:
    """Advisories that came true, and those nobody looked into."""
    told = []
    for one in rows:
        name = one.body.words or (advisory_topics()[one.body.topic].name if one.body.topic in advisory_topics() else "")
        when = f" ({one.body.on})" if one.body.on else ""
        subject = one.place or TESTS
        if one.came is Came.TRUE:
            reasons = [f"found: {each.words}" for each in one.by[:NAMED]]
            entries = [entry for each in one.by[:NAMED] for entry in each.evidence]
            words = f"advised by an earlier test{when} and found: {name}"
            told.append(found("service.advised_true", subject, words, reasons).seen_in(one.entry, *entries))
        elif one.came is Came.OPEN:
            told.append(
                found("service.advised_open", subject, f"advised by an earlier test{when}: {name}").seen_in(one.entry)
            )
    return told


def test_found(until: date | None, today: date, entry: UUID | None) -> list[Finding]:
    """A periodic test that has run out."""
    if until is None or entry is None or until >= today:
        return []
    return [found("service.test_expired", TESTS, f"test expired {spoken_day(until)}").seen_in(entry)]


def owners_found(owners: Sequence[tuple[Owners, UUID]]) -> list[Finding]:
    """Documents that count owners differently, once it is told what each counts."""
    former = {_former(body): (body, entry) for body, entry in owners if body.counts is not Counts.UNKNOWN}
    if len(former) < 2:
        return []
    said = "; ".join(f"{body.document or 'a document'}: {body.count}, {body.counts}" for body, _ in former.values())
    words = f"documents count the owners differently: {said}"
    return [found("service.owners_differ", OWNERS, words).seen_in(*(entry for _, entry in former.values()))]


def _former(body: Owners) -> int:
    return body.count if body.counts is Counts.FORMER else body.count - 1


def keys_found(keys: Keys | None, entry: UUID | None) -> list[Finding]:
    """One key only, or keys that do not work."""
    if keys is None or entry is None:
        return []
    told = []
    if keys.there == 0:
        told.append(found("service.no_key", KEYS, "no key is there"))
    elif keys.there == 1:
        told.append(found("service.one_key", KEYS, "one key only: a second one is cut and coded"))
    if keys.work is not None and keys.work < keys.there:
        told.append(found("service.key_dead", KEYS, f"{keys.there - keys.work} of {keys.there} keys do not work"))
    return [one.seen_in(entry) for one in told]


def covers_found(
    covers: Sequence[tuple[Cover, UUID]], until: Mapping[UUID, date | None], today: date, km: float | None
) -> list[Finding]:
    """Cover that has ended, that stays behind, or that nothing proves."""
    told = []
    for body, entry in covers:
        name = str(body.kind) if not body.by else f"{body.kind} ({body.by})"
        end = until.get(entry)
        over = (end is not None and end < today) or (
            km is not None and body.until_km is not None and km > body.until_km
        )
        if over:
            told.append(found("service.cover_over", COVER, f"{name}: has ended").seen_in(entry))
        elif body.transferable is False:
            told.append(found("service.cover_stays", COVER, f"{name}: does not go over to a buyer").seen_in(entry))
        elif not body.proof:
            told.append(found("service.cover_open", COVER, f"{name}: nothing proves it").seen_in(entry))
        if body.kind is CoverKind.CERTIFIED and body.transferable is None and not over:
            why = "whether it goes over to a buyer is not told"
            told.append(found("service.cover_ask", COVER, f"{name}: {why}").seen_in(entry))
    return told
