"""A record of acceleration, and its even pieces: stamps may be uneven, repeated or out of order, and have gaps."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

MOST_ROWS = 5_000_000
GAP_STEPS = 6  # a pause longer than so many usual steps is a gap, and nothing is drawn across it
FEWEST = 16
FINER = 4
LONGEST_S = 600.0
USABLE_SHARE = 0.48  # of the rate: nearer to half of it nothing tells a tone from its own alias


@dataclass(frozen=True, slots=True)
class Record:
    """Acceleration over time.

    `t` [s] of shape (n,), `a` [m/s²] of shape (n, 3); orientation unknown, gravity included.
    """

    t: Floats
    a: Floats


@dataclass(frozen=True, slots=True)
class EvenRecord:
    """Pieces between gaps, each with its start [s], the mean taken away, on a grid `FINER` times the rate."""

    rate_hz: float
    pieces: tuple[tuple[float, Floats], ...]
    warnings: tuple[str, ...]

    @property
    def grid_hz(self) -> float:
        """The rate of the grid."""
        return FINER * self.rate_hz

    @property
    def usable_hz(self) -> float:
        """The highest frequency that can be read from it."""
        return USABLE_SHARE * self.rate_hz


def even(record: Record) -> EvenRecord | None:
    """The record at an even rate, cut at its gaps; nothing where it has no rate.

    Rows of one stamp count once, as their mean; a very long record is read in its middle ten minutes.
    """
    warnings = []
    t, a = record.t, record.a
    if np.any(np.diff(t) < 0):
        order = np.argsort(t, kind="stable")
        t, a = t[order], a[order]
        warnings.append("stamps run backwards in places: rows were put in order")
    t, a = _once(t, a)
    if len(t) < FEWEST:
        return None
    steps = np.diff(t)
    usual = float(np.median(steps))
    step = _step(steps, usual)
    if t[-1] - t[0] > LONGEST_S:
        middle = (t[0] + t[-1]) / 2
        kept = np.abs(t - middle) <= LONGEST_S / 2
        t, a = t[kept], a[kept]
        steps = np.diff(t)
        warnings.append("longer than ten minutes: its middle was read")
    breaks = np.flatnonzero(steps > GAP_STEPS * step) + 1
    pieces = []
    for part_t, part_a in zip(np.split(t, breaks), np.split(a, breaks), strict=True):
        if len(part_t) >= FEWEST:
            pieces.append((float(part_t[0]), _evenly(part_t, part_a, step)))
    if len(breaks):
        said = "a gap" if len(breaks) == 1 else f"{len(breaks)} gaps"
        warnings.append(f"{said} in the record: read piece by piece")
    return EvenRecord(1.0 / step, tuple(pieces), tuple(warnings)) if pieces else None


def _step(steps: Floats, usual: float) -> float:
    """The usual step [s]: of stamps that jitter, with rows left out between them, but without gaps."""
    step = usual
    for _ in range(2):
        counts = np.round(steps / step)
        near = counts <= GAP_STEPS
        step = float(steps[near].sum() / max(1.0, counts[near].sum()))
    return step


def _once(t: Floats, a: Floats) -> tuple[Floats, Floats]:
    if not np.any(np.diff(t) == 0):
        return t, a
    stamps, start = np.unique(t, return_index=True)
    counts = np.diff(np.append(start, len(t)))
    return stamps, np.add.reduceat(a, start, axis=0) / counts[:, None]


def _evenly(t: Floats, a: Floats, step: float) -> Floats:
    """Rows shared out between their two neighbours on a finer even grid (Press and Rybicki 1989): unlike a curve drawn
    through them it makes no noise of its own out of uneven stamps.
    """
    fine = step / FINER
    at = (t - t[0]) / fine
    left = at.astype(int)
    share = (at - left)[:, None]
    level = a - a.mean(axis=0)
    read = np.zeros((left[-1] + 2, a.shape[1]))
    np.add.at(read, left, level * (1 - share))
    np.add.at(read, left + 1, level * share)
    return read
