"""Spending within 12, 24 and 36 months: the span of the total, its middle, its mean."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from hakutsu.core.life.money import Spending
from hakutsu.figures.svg import tag, text

NAMES, WIDE, TOP, EACH = 112.0, 600.0, 12.0, 54.0


def _tick_step(most: float) -> float:
    """A round step that makes three to eight ticks."""
    step = 1.0
    while most / step > 8:
        for factor in (2, 2.5, 2):
            step *= factor
            if most / step <= 8:
                break
    return step


def spending_figure(rows: Sequence[Spending], money: Callable[[float], str]) -> str:
    """Draw one bar a horizon; `money` writes an amount."""
    most = max((row.p90 for row in rows), default=0.0) * 1.08 or 1.0
    high = TOP + EACH * len(rows) + 26

    def x(amount: float) -> float:
        return NAMES + amount / most * (WIDE - NAMES - 30)

    parts = [tag("title", "Spending within 12, 24 and 36 months")]
    step, at = _tick_step(most), 0.0
    while at <= most:
        parts.append(tag("path", d=f"M{x(at):.1f} {TOP}V{high - 22:.0f}", class_="lc-year"))
        parts.append(tag("text", text(money(at)), x=x(at), y=high - 5, text_anchor="middle", class_="lc-when"))
        at += step
    for i, row in enumerate(rows):
        parts.append(_bar(row, TOP + EACH * (i + 0.5), x, money))
    label = "; ".join(
        f"{row.months} months: {money(row.p10)} to {money(row.p90)}, middle {money(row.p50)}" for row in rows
    )
    return tag("svg", *parts, class_="spending", viewBox=f"0 0 {WIDE:.0f} {high:.0f}", role="img", aria_label=label)


def _bar(row: Spending, y: float, x: Callable[[float], float], money: Callable[[float], str]) -> str:
    left, middle, right, mean = x(row.p10), x(row.p50), x(row.p90), x(row.mean)
    said = f"{row.months} months: mean {money(row.mean)}"
    return tag(
        "g",
        tag("title", text(said)),
        tag("text", text(f"{row.months} months"), x=NAMES - 12, y=y + 5, text_anchor="end", class_="lc-name"),
        tag("rect", x=left, y=y - 9, width=max(right - left, 1.0), height=18.0, class_="sp-span"),
        tag("path", d=f"M{middle:.1f} {y - 14}V{y + 14}", class_="lc-median"),
        tag("path", d=f"M{mean:.1f} {y - 6}l6 6l-6 6l-6 -6Z", class_="sp-mean"),
    )
