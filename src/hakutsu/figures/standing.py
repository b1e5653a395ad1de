"""A thing against what is usual: a short scale, best at the left, the usual step open and the one seen filled."""

from __future__ import annotations

from hakutsu.figures.svg import tag, text

WIDE, HIGH, EDGE = 120.0, 22.0, 10.0


def standing_scale(seen: int, usual: int, steps: int, words: str) -> str:
    """Draw a scale of so many steps; `words` say the same for those who do not see it."""
    apart = (WIDE - 2 * EDGE) / (steps - 1)

    def x(step: int) -> float:
        return EDGE + step * apart

    y = HIGH / 2
    ticks = "".join(f"M{x(i):.1f} {y - 4:.1f}v8" for i in range(steps))
    parts = [
        tag("title", text(words)),
        tag("path", d=f"M{EDGE} {y}H{WIDE - EDGE}{ticks}", class_="st-line"),
        tag("rect", x=x(usual) - 7, y=y - 8, width=14, height=16, class_="st-usual"),
        tag("circle", cx=x(seen), cy=y, r=5, class_="st-seen"),
    ]
    return tag("svg", *parts, class_="standing", viewBox=f"0 0 {WIDE:.0f} {HIGH:.0f}", role="img", aria_label=words)
