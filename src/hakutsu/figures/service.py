"""Service against plan: what was proven when, and where intervals passed without."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import date

from hakutsu.core.service.schedule import ItemStands, Life
from hakutsu.figures.svg import tag, text

WIDE, LEFT, RIGHT, LINE, HEAD = 720.0, 200.0, 20.0, 30.0, 24.0
MOST_TICKS = 10


def service_line(items: Sequence[ItemStands], life: Life, name: Callable[[str], str]) -> str:
    """Draw each item over the years: a dot where it was proven, a bar where an interval passed without it."""
    if not items:
        return ""
    begins = min([int(gap[0]) for one in items for gap in one.gaps] or [life.today.toordinal() - 365])
    first = date.fromordinal(min(begins, life.today.toordinal() - 30))
    span = max(1, life.today.toordinal() - first.toordinal())

    def x(day: float) -> float:
        return LEFT + (WIDE - LEFT - RIGHT) * min(1.0, max(0.0, (day - first.toordinal()) / span))

    high = HEAD + LINE * len(items) + 8
    parts = [tag("title", "Service against plan")]
    step = max(1, -(-(life.today.year - first.year + 1) // MOST_TICKS))
    for year in range(first.year + 1, life.today.year + 1, step):
        at = x(date(year, 1, 1).toordinal())
        parts.append(tag("path", d=f"M{at:.1f} {HEAD - 8}V{high}", class_="lc-year"))
        parts.append(tag("text", str(year), x=at + 2, y=HEAD - 10, class_="lc-when"))
    for index, one in enumerate(items):
        y = HEAD + LINE * index + 14
        words = name(one.item)
        parts.append(tag("text", text(words[:1].upper() + words[1:]), x=0, y=y + 5, class_="lc-name"))
        parts.append(tag("path", d=f"M{LEFT} {y}H{WIDE - RIGHT}", class_="lc-year"))
        for begin, end, missed in one.gaps:
            if missed:
                shape = tag("rect", tag("title", text(f"{missed} not proven")), x=f"{x(begin):.1f}", y=y - 5,
                            width=f"{max(4.0, x(end) - x(begin)):.1f}", height=10, class_="pp-apart")  # fmt: skip
                parts.append(shape)
        for work in one.done:
            day, _ = life.spot(work.on, work.km)
            said = (work.on.isoformat() if work.on else "no date") + f", {work.by}"
            dot = tag("circle", cx=f"{x(day):.1f}", cy=y, r=6, class_="wu-read")
            parts.append(tag("g", tag("title", text(said)), dot))
    told = "; ".join(f"{name(one.item)}: proven {len(one.done)} times, {one.missed} missed" for one in items)
    box = f"0 0 {WIDE:.0f} {high:.0f}"
    return tag("svg", *parts, class_="pp-line", viewBox=box, role="img", aria_label=told)
