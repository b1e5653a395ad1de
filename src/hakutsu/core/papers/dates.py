"""Dated marks: decoded to intervals, held against the build date, and clusters of one date at one place.

Sources: ISO 8601 (weeks); the codes themselves are as marks carry them, tables as the inspector gives them.
"""

from __future__ import annotations

import calendar
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

Interval = tuple[date, date]

OLDEST_DECADE = 1970
EARLIER_MONTHS = {"tyre_week": 12, "glass_dot_month": 12}
OTHERS_MONTHS = 6
CLUSTER_DAYS = 92
DOTS = ".·•∙●"
LATER, EARLIER, AGREES, UNREADABLE = "later", "much_earlier", "agrees", "unreadable"


class BadTable(ValueError):
    """A table of letters or dots that cannot be: what is wrong with it."""


@dataclass(frozen=True, slots=True)
class Mark:
    """A dated mark as it was read: its name, place, kind of code, text, and the table its code is read by."""

    mark: str
    place: str
    kind: str
    text: str
    table: str = ""


@dataclass(frozen=True, slots=True)
class Dated:
    """A mark decoded: the intervals it may be of, last day included, and how it stands to the build date."""

    mark: Mark
    intervals: tuple[Interval, ...]
    verdict: str | None


@dataclass(frozen=True, slots=True)
class Cluster:
    """Marks of one place that are of about one date."""

    place: str
    marks: tuple[str, ...]


def decode(mark: Mark, today: date) -> tuple[Interval, ...]:
    """The intervals a mark may be of; none where it cannot be read, or is of a day to come.

    Raises
    ------
    BadTable
        If its table cannot be.
    LookupError
        If nobody knows its kind of code.
    """
    return tuple(one for one in KINDS[mark.kind](mark, today) if one[0] <= today)


def verdict(mark: Mark, intervals: Sequence[Interval], build: Interval | None) -> str | None:
    """How a mark stands to the build date: later, much earlier, unreadable, or it agrees; none without a build date."""
    if build is None:
        return None
    if not intervals:
        return UNREADABLE
    least = months_before(build[0], EARLIER_MONTHS.get(mark.kind, OTHERS_MONTHS))
    told = [LATER if first > build[1] else EARLIER if last < least else AGREES for first, last in intervals]
    if AGREES in told:
        return AGREES
    nearest = min(range(len(told)), key=lambda at: min(abs((day - build[0]).days) for day in intervals[at]))
    return told[nearest]


def judged(marks: Sequence[Mark], build: Interval | None, today: date) -> list[Dated]:
    """Every mark decoded and held against the build date."""
    found = []
    for mark in marks:
        intervals = decode(mark, today)
        found.append(Dated(mark, intervals, verdict(mark, intervals, build)))
    return found


def clusters(dated: Sequence[Dated], *, built: bool) -> list[Cluster]:
    """The largest sets of two marks and more of one place whose middles lie at most 92 days apart.

    Only marks of a single interval count; where the build date is known, only those that do not agree with it.
    """
    counting = [
        one for one in dated
        if one.mark.place and len(one.intervals) == 1 and (not built or one.verdict in (LATER, EARLIER))
    ]  # fmt: skip
    found = []
    for place in dict.fromkeys(one.mark.place for one in counting):
        here = sorted((one for one in counting if one.mark.place == place), key=_middle)
        end_before = 0
        for start in range(len(here)):
            end = start
            while end < len(here) and _middle(here[end]) - _middle(here[start]) <= CLUSTER_DAYS:
                end += 1
            if end - start >= 2 and end > end_before:
                names = {id(one) for one in here[start:end]}
                found.append(Cluster(place, tuple(one.mark.mark for one in counting if id(one) in names)))
            end_before = max(end_before, end)
    return found


def _middle(one: Dated) -> float:
    (first, last) = one.intervals[0]
    return (first.toordinal() + last.toordinal()) / 2


def months_before(day: date, months: int) -> date:
    """The same day so many months earlier; the last of a month that is shorter."""
    index = day.year * 12 + day.month - 1 - months
    year, month = divmod(index, 12)
    return date(year, month + 1, min(day.day, calendar.monthrange(year, month + 1)[1]))


def year_of(text: str, today: date) -> int:
    """A year of two or four digits; of two, one that is not to come."""
    year = int(text)
    if len(text) == 4:
        return year
    return 2000 + year if 2000 + year <= today.year else 1900 + year


def whole_year(year: int) -> list[Interval]:
    """From its first to its last day; nothing of a year that cannot be."""
    return [(date(year, 1, 1), date(year, 12, 31))] if 1 <= year <= 9999 else []


def whole_month(year: int, month: int) -> list[Interval]:
    """From its first to its last day; nothing of a month that cannot be."""
    if not (1 <= year <= 9999 and 1 <= month <= 12):
        return []
    return [(date(year, month, 1), date(year, month, calendar.monthrange(year, month)[1]))]


def _week(year: int, week: int) -> list[Interval]:
    try:
        monday = date.fromisocalendar(year, week, 1)
    except ValueError:
        return []
    return [(monday, monday + timedelta(days=6))]


def _tyre_week(mark: Mark, today: date) -> list[Interval]:
    code = mark.text.strip()
    if re.fullmatch(r"[0-9]{4}", code):
        return _week(2000 + int(code[2:]), int(code[:2]))
    if re.fullmatch(r"[0-9]{3}", code):
        return [one for decade in (1970, 1980, 1990) for one in _week(decade + int(code[2]), int(code[:2]))]
    return []


