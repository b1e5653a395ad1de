"""Dated marks of a vehicle as findings: what is later than the build, much earlier, and of one date at one place."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from uuid import UUID

from hakutsu.core.findings import Finding, found
from hakutsu.core.papers.dates import AGREES, EARLIER, LATER, Cluster, Dated, Interval
from hakutsu.core.papers.telling import spoken_day
from hakutsu.vehicle.papers import dated_marks

DATES = "dates"
CODES = {LATER: "papers.date_later", EARLIER: "papers.date_earlier"}


def interval_words(interval: Interval) -> str:
    """An interval of days as short as it can be said: a year, a month, a week, a day."""
    first, last = interval
    if first == last:
        return spoken_day(first)
    if first.year != last.year or (first.month, last.month) == (1, 12):
        return str(first.year) if first.year == last.year else f"{first.year} to {last.year}"
    if (last - first).days <= 7:
        return f"week {first.isocalendar().week} of {first.isocalendar().year}"
    return f"{first:%B} {first.year}"


def mark_name(key: str) -> str:
    """What carries a mark."""
    return dated_marks()[key].name if key in dated_marks() else key


def dates_found(
    dated: Sequence[tuple[Dated, UUID]], built: Interval | None, groups: Sequence[Cluster], names: Mapping[str, str]
) -> list[Finding]:
    """What stands out, by place; of what wears out and is renewed in time nothing is said for being later.

    Parameters
    ----------
    dated : marks with their entries
    built : the build date; without one nothing is later
    groups : marks of one date at one place
    names : names of the marks, by what the clusters call them
    """
    if built is None:
        return []
    told = []
    for verdict, code in CODES.items():
        for place in dict.fromkeys(one.mark.place for one, _ in dated):
            here = [(one, entry) for one, entry in dated if one.mark.place == place and one.verdict == verdict]
            here = [(one, entry) for one, entry in here if verdict != LATER or not _renewed(names[one.mark.mark])]
            if here:
                told.append(_one(code, place or DATES, here, built, names))
    for group in groups:
        here = [(one, entry) for one, entry in dated if one.mark.mark in group.marks and one.mark.place == group.place]
        if all(_renewed(names[one.mark.mark]) for one, _ in here):
            continue
        listed = ", ".join(dict.fromkeys(mark_name(names[one.mark.mark]) for one, _ in here))
        words = f"parts of one date, {interval_words(here[0][0].intervals[0])}: {listed}"
        reason = f"it was built {interval_words(built)}"
        one = found("papers.date_cluster", group.place, words, [reason]).seen_in(*(entry for _, entry in here))
        told.append(_dated(one, here[0][0]))
    return told


def _renewed(key: str) -> bool:
    return key in dated_marks() and dated_marks()[key].renewed


def _one(
    code: str, subject: str, here: Sequence[tuple[Dated, UUID]], built: Interval, names: Mapping[str, str]
) -> Finding:
    said = ", ".join(f"{mark_name(names[one.mark.mark])} {interval_words(one.intervals[0])}" for one, _ in here)
    when = "later than it was built" if code == CODES[LATER] else "much earlier than it was built"
    one = found(code, subject, f"{said}: {when}", [f"built {interval_words(built)}"])
    return _dated(one.seen_in(*(entry for _, entry in here)), here[0][0])


def _dated(one: Finding, first: Dated) -> Finding:
    day = first.intervals[0][0]
    return replace(one, dated=f"{day.year}-{day.month:02d}")


def age_years(one: Dated, today_ordinal: int) -> float | None:
    """How old what carries a mark is [years], by the middle of its interval; none where that is open."""
    if len(one.intervals) != 1 or one.verdict not in (None, AGREES, LATER, EARLIER):
        return None
    first, last = one.intervals[0]
    return max(0.0, (today_ordinal - (first.toordinal() + last.toordinal()) / 2) / 365.25)
