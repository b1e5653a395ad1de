"""How far a vehicle runs between two records: log of the yearly distance as a wandering state on a grid.

The state is the log of the mean yearly distance within an interval between two records. From one interval to the
next it moves like the means of a Brownian motion (variance a third of each interval), jumps now and then, and an
interval may hold a stop. Source: forward and backward passes of a hidden Markov model, L. R. Rabiner, Proc. IEEE 77
(1989); the model is ours.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from hakutsu.core.papers.tables import RecordRow, RunningRow

Floats = NDArray[np.float64]
STEP = 0.15  # of the grid, in log
GRID: Floats = np.arange(np.log(50.0), np.log(800_000.0), STEP)
YEARLY: Floats = np.exp(GRID)  # distance in a year of each state [km]
APART: Floats = GRID[None, :] - GRID[:, None]
BLUR = 0.6 * STEP  # of a distance at a point of the grid, in log
MOST_STOPS = 0.5  # chance that an interval holds a stop, however long it is
NEVER = 1e-40  # density [1/km] of what the model cannot explain, so that two faults still leave an order
ROOT = np.sqrt(2.0 * np.pi)


def density(away: Floats, sd: Floats | float) -> Floats:
    """Normal density of a distance from the middle."""
    scaled = away / sd
    return np.exp(-0.5 * scaled * scaled) / (sd * ROOT)  # type: ignore[no-any-return]


def log_of(weight: Floats) -> Floats:
    """Log of weights, of nought that of next to nothing."""
    return np.log(np.maximum(weight, 1e-300))


@dataclass(frozen=True, slots=True)
class Running:
    """The model of running, with the numbers of a table."""

    row: RunningRow
    record: RecordRow

    def first(self, years: float) -> Floats:
        """Weights of the states in a first interval of so many years."""
        sd = float(np.sqrt(self.row.spread**2 + self.row.wander**2 * years / 3))
        weight = density(GRID - np.log(self.row.median), sd)
        return weight / weight.sum()  # type: ignore[no-any-return]

    def moves(self, years: Floats) -> Floats:
        """Transition matrices between neighbouring intervals of so many years, n - 1 × states²; rows sum to 1."""
        both = (years[:-1] + years[1:])[:, None, None]
        steady = np.sqrt(self.row.wander**2 * both / 3 + BLUR**2)
        wide = np.sqrt(steady**2 + self.row.jump_spread**2)
        jump = 1 - np.exp(-self.row.jumps * both / 2)
        matrix = (1 - jump) * density(APART, steady) + jump * density(APART, wide)
        return matrix / matrix.sum(axis=2, keepdims=True)  # type: ignore[no-any-return]

    def run(self, years: Floats, km: Floats, noise: Floats) -> Floats:
        """Density [1/km] of distances run in intervals, by state.

        Parameters
        ----------
        years : length of each interval, n
        km : distances by the records, n
        noise : error of each [km], n

        Returns
        -------
        array, n × states
        """
        full = YEARLY[None, :] * years[:, None]
        far, sharp = km[:, None], noise[:, None]
        wide = np.sqrt(sharp * sharp + (BLUR * full) ** 2)
        holds = np.minimum(MOST_STOPS, self.row.stops * (self.row.stop_years + years))[:, None]
        whole = (self.row.stop_years / (self.row.stop_years + 2 * years))[:, None]
        away = (far - full) / wide
        part = (ndtr(far / sharp) - ndtr(away)) / full
        found = np.exp(-0.5 * away * away) * ((1 - holds) / ROOT) / wide
        found += holds * ((1 - whole) * part + whole * density(far, sharp))
        loose = float(self.record.loose)
        apart = np.hypot(wide, self.record.loose_times * sharp + self.record.loose_km)
        found = (1 - loose) * found + loose * density(far - full, apart)
        return np.maximum(found, NEVER)  # type: ignore[no-any-return]
