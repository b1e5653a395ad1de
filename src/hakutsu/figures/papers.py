"""Drawings of the papers: the number at every place, dated marks on one line, records of distance."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import date
from math import floor, log10

from hakutsu.core.papers.dates import AGREES, EARLIER, LATER, Interval
from hakutsu.core.papers.distance import Distance
from hakutsu.core.papers.identity import UNREAD
from hakutsu.core.papers.numbers import Grid
from hakutsu.core.papers.records import History
from hakutsu.figures.svg import tag, text

CELL, ROW, NAME = 20.0, 44.0, 16.0
WIDE, LEFT, RIGHT = 720.0, 210.0, 16.0
LINE, HEAD = 26.0, 28.0
HIGH, FOOT, BESIDE = 300.0, 30.0, 104.0
YEAR = 365.25
MOST_TICKS, MOST_LINES = 10, 5
SIGN = {LATER: "▲ later", EARLIER: "▼ much earlier", AGREES: "● agrees"}


def number_grid(told: Grid) -> str:
    """Draw every reading, a row a place; a character that differs stands in a marked cell, an unread one is a gap."""
    size = max((len(one.characters) for one in told.rows), default=0)
    if not size:
        return ""
    wide, parts = max(17, size) * CELL + 2, [tag("title", "The number at every place")]
    for index, row in enumerate(told.rows):
        top = index * ROW
        name = row.reading.name + (", from a picture" if row.reading.from_picture else "")
        parts.append(tag("text", text(name), x=1, y=top + NAME - 3, class_="lc-name"))
        for at, one in enumerate(row.characters):
            left, odd = 1 + at * CELL, at in row.differs
            shape = "pp-odd" if odd else "pp-gap" if one == UNREAD else "pp-cell"
            parts.append(tag("rect", x=left, y=top + NAME, width=CELL, height=CELL, class_=shape))
            if one != UNREAD:
                parts.append(tag("text", text(one), x=left + CELL / 2, y=top + NAME + 15, text_anchor="middle",
                                 class_="pp-character"))  # fmt: skip
    said = "; ".join(f"{row.reading.name}: {row.characters}" for row in told.rows)
    box = f"0 0 {wide:.0f} {len(told.rows) * ROW:.0f}"
    return tag("svg", *parts, class_="pp-grid", viewBox=box, role="img", aria_label=said)


@dataclass(frozen=True, slots=True)
class MarkLine:
    """A line of the drawing of dates: what carries the mark, its intervals, and how it stands to the build."""

    name: str
    intervals: tuple[Interval, ...]
    verdict: str | None


def dates_line(lines: Sequence[MarkLine], built: Interval | None, today: date) -> str:
    """Draw dated marks over the years, one a line, with the build date as a band through all of them."""
    shown = [one for one in lines if one.intervals]
    if not shown:
        return ""
    days = [day for one in shown for interval in one.intervals for day in interval] + list(built or ())
    first, last = min(days).year, max(max(days).year, today.year) + 1
    high = HEAD + LINE * len(shown) + 10

    def x(day: date) -> float:
        span = (date(last, 1, 1) - date(first, 1, 1)).days
        return LEFT + (WIDE - LEFT - RIGHT) * min(1.0, (day - date(first, 1, 1)).days / span)

    parts = [tag("title", "Dated marks against the build date")]
    if built is not None:
        wide = max(4.0, x(built[1]) - x(built[0]))
        parts.append(tag("rect", x=x(built[0]), y=HEAD - 6, width=wide, height=high - HEAD, class_="wu-usual"))
        parts.append(tag("text", "built", x=x(built[0]), y=HEAD - 10, class_="lc-when"))
    step = max(1, -(-(last - first) // MOST_TICKS))
    for year in range(first, last, step):
        parts.append(tag("path", d=f"M{x(date(year, 1, 1)):.1f} {HEAD - 6}V{high}", class_="lc-year"))
        parts.append(tag("text", str(year), x=x(date(year, 1, 1)) + 2, y=high + 12, class_="lc-when"))
    for index, one in enumerate(shown):
        y = HEAD + LINE * index + 10
        parts.append(tag("text", text(_short(one.name, 30)), x=0, y=y + 4, class_="lc-name"))
        for begin, end in one.intervals:
            wide = max(6.0, x(end) - x(begin))
            shape = "pp-agrees" if one.verdict in (AGREES, None) else "pp-apart"
            parts.append(tag("rect", tag("title", text(SIGN.get(one.verdict or "", ""))), x=f"{x(begin):.1f}", y=y - 6,
                             width=f"{wide:.1f}", height=12, class_=shape))  # fmt: skip
    said = "; ".join(f"{one.name} {one.intervals[0][0].isoformat()[:7]}" for one in shown)
    return tag("svg", *parts, class_="pp-line", viewBox=f"0 0 {WIDE:.0f} {high + 16:.0f}", role="img", aria_label=said)


def _short(name: str, most: int) -> str:
    return name if len(name) <= most else name[: most - 1].rstrip() + "…"


def distance_line(history: History, told: Distance, words: Callable[[float], str]) -> str:
    """Draw records over the years; those that are doubted stand hollow beside the run, the end is where it probably is.

    Parameters
    ----------
    history, told : the records and what they say
    words : a distance [km] in the reader's unit
    """
    records = sorted(history.records, key=lambda one: (one.on, one.km))
    doubted = {row for row, _ in told.doubted}
    first = min([records[0].on, *([history.first_used] if history.first_used else [])])
    last = records[-1].on
    most = max([told.km.p90, *(one.km for one in records), 1.0]) * 1.06
    if most > 3 * max(told.km.p90, 1.0):  # a mistyped record of ten times as much would flatten all others
        most = told.km.p90 * 1.5

    def x(day: date) -> float:
        return BESIDE + (WIDE - BESIDE - 30) * (day - first).days / max(1, (last - first).days)

    def y(km: float) -> float:
        return HIGH - FOOT - (HIGH - FOOT - 14) * min(km / most, 1.0)

    parts = [tag("title", "Records of the distance")]
    step = 10.0 ** floor(log10(most)) / 2
    step *= next(times for times in (0.5, 1, 2, 4, 10) if most / (step * times) <= MOST_LINES)
    for at in range(int(most / step) + 1):
        km = at * step
        parts.append(tag("path", d=f"M{BESIDE} {y(km):.1f}H{WIDE - 20}", class_="lc-year"))
        parts.append(tag("text", text(words(km)), x=BESIDE - 10, y=y(km) + 4, text_anchor="end", class_="lc-when"))
    every = max(1, -(-(last.year - first.year + 1) // MOST_TICKS))
    for year in range(first.year + 1, last.year + 1, every):
        parts.append(tag("text", str(year), x=x(date(year, 1, 1)), y=HIGH - 8, text_anchor="middle", class_="lc-when"))
    begin = [(x(history.first_used), y(0.0))] if history.first_used else []
    run = begin + [(x(one.on), y(one.km)) for one in records if one.row not in doubted]
    parts.append(
        tag("path", d="M" + "L".join(f"{a:.1f} {b:.1f}" for a, b in run) if run else "M0 0", class_="wu-course")
    )
    for one in records:
        shape = "pp-doubted" if one.row in doubted else "wu-read"
        said = tag("title", text(f"{one.on.isoformat()}: {words(one.km)}"))
        parts.append(tag("g", said, tag("circle", cx=f"{x(one.on):.1f}", cy=f"{y(one.km):.1f}", r=5, class_=shape)))
    low, high, end = y(told.km.p10), y(told.km.p90), x(last) + 12
    parts.append(tag("path", d=f"M{end:.1f} {low + 2:.1f}V{high - 2:.1f}", class_="lc-median"))
    said = (
        f"{len(records)} records, {len(doubted)} doubted; probably {words(told.km.p10)} to {words(told.km.p90)} in all"
    )
    return tag("svg", *parts, class_="pp-line", viewBox=f"0 0 {WIDE:.0f} {HIGH:.0f}", role="img", aria_label=said)
