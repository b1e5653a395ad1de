"""The time strip: a plan as a row of steps along the clock, with waits between them and the now-line."""

from __future__ import annotations

from datetime import datetime, timedelta

from hakutsu.core.runsheet import Plan
from hakutsu.figures.svg import tag, text
from hakutsu.vehicle.terms import PLAIN, Terms

WIDE = 960.0
HIGH = 74.0
TOP = 22.0
BAR = 30.0
NARROWEST_LABEL = 26.0
TICK_MINUTES = 15


def time_strip(plan: Plan, begin: datetime, now: datetime, terms: Terms = PLAIN) -> str:
    """Draw a plan that starts at `begin`; the now-line stands at `now`."""
    begin = terms.local(begin)
    span = max(plan.finish, 30.0)
    scale = WIDE / span

    def x(minutes: float) -> float:
        return minutes * scale

    label = f"Plan of {len(plan.steps)} steps, from {begin:%H:%M} to {begin + timedelta(minutes=plan.finish):%H:%M}"
    parts = [tag("title", text(label)), *_ticks(begin, span, x)]
    for start, end in plan.waits:
        parts.append(tag("path", d=f"M{x(start):.1f} {TOP + BAR / 2}H{x(end):.1f}", class_="ts-wait"))
    for i, one in enumerate(plan.steps):
        left, width = x(one.start), max(x(one.end) - x(one.start) - 1.5, 1.5)
        said = f"{begin + timedelta(minutes=one.start):%H:%M} {terms.say(one.step.name)}"
        box = tag("rect", x=left, y=TOP, width=width, height=BAR, class_="ts-step")
        number = tag("text", str(i + 1), x=left + width / 2, y=TOP + 20, text_anchor="middle", class_="ts-number")
        parts.append(tag("g", tag("title", text(said)), box, number if width > NARROWEST_LABEL / 2 else ""))
    passed = (now - begin).total_seconds() / 60
    if 0 <= passed <= span:
        parts.append(tag("path", d=f"M{x(passed):.1f} {TOP - 8}V{TOP + BAR + 8}", class_="ts-now"))
    return tag(
        "svg", *parts, class_="time-strip", viewBox=f"-4 0 {WIDE + 8:.0f} {HIGH:.0f}", role="img", aria_label=label
    )


def _ticks(begin: datetime, span: float, x: object) -> list[str]:
    step = TICK_MINUTES if span <= 150 else 2 * TICK_MINUTES if span <= 300 else 4 * TICK_MINUTES
    first = -(begin.minute % step) + (step if begin.minute % step else 0)
    found = []
    at = float(first)
    while at <= span:
        place = at * WIDE / span
        found.append(tag("path", d=f"M{place:.1f} {TOP - 4}V{TOP + BAR + 4}", class_="ts-tick"))
        when = begin + timedelta(minutes=at)
        anchor = "start" if place < 20 else "end" if place > WIDE - 20 else "middle"
        words = tag("text", f"{when:%H:%M}", x=place, y=HIGH - 2, text_anchor=anchor, class_="ts-clock")
        found.append(words)
        at += step
    return found