def _dots_table(table: str) -> tuple[int, int, int | None]:
    found = {}
    for part in table.split():
        match = re.fullmatch(r"(before|after):(\d+)-n", part) or re.fullmatch(r"(decade):(\d{4})", part)
        if match is None or match[1] in found:
            raise BadTable(f"“{part}” is no part of a table of dots, such as before:7-n after:13-n decade:2010")
        found[match[1]] = int(match[2])
    if not {"before", "after"} <= found.keys():
        raise BadTable("a table of dots says what dots before and after the year mean: before:7-n after:13-n")
    if found.get("decade", 0) % 10:
        raise BadTable("a decade ends in 0")
    return found["before"], found["after"], found.get("decade")


def _glass(mark: Mark, today: date) -> list[Interval]:
    before, after, decade = _dots_table(mark.table)
    text = mark.text.strip().replace("…", "...").replace(" ", "")
    match = re.fullmatch(rf"([{DOTS}]*)([0-9]{{1,2}})([{DOTS}]*)", text)
    if match is None or (match[1] and match[3]):
        return []
    if len(match[2]) == 2:
        years = [year_of(match[2], today)]
    elif decade is not None:
        years = [decade + int(match[2])]
    else:
        years = [ten + int(match[2]) for ten in range(OLDEST_DECADE, today.year + 1, 10)]
    if not match[1] and not match[3]:
        return [one for year in years for one in whole_year(year)]
    month = before - len(match[1]) if match[1] else after - len(match[3])
    half = range(1, 7) if match[1] else range(7, 13)
    return [one for year in years for one in whole_month(year, month)] if month in half else []


def _clock(mark: Mark, today: date) -> list[Interval]:
    match = re.fullmatch(r"([0-9]{2}|[0-9]{4})>([0-9]{1,2}|\?)", mark.text.replace(" ", ""))
    if match is None:
        return []
    year = year_of(match[1], today)
    return whole_year(year) if match[2] == "?" else whole_month(year, int(match[2]))


@dataclass(frozen=True, slots=True)
class _Letters:
    months: bool
    of: dict[str, int]


def _letters_table(table: str, today: date) -> list[_Letters]:
    parts = []
    for said in (one.strip() for one in table.split(";") if one.strip()):
        match = re.fullmatch(r"([A-Za-z]+):([0-9]{1,4})-([0-9]{1,4})", said.replace(" ", ""))
        if match is None:
            raise BadTable(f"“{said}” is no part of a table of letters, such as ABCDEF:1-6 or KLM:1998-2000")
        first, last = int(match[2]), int(match[3])
        months = 1 <= first <= 12 and 1 <= last <= 12
        if not months:
            first, last = (year_of(one, today) for one in (match[2], match[3]))
        letters = match[1].upper()
        if len(letters) != last - first + 1 or len(set(letters)) != len(letters):
            raise BadTable(f"“{said}”: {len(letters)} letters for {last - first + 1} {'months' if months else 'years'}")
        parts.append(_Letters(months, dict(zip(letters, range(first, last + 1), strict=True))))
    if not parts:
        raise BadTable("a table of letters says what each letter means, such as ABCDEF:1-6")
    return parts


def _letters(mark: Mark, today: date) -> list[Interval]:
    parts = _letters_table(mark.table, today)
    match = re.fullmatch(r"([0-9]{2}|[0-9]{4})?([A-Z]*)([0-9]{2}|[0-9]{4})?", mark.text.upper().replace(" ", ""))
    if match is None or (match[1] and match[3]) or not (match[1] or match[2] or match[3]):
        return []
    digits = match[1] or match[3]
    year = year_of(digits, today) if digits else None
    told = _assigned(match[2], parts)
    if told is None or ("year" in told and year is not None):
        return []
    year = told.get("year", year)
    if year is None:
        return []
    return whole_month(year, told["month"]) if "month" in told else whole_year(year)


def _assigned(letters: str, parts: Sequence[_Letters]) -> dict[str, int] | None:
    """Month and year that letters mean, each by one part; the parts' own order first; nothing where one fits none."""
    if not letters:
        return {}
    if len(letters) > 2:
        return None
    months, years = ([one for one in parts if one.months is wanted] for wanted in (True, False))
    ways: list[Sequence[tuple[str, Sequence[_Letters]]]]
    if len(letters) == 1:
        ways = [[("month", months)], [("year", years)]]
    else:
        ways = [[("month", months), ("year", years)], [("year", years), ("month", months)]]
    if parts and not parts[0].months:
        ways.reverse()
    for way in ways:
        told = {}
        for letter, (role, mine) in zip(letters, way, strict=True):
            value = next((one.of[letter] for one in mine if letter in one.of), None)
            if value is not None:
                told[role] = value
        if len(told) == len(letters):
            return told
    return None


def plain(text: str, today: date | None = None) -> list[Interval]:
    """YYYY, YYYY-MM or YYYY-MM-DD as an interval; nothing else."""
    text = text.strip()
    if re.fullmatch(r"[0-9]{4}", text):
        return whole_year(int(text))
    if re.fullmatch(r"[0-9]{4}-[0-9]{2}", text):
        return whole_month(int(text[:4]), int(text[5:]))
    if re.fullmatch(r"[0-9]{4}-[0-9]{2}-[0-9]{2}", text):
        try:
            day = date.fromisoformat(text)
        except ValueError:
            return []
        return [(day, day)]
    return []


KINDS: dict[str, Callable[[Mark, date], list[Interval]]] = {
    "tyre_week": _tyre_week,
    "glass_dot_month": _glass,
    "clock_mould": _clock,
    "letter_table": _letters,
    "plain": lambda mark, today: plain(mark.text, today),
}
