"""A matched record of acceleration as the logbook keeps it."""

from __future__ import annotations

import re

import numpy as np

from hakutsu.core.road.measured import source_words
from hakutsu.core.road.vibration import Match, Stated
from hakutsu.entries.road import Felt, Told, Tone, VibrationRecorded

DRAWN = 300  # points of the spectrum
KEY = re.compile(r"\b(?:tyre|propshaft|engine)_[\d.]*\d")


def kept_match(match: Match, stated: Stated, file: str, felt: Felt = Felt.UNKNOWN) -> VibrationRecorded:
    """A match as it is kept in the logbook, its spectrum thinned for the drawing."""
    hz, amplitude = _spectrum(match)
    return VibrationRecorded(
        file=file, kmh=stated.speed_kmh, rolling_m=stated.rolling_m, final_drive=stated.final_drive, rpm=stated.rpm,
        felt=felt, rate_hz=round(match.sample_rate_hz, 3), usable_hz=round(match.highest_usable_hz, 3),
        peaks=tuple(Tone(hz=round(one.hz, 3), amplitude=round(one.amplitude, 5)) for one in match.peaks),
        candidates=tuple(
            Told(source=one.source, hz=round(one.hz, 3), probability=round(min(1.0, one.probability), 5))
            for one in match.candidates
        ),
        none=round(min(1.0, max(0.0, match.none)), 5), warnings=tuple(map(_worded, match.warnings[:8])),
        hz=hz, amplitude=amplitude,
    )  # fmt: skip


def _worded(warning: str) -> str:
    return KEY.sub(lambda key: source_words(key[0]), warning)


def _spectrum(match: Match) -> tuple[tuple[float, ...], tuple[float, ...]]:
    if match.standing is None:
        return (), ()
    hz, mean = match.standing.hz, np.sqrt(np.mean(match.standing.amplitude**2, axis=0))
    parts = np.array_split(np.arange(len(hz)), min(DRAWN, len(hz)))
    tops = [int(part[np.argmax(mean[part])]) for part in parts]
    return tuple(round(float(hz[one]), 3) for one in tops), tuple(round(float(mean[one]), 6) for one in tops)
