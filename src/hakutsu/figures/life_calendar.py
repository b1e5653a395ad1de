"""The life calendar: what falls when, one line a job, with its interval, along the months after buying."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from hakutsu.figures.svg import tag, text

NAMES, WIDE, TOP, EACH = 286.0, 980.0, 30.0, 26.0
YEARS = 5
MONTHS = 12 * YEARS
DOT = 4.5


@dataclass(frozen=True, slots=True)
class CalendarRow:
    """One job: its name, when it is due (10, 50, 90 % [months]), how it is told (measured or guess), whether it is due
    now, and to be settled.
    """

    name: str
    low: float
    median: float
    high: float
    told: str
    now: bool = False
    settle: bool = False


def _x(months: float) -> float:
    return NAMES + min(max(months, 0.0), MONTHS) / MONTHS * (WIDE - NAMES - 26)


def life_calendar(rows: Sequence[CalendarRow], begin: date) -> str:
    """Draw the rows in their order; what lies beyond five years ends in an arrow at the edge."""
    high = TOP + EACH * len(rows) + 8
    parts = [tag("title", text(f"Life calendar of {len(rows)} jobs over {YEARS} years")), *_years(begin, high)]
    for i, row in enumerate(rows):
        parts.append(_row(row, TOP + EACH * (i + 0.5)))
    return tag(
        "svg", *parts, class_="life-calendar", viewBox=f"0 0 {WIDE:.0f} {high:.0f}", role="img",
        aria_label=f"Life calendar: {len(rows)} jobs from {begin:%B %Y}; the table beside it says the same",
    )  # fmt: skip


def _years(begin: date, high: float) -> list[str]:
    found = []
    for year in range(YEARS + 1):
        x = _x(12 * year)
        when = f"{begin:%b} {begin.year + year}"
        found.append(tag("path", d=f"M{x:.1f} {TOP - 6}V{high - 4:.0f}", class_="lc-year" if year else "lc-today"))
        anchor = "end" if year == YEARS else "middle"
        words = tag(
            "text", text(when), x=WIDE - 2 if year == YEARS else x, y=16.0, text_anchor=anchor, class_="lc-when"
        )
        found.append(words)
    return found


def _row(row: CalendarRow, y: float) -> str:
    parts = [tag("text", text(row.name), x=NAMES - 14, y=y + 5, text_anchor="end", class_="lc-name")]
    said = (
        f"{row.name}: now"
        if row.now
        else f"{row.name}: {row.low:.0f} to {row.high:.0f} months, middle {row.median:.0f}"
    )
    if row.low < MONTHS and row.high > row.low:
        left, right = _x(row.low), _x(row.high)
        parts.append(
            tag("path", d=f"M{left:.1f} {y - 4}V{y + 4}M{left:.1f} {y}H{right:.1f}", class_=f"lc-span lc-{row.told}")
        )
        beyond = row.high > MONTHS
        end = f"M{right:.1f} {y - 5}l8 5l-8 5" if beyond else f"M{right:.1f} {y - 4}V{y + 4}"
        parts.append(tag("path", d=end, class_="lc-end"))
    elif row.low >= MONTHS:
        parts.append(tag("path", d=f"M{_x(MONTHS):.1f} {y - 5}l8 5l-8 5", class_="lc-end"))
    if row.median <= MONTHS:
        x = _x(row.median)
        if row.now:
            parts.append(tag("path", d=f"M{x} {y - 8}l8 8l-8 8l-8 -8Z", class_="lc-now" if row.settle else "lc-due"))
        else:
            parts.append(tag("path", d=f"M{x:.1f} {y - 8}V{y + 8}", class_="lc-median"))
    return tag("g", tag("title", text(said)), *parts)
