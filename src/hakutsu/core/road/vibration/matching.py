"""Which source a recorded vibration fits, with what probability."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from hakutsu.core.road.vibration.explaining import Tone, explained
from hakutsu.core.road.vibration.record import EvenRecord, Record, even
from hakutsu.core.road.vibration.sources import SD, Source, Stated, sources
from hakutsu.core.road.vibration.spectrum import Standing, standing_out
from hakutsu.core.road.vibration.tracking import ToneDensity, followed, tone_density

Floats = NDArray[np.float64]

MOST_TONES = 3
SURE = 10.0
COURSE_SD = 0.006
GOES_ON = 4.0  # log evidence from which a tone is taken away and the rest looked at
NONE_UNREAD = 1.0


@dataclass(frozen=True, slots=True)
class Peak:
    """A tone that stands out: its frequency [Hz] and peak amplitude [m/s²]."""

    hz: float
    amplitude: float


@dataclass(frozen=True, slots=True)
class Candidate:
    """A source, the frequency it has or was found at [Hz], and its probability."""

    source: str
    hz: float
    probability: float


@dataclass(frozen=True, slots=True)
class Match:
    """What the record says. `standing` is what it was read from, nothing where it could not be read."""

    sample_rate_hz: float
    highest_usable_hz: float
    peaks: tuple[Peak, ...]
    candidates: tuple[Candidate, ...]
    none: float
    warnings: tuple[str, ...]
    standing: Standing | None = None


def match_vibration(record: Record, stated: Stated) -> Match:
    """Match a record with what turns at the stated speed.

    Parameters
    ----------
    record : stamps [s] and accelerations [m/s²]
    stated : speed, rolling circumference, final drive, engine speed

    Returns
    -------
    Match : candidates with probabilities that add up to one with `none`

    Source: ours; tones followed by a hidden Markov model, explanations weighed by Bayes.
    """
    every = sources(stated)
    flat = even(record)
    if flat is None:
        return Match(0.0, 0.0, (), (), NONE_UNREAD, ("too few rows to read a rate",))
    standing = standing_out(flat)
    warnings = [*flat.warnings, *_above(every, flat)]
    blank = Match(flat.rate_hz, flat.usable_hz, (), (), NONE_UNREAD, tuple(warnings))
    if standing is None:
        return replace(blank, warnings=(*warnings, "too short to follow anything in it"))
    tones = _tones(standing)
    shares, _ = explained(tones, every, flat)
    found = [Candidate(key, _hz_of(key, every, tones), share) for key, share in shares.items() if share > 5e-4]
    found.sort(key=lambda one: -one.probability)
    none = max(0.0, 1.0 - sum(one.probability for one in found))  # with what is too little to be named
    peaks = tuple(
        _peak(standing, tone) for at, tone in enumerate(tones) if tone.evidence > 0 or (at == 0 and none < 0.5)
    )
    return replace(blank, peaks=peaks, candidates=tuple(found), none=none, standing=standing)


def _above(every: Sequence[Source], flat: EvenRecord) -> list[str]:
    high = [one.key for one in every if one.hz > flat.usable_hz]
    if not high:
        return []
    return [f"above what {flat.rate_hz:.0f} samples a second can show ({flat.usable_hz:.0f} Hz): {', '.join(high)}"]


def _tones(standing: Standing) -> list[Tone]:
    """The strongest tone, and what stands out beside it once it is taken away."""
    found = []
    rest = standing
    for _ in range(MOST_TONES):
        density = tone_density(rest)
        best = int(density.log_ratio.argmax())
        spread = np.log(np.mean(np.exp(density.log_ratio - density.log_ratio[best])))
        evidence = float(density.log_ratio[best] + spread)
        course = followed(rest, float(density.hz[best]))
        hz = float(np.exp(np.mean(np.log(density.hz[course]))))
        found.append(Tone(hz, evidence, _settled(density, hz, evidence) if evidence > SURE else density))
        if evidence < GOES_ON:
            break
        rest = _without(rest, course)
    return found


def _settled(density: ToneDensity, hz: float, evidence: float) -> ToneDensity:
    """The density of a tone that is sure: as its course tells it, not its strength; a course errs by its wandering."""
    shape = -0.5 * (np.log(density.hz / hz) / COURSE_SD) ** 2
    share = float(np.log(np.mean(np.exp(shape))))
    return replace(density, log_ratio=shape - share + evidence)


def _without(standing: Standing, course: NDArray[np.intp]) -> Standing:
    """The same with the tone on that course taken away, as far as its skirts reach."""
    z = standing.z.copy()
    for row, place in zip(z, course, strict=True):
        limit = max(9.0, 0.01 * row[place])
        wide = max(4, round(0.6 / standing.hz[place] / 0.002))
        left, right = place, place
        while left > 0 and (row[left - 1] > limit or place - left < wide):
            left -= 1
        while right < len(row) - 1 and (row[right + 1] > limit or right - place < wide):
            right += 1
        row[left : right + 1] = np.minimum(row[left : right + 1], 5.0)
    return replace(standing, z=z)


def _hz_of(key: str, every: Sequence[Source], tones: Sequence[Tone]) -> float:
    if key == "other":
        return tones[0].hz
    source = next(one for one in every if one.key == key)
    near = [tone.hz for tone in tones if abs(tone.hz / source.hz - 1) < 4 * SD[source.family]]
    return near[0] if near else source.hz


def _peak(standing: Standing, tone: Tone) -> Peak:
    course = followed(standing, tone.hz)
    rows = np.arange(len(course))
    return Peak(tone.hz, float(np.median(standing.amplitude[rows, course])))
