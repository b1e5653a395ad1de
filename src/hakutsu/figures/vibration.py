"""The spectrum of a recorded vibration, with what turns at that speed as bands as wide as it is uncertain."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from math import log

from hakutsu.core.road.measured import source_words
from hakutsu.core.road.vibration.sources import SD, Stated, sources
from hakutsu.entries.road import VibrationRecorded
from hakutsu.figures.svg import tag, text

WIDE, HIGH, LEFT, TOP, FOOT = 760.0, 320.0, 54.0, 16.0, 76.0
TICKS_HZ = (5, 10, 20, 50, 100, 200)
BAND_SD = 1.28  # of eight in ten
SHORT = {"tyre": "T", "propshaft": "S", "engine": "E"}


def vibration_spectrum(body: VibrationRecorded) -> str:
    """Draw amplitude over frequency [Hz, logarithmic]; peaks are marked, each band says which part and order it is."""
    if len(body.hz) < 2:
        return ""
    low, high = log(body.hz[0]), log(max(body.hz[-1], body.hz[0] * 1.5))
    most = max([*body.amplitude, 1e-9]) * 1.1

    def x(hz: float) -> float:
        share = (log(max(hz, 1e-3)) - low) / (high - low)
        return LEFT + min(max(share, 0.0), 1.0) * (WIDE - LEFT - 12)

    def y(amplitude: float) -> float:
        return HIGH - FOOT - min(amplitude / most, 1.0) * (HIGH - FOOT - TOP)

    parts = [tag("title", "Spectrum of the record"), *_bands(body, x)]
    for hz in (one for one in TICKS_HZ if body.hz[0] <= one <= body.hz[-1]):
        parts.append(tag("path", d=f"M{x(hz):.1f} {TOP}V{HIGH - FOOT}", class_="lc-year"))
        parts.append(tag("text", f"{hz} Hz", x=x(hz), y=HIGH - FOOT + 16, text_anchor="middle", class_="lc-when"))
    line = "M" + "L".join(f"{x(hz):.1f} {y(one):.1f}" for hz, one in zip(body.hz, body.amplitude, strict=True))
    parts.append(tag("path", d=line, class_="wu-course"))
    for peak in body.peaks:
        said = tag("title", text(f"{peak.hz:.1f} Hz, {peak.amplitude:.2g} m/s²"))
        parts.append(tag("g", said, tag("circle", cx=x(peak.hz), cy=y(peak.amplitude), r=4.5, class_="wu-read")))
    parts.append(tag("text", text(f"{most:.2g} m/s²"), x=LEFT, y=TOP - 3, class_="lc-when"))
    label = f"Spectrum, peaks at {', '.join(f'{one.hz:.1f} Hz' for one in body.peaks) or 'none'}"
    return tag("svg", *parts, class_="warm-up", viewBox=f"0 0 {WIDE:.0f} {HIGH:.0f}", role="img", aria_label=label)


def _bands(body: VibrationRecorded, place: Callable[[float], float]) -> Sequence[str]:
    found, ends = [], [LEFT - 1.0] * 3
    stated = Stated(max(body.kmh, 1.0), body.rolling_m, body.final_drive, body.rpm or None)
    for one in sorted(sources(stated), key=lambda one: one.hz):
        left, right = (place(one.hz * (1 + way * BAND_SD * SD[one.family])) for way in (-1, 1))
        if one.hz > body.usable_hz or right - left < 1:
            continue
        words = f"{SHORT[one.part]}{one.order:g}"
        row = next((index for index, end in enumerate(ends) if left > end), 2)
        ends[row] = left + 9 * len(words) + 4
        shape = tag(
            "rect", x=f"{left:.1f}", y=TOP, width=f"{right - left:.1f}", height=HIGH - FOOT - TOP, class_="wu-usual"
        )
        at = HIGH - FOOT + 34 + 16 * row
        found.append(tag("g", tag("title", text(f"{source_words(one.key)}: {one.hz:.1f} Hz")), shape,
                         tag("text", words, x=f"{left:.1f}", y=at, class_="lc-when")))  # fmt: skip
    return found
