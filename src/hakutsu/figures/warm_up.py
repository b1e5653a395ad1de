"""The warm-up curve: readings, the fitted course with its band, where it usually settles, where it stops."""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np

from hakutsu.core.engine.warm_up import Sample, WarmUp, warm_up_table
from hakutsu.figures.svg import tag, text
from hakutsu.vehicle.heat import heat_limits
from hakutsu.vehicle.terms import PLAIN, Terms

Place = Callable[[float], float]
WIDE, HIGH, LEFT, TOP, FOOT = 760.0, 330.0, 62.0, 14.0, 34.0
COLDEST, HOTTEST = -10.0, 130.0
LEAST_MINUTES = 30.0
TICKS_C = (0, 25, 50, 75, 100)


def warm_up_curve(samples: Sequence[Sample], fit: WarmUp | None, terms: Terms = PLAIN) -> str:
    """Draw a run; samples far from the course are crossed out, without a fit only the readings stand."""
    usual, stop = warm_up_table()["usual"], heat_limits().stop_c
    span = max([LEAST_MINUTES, *(one.minute + 2 for one in samples)])

    def x(minute: float) -> float:
        return LEFT + minute / span * (WIDE - LEFT - 14)

    def y(degrees: float) -> float:
        share = (min(max(degrees, COLDEST), HOTTEST) - COLDEST) / (HOTTEST - COLDEST)
        return HIGH - FOOT - share * (HIGH - FOOT - TOP)

    scale = terms.scale("temperature")
    high, low = y(usual["high_c"]), y(usual["low_c"])
    parts = [
        tag("title", "Warming up"),
        tag("rect", x=LEFT, y=high, width=WIDE - LEFT - 14, height=low - high, class_="wu-usual"),
        tag("path", d=f"M{LEFT} {y(stop):.1f}H{WIDE - 14}", class_="sc-limit"),
        tag("text", text(f"stop {scale.number(stop)}"), x=LEFT + 4, y=y(stop) - 4, class_="lc-when"),
    ]
    parts.append(tag("text", text(scale.label), x=LEFT - 8, y=TOP, text_anchor="end", class_="lc-when"))
    for degrees in TICKS_C:
        parts.append(tag("path", d=f"M{LEFT} {y(degrees):.1f}H{WIDE - 14}", class_="lc-year"))
        words = scale.number(degrees)
        parts.append(tag("text", text(words), x=LEFT - 8, y=y(degrees) + 5, text_anchor="end", class_="lc-when"))
    for minute in range(0, int(span) + 1, 5 if span <= 60 else 15):
        anchor = "end" if x(minute) > WIDE - 40 else "middle"
        parts.append(tag("text", f"{minute} min", x=x(minute), y=HIGH - 8, text_anchor=anchor, class_="lc-when"))
    if fit is not None:
        parts += _fitted(fit, span, x, y)
    wrong = fit.wrong if fit is not None else (False,) * len(samples)
    for one, odd in zip(sorted(samples, key=lambda one: one.minute), wrong, strict=True):
        cx, cy = x(one.minute), y(one.coolant_c)
        said = tag("title", text(f"{one.minute:g} min: {scale.words(one.coolant_c)}{', does not fit' if odd else ''}"))
        if odd:
            cross = f"M{cx - 5:.1f} {cy - 5:.1f}l10 10M{cx + 5:.1f} {cy - 5:.1f}l-10 10"
            parts.append(tag("g", said, tag("path", d=cross, class_="wu-wrong")))
        else:
            parts.append(tag("g", said, tag("circle", cx=cx, cy=cy, r=4.0, class_="wu-read")))
    label = f"Warm-up: {len(samples)} readings"
    return tag("svg", *parts, class_="warm-up", viewBox=f"0 0 {WIDE:.0f} {HIGH:.0f}", role="img", aria_label=label)


def _fitted(fit: WarmUp, span: float, x: Place, y: Place) -> list[str]:
    minutes = np.linspace(0, span, 61)
    low, high = fit.band(minutes)

    def points(values: Sequence[float]) -> list[str]:
        return [f"{x(m):.1f} {y(v):.1f}" for m, v in zip(minutes, values, strict=True)]

    band = "M" + "L".join(points(list(low)) + points(list(high))[::-1]) + "Z"
    line = "M" + "L".join(points(list(fit.at(minutes))))
    return [tag("path", d=band, class_="wu-band"), tag("path", d=line, class_="wu-course")]
