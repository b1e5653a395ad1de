"""Fuel trims of each bank on one scale: where they are usual, where they are watched, where they are a fault."""

from __future__ import annotations

from collections.abc import Mapping

from hakutsu.core.scan.rules import TRIM_FAULT, TRIM_WATCH
from hakutsu.figures.svg import tag, text

WIDE, ROW, LEFT, TOP, FOOT = 760.0, 30.0, 80.0, 8.0, 26.0
FURTHEST = 40.0  # per cent to either side
TICKS = (-20, -10, 0, 10, 20)


def bank_trims(live: Mapping[str, float | str | None]) -> list[tuple[str, float, float]]:
    """Banks that gave both trims: name, short and long [%]."""
    found = []
    for bank in ("1", "2"):
        short, long = (live.get(f"{kind}_trim_{bank}_percent") for kind in ("short", "long"))
        if isinstance(short, int | float) and isinstance(long, int | float):
            found.append((f"bank {bank}", float(short), float(long)))
    return found


def trims_drawing(live: Mapping[str, float | str | None]) -> str:
    """Draw the trims; empty where no bank gave both. Long trim is the ring, short and long together the dot."""
    banks = bank_trims(live)
    if not banks:
        return ""
    high = TOP + ROW * len(banks)

    def x(percent: float) -> float:
        share = (min(max(percent, -FURTHEST), FURTHEST) + FURTHEST) / (2 * FURTHEST)
        return LEFT + share * (WIDE - LEFT - 14)

    parts = [
        tag("title", "Fuel trims"),
        tag(
            "rect", x=x(-TRIM_WATCH), y=TOP, width=x(TRIM_WATCH) - x(-TRIM_WATCH), height=high - TOP, class_="wu-usual"
        ),
    ]
    for percent in TICKS:
        limit = abs(percent) == TRIM_FAULT
        parts.append(tag("path", d=f"M{x(percent):.1f} {TOP}V{high}", class_="sc-limit" if limit else "lc-year"))
        words = f"{percent:+d} %" if percent else "0"
        parts.append(tag("text", words, x=x(percent), y=high + 16, text_anchor="middle", class_="lc-when"))
    for i, (name, short, long) in enumerate(banks):
        y = TOP + ROW * (i + 0.5)
        said = tag("title", text(f"{name}: long {long:+.1f} %, short and long together {short + long:+.1f} %"))
        parts.append(tag("text", name, x=LEFT - 8, y=y + 5, text_anchor="end", class_="lc-when"))
        ring = tag("circle", cx=x(long), cy=y, r=6.0, fill="none", stroke="currentColor", stroke_width=1.5)
        parts.append(tag("g", said, ring, tag("circle", cx=x(short + long), cy=y, r=4.5, class_="wu-read")))
    label = "; ".join(f"fuel trim of {name} {short + long:+.0f} %" for name, short, long in banks)
    box = f"0 0 {WIDE:.0f} {high + FOOT:.0f}"
    return tag("svg", *parts, viewBox=box, role="img", aria_label=text(label))
