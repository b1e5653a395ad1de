"""Days as they are told: a year, a month or a day of the calendar."""

from __future__ import annotations

from datetime import date


def told_day(said: str) -> tuple[date, date, date] | None:
    """The first, the middle and the last day of what was told (``2021``, ``2021-05``, ``2021-05-03``); none of nothing.

    Raises
    ------
    ValueError
        If the calendar has no such day.
    """
    parts = [int(one) for one in said.split("-")] if said else []
    if not parts:
        return None
    year = parts[0]
    if len(parts) == 1:
        return date(year, 1, 1), date(year, 7, 1), date(year, 12, 31)
    if len(parts) == 2:
        after = date(year + parts[1] // 12, parts[1] % 12 + 1, 1)
        return date(year, parts[1], 1), date(year, parts[1], 15), date.fromordinal(after.toordinal() - 1)
    day = date(year, parts[1], parts[2])
    return day, day, day


def middle_of(said: str) -> date | None:
    """The middle of what was told, so that it errs least; none of nothing."""
    told = told_day(said)
    return told[1] if told else None
