"""The life calendar: what falls when, one line a job, with its interval, along the months after buying."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from hakutsu.figures.svg import tag, text

TOP = 30.0
YEARS = 5
MONTHS = 12 * YEARS


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


@dataclass(frozen=True, slots=True)
class _Layout:
    """Where the months begin, how wide it is and how high a row; `above`: names stand over their lines."""

    begin: float
    wide: float
    each: float
    above: bool = False

    def x(self, months: float) -> float:
        return self.begin + min(max(months, 0.0), MONTHS) / MONTHS * (self.wide - self.begin - 26)


WIDE, NARROW = _Layout(286.0, 980.0, 26.0), _Layout(14.0, 344.0, 44.0, above=True)


def life_calendar(rows: Sequence[CalendarRow], begin: date, *, narrow: bool = False) -> str:
    """Draw the rows in their order; what lies beyond five years ends in an arrow at the edge.

    `narrow`: for a screen held in the hand, with names above their lines.
    """
    at = NARROW if narrow else WIDE
    high = TOP + at.each * len(rows) + 8
    parts = [tag("title", text(f"Life calendar of {len(rows)} jobs over {YEARS} years")), *_years(begin, high, at)]
    for i, row in enumerate(rows):
        parts.append(_row(row, TOP + at.each * (i + (0.75 if narrow else 0.5)), at))
    return tag(
        "svg", *parts, class_="life-calendar-narrow" if narrow else "life-calendar",
        viewBox=f"0 0 {at.wide:.0f} {high:.0f}", role="img",
        aria_label=f"Life calendar: {len(rows)} jobs from {begin:%B %Y}; the table beside it says the same",
    )  # fmt: skip


def _years(begin: date, high: float, at: _Layout) -> list[str]:
    found = []
    for year in range(YEARS + 1):
        x = at.x(12 * year)
        when = _ahead(year) if at.above else f"{begin:%b} {begin.year + year}"
        found.append(tag("path", d=f"M{x:.1f} {TOP - 6}V{high - 4:.0f}", class_="lc-year" if year else "lc-today"))
        anchor = "end" if year == YEARS else "start" if at.above and not year else "middle"
        where = at.wide - 2 if year == YEARS else 0.0 if anchor == "start" else x
        found.append(tag("text", text(when), x=where, y=16.0, text_anchor=anchor, class_="lc-when"))
    return found


def _ahead(year: int) -> str:
    return f"{year} years" if year == YEARS else str(year or "now")


def _row(row: CalendarRow, y: float, at: _Layout) -> str:
    if at.above:
        parts = [tag("text", text(row.name), x=at.begin + 6, y=y - 13, class_="lc-name")]
    else:
        parts = [tag("text", text(row.name), x=at.begin - 14, y=y + 5, text_anchor="end", class_="lc-name")]
    said = (
        f"{row.name}: now"
        if row.now
        else f"{row.name}: {row.low:.0f} to {row.high:.0f} months, middle {row.median:.0f}"
    )
    if row.low < MONTHS and row.high > row.low:
        left, right = at.x(row.low), at.x(row.high)
        parts.append(
            tag("path", d=f"M{left:.1f} {y - 4}V{y + 4}M{left:.1f} {y}H{right:.1f}", class_=f"lc-span lc-{row.told}")
        )
        beyond = row.high > MONTHS
        end = f"M{right:.1f} {y - 5}l8 5l-8 5" if beyond else f"M{right:.1f} {y - 4}V{y + 4}"
        parts.append(tag("path", d=end, class_="lc-end"))
    elif row.low >= MONTHS:
        parts.append(tag("path", d=f"M{at.x(MONTHS):.1f} {y - 5}l8 5l-8 5", class_="lc-end"))
    if row.median <= MONTHS:
        x = at.x(row.median)
        if row.now:
            parts.append(tag("path", d=f"M{x} {y - 8}l8 8l-8 8l-8 -8Z", class_="lc-now" if row.settle else "lc-due"))
        else:
            parts.append(tag("path", d=f"M{x:.1f} {y - 8}V{y + 8}", class_="lc-median"))
    return tag("g", tag("title", text(said)), *parts)
