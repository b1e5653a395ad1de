"""How much stands out of the noise, by time and frequency: short spectra on a grid of even ratios of frequency."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.fft import rfft
from scipy.ndimage import maximum_filter1d, median_filter, uniform_filter1d
from scipy.signal.windows import hann

from hakutsu.core.road.vibration.record import FINER, EvenRecord

Floats = NDArray[np.float64]

LOWEST_HZ = 3.0
RATIO = 0.002  # steps of the grid, as a share of the frequency
WINDOWS_S = (1.6, 2.6, 4.2)  # short where a frequency wanders fast, long where it is low
WINDOW_UP_TO_HZ = (1e9, 45.0, 14.0)
HOP_S = 1.0
ALONE = 0.7  # what a window counts that shares half its samples with the next
PADDED = 4
FLOOR_SHARE = 0.18  # the noise beside a frequency is what is usual within so much of it
FLOOR_LEAST_HZ = 2.5
CLOSE_BINS = 2.0
ROUND_ABOUT_WINDOWS = 5
COVERED_BINS = 2.0  # a tone covers so many windows' widths to either side, and so much of its frequency as it wanders
COVERED_SHARE = 0.02
SKIRT = 0.004  # what is weaker than so much of the strongest beside it may be its skirt


@dataclass(frozen=True, slots=True)
class Standing:
    """What stands out: `hz` (f,), `z` (t, f) twice the power over the noise, of three axes together (of noise alone
    chi-square with six degrees of freedom); `amplitude` (t, f) peak [m/s²]; `at` (t,) [s]; `counts` (f,) what a window
    counts, as it shares samples with its neighbours.
    """

    hz: Floats
    z: Floats
    amplitude: Floats
    at: Floats
    counts: Floats


def standing_out(record: EvenRecord) -> Standing | None:
    """Spectra of the record, every second; nothing where no window fits into a piece."""
    hz = np.exp(np.arange(np.log(LOWEST_HZ), np.log(record.usable_hz), RATIO))
    if hz.size == 0:
        return None
    lengths = _lengths(record)
    if not lengths:
        return None
    at = _middles(record, max(lengths))
    z, amplitude = np.zeros((len(at), len(hz))), np.zeros((len(at), len(hz)))
    counts = np.zeros(len(hz))
    low = 0.0
    for length, up_to in sorted(zip(lengths, WINDOW_UP_TO_HZ, strict=False), key=lambda one: one[1]):
        mine = (hz >= low) & (hz < up_to)
        low = up_to
        if mine.any():
            counts[mine] = ALONE * min(1.0, HOP_S / (0.5 * length))
            z[:, mine], amplitude[:, mine] = _spectra(record, at, length, hz[mine])
    return Standing(hz, z, amplitude, at, counts)


def _lengths(record: EvenRecord) -> list[float]:
    """The windows, shortened to the longest piece; none where that is shorter than the shortest."""
    longest = max(len(piece) for _, piece in record.pieces) / record.grid_hz
    if longest < WINDOWS_S[0]:
        return []
    return [min(one, longest) for one in WINDOWS_S]


def _middles(record: EvenRecord, length: float) -> Floats:
    """Middles of the windows: every second, whole within a piece."""
    found = []
    for start, piece in record.pieces:
        lasts = len(piece) / record.grid_hz
        if lasts >= length:
            found.append(start + length / 2 + np.arange(0.0, lasts - length + 1e-9, HOP_S))
    middles: Floats = np.concatenate(found)
    return middles


def _spectra(record: EvenRecord, at: Floats, length: float, hz: Floats) -> tuple[Floats, Floats]:
    count = int(length * record.grid_hz)
    window = hann(count, sym=False)
    padded = int(2 ** np.ceil(np.log2(PADDED * count)))
    step = record.grid_hz / padded
    kept = min(padded // 2, int(record.rate_hz / 2 / step)) + 1
    power = np.stack([_powers(one, window, padded, kept) for one in _cut(record, at, length, count)])
    floor = _floor(power, step, length)
    bins = hz / step
    left = np.minimum(bins.astype(int), power.shape[1] - 2)
    right_share = bins - left

    def on_grid(values: Floats) -> Floats:
        shared: Floats = values[..., left] * (1 - right_share) + values[..., left + 1] * right_share
        return shared

    z = np.sum(2 * on_grid(np.moveaxis(power, 2, 0)) / on_grid(np.moveaxis(floor, 2, 0)), axis=0)
    amplitude = 2 * FINER * np.sqrt(on_grid(power.sum(axis=2))) / window.sum() / np.sinc(hz / record.grid_hz) ** 2
    return z, amplitude


def _cut(record: EvenRecord, at: Floats, length: float, count: int) -> list[Floats]:
    windows = []
    for middle in at:
        start, piece = next(one for one in reversed(record.pieces) if one[0] <= middle)
        first = max(0, min(round((middle - length / 2 - start) * record.grid_hz), len(piece) - count))
        windows.append(piece[first : first + count])
    return windows


def _powers(piece: Floats, window: Floats, padded: int, kept: int) -> Floats:
    spectrum = rfft(piece * window[:, None], padded, axis=0)[:kept]
    power: Floats = np.abs(spectrum) ** 2
    return power


def _floor(power: Floats, step: float, length: float) -> Floats:
    """The noise by time, frequency and axis: what is usual beside a frequency, louder where the whole window is, and
    never below the skirt of what stands highest near it.
    """
    mean = power.mean(axis=0)
    beside = np.stack([_usual_beside(mean[:, axis], step) for axis in range(mean.shape[1])], axis=1)
    beside = np.maximum(beside, _close_by(mean, step, length))
    beside = np.maximum(beside, 1e-9 * beside.max() + 1e-30)
    loud = np.median(power / beside, axis=1, keepdims=True) / np.log(2)
    loud = np.clip(loud, 0.5, 1e6)
    floor = np.maximum(beside[None], _round_about(power / loud, step, length)) * loud
    total = power.sum(axis=2)
    around = int(6.0 / step)
    skirt = SKIRT * maximum_filter1d(total, size=max(3, 2 * around + 1), axis=1)
    result: Floats = np.maximum(floor, skirt[..., None] / 3)
    return result


def _close_by(mean: Floats, step: float, length: float) -> Floats:
    """The lower of what lies just below and just above a frequency, past what a tone may cover: a hump is no tone."""
    hz = np.arange(len(mean)) * step
    size = max(3, round(CLOSE_BINS / length / step))
    smooth = uniform_filter1d(mean, size, axis=0, mode="nearest")
    away = (COVERED_BINS / length + COVERED_SHARE * hz) / step + size / 2
    index = np.arange(len(mean))
    below = np.clip(index - away, 0, len(mean) - 1).astype(int)
    above = np.clip(index + away, 0, len(mean) - 1).astype(int)
    lower: Floats = np.minimum(smooth[below], smooth[above])
    return lower


def _round_about(power: Floats, step: float, length: float) -> Floats:
    """What lies round a frequency in the same seconds, past what a tone may cover in one window."""
    seconds = uniform_filter1d(power, ROUND_ABOUT_WINDOWS, axis=0, mode="nearest")
    size = max(3, round(CLOSE_BINS / length / step))
    smooth = uniform_filter1d(seconds, size, axis=1, mode="nearest")
    away = round(COVERED_BINS / length / step + size / 2)
    index = np.arange(power.shape[1])
    below, above = np.clip(index - away, 0, None), np.clip(index + away, None, power.shape[1] - 1)
    found: Floats = (smooth[:, below] + smooth[:, above]) / 2
    return found


def _usual_beside(mean: Floats, step: float) -> Floats:
    """A median over frequencies whose width grows with the frequency."""
    size = len(mean)
    widths = np.maximum(FLOOR_LEAST_HZ, FLOOR_SHARE * np.arange(size) * step)
    found = np.empty(size)
    known = sorted({float(one) for one in np.geomspace(widths[0], max(widths[-1], widths[0] * 1.001), 6)})
    medians = [median_filter(mean, size=2 * max(3, int(one / step)) + 1, mode="reflect") for one in known]
    for index, width in enumerate(widths):
        found[index] = medians[int(np.searchsorted(known, width - 1e-9))][index] if index else medians[0][0]
    return found
