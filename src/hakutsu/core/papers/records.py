"""Dated readings of the distance, as they were written down."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

import numpy as np
from numpy.typing import NDArray

from hakutsu.vehicle.papers import RecordSource
from hakutsu.vehicle.quantities import scales

Floats = NDArray[np.float64]

KM_PER_MILE = float(scales("distance")["mi"].factor)
KINDS = ("consistent", "rolled_back", "replaced", "unit_slip", "digit_slip", "rolled_over")
SOURCES = tuple(one.value for one in RecordSource)
DELIVERY, MODULE, DIAL = RecordSource.DELIVERY.value, RecordSource.MODULE.value, RecordSource.DIAL_NOW.value
PER_UNIT = {"km": 1.0, "mi": KM_PER_MILE}
A_DAY = 1 / 365.25


@dataclass(frozen=True, slots=True)
class Record:
    """A dated reading: `value` in `unit`, `row` names it."""

    row: int | str
    on: date
    value: float
    unit: str
    source: str

    @property
    def km(self) -> float:
        """As it stands, in km."""
        return self.value * PER_UNIT[self.unit]


@dataclass(frozen=True, slots=True)
class History:
    """Readings of one vehicle; the day it was first used, none if not told: then it begins with its first reading."""

    records: tuple[Record, ...]
    dial_digits: int
    first_used: date | None


def written_wrong(value: float, ways: dict[str, int | float]) -> tuple[Floats, Floats]:
    """Numbers that may have been meant by one written wrongly, and the chance that each comes out as it.

    Parameters
    ----------
    value : as written, in the unit of the record
    ways : share of each way a number goes wrong: swapped, left_out, too_many, wrong

    Returns
    -------
    numbers and chances, of one length; a number that goes wrong in several ways is there several times
    """
    number = int(value)
    size = len(str(number))
    place = 10 ** np.arange(size + 1)
    digit = np.arange(10)
    above, below = number // place, number % place
    here = above[:size] % 10
    swapped = number + (here[1:] - here[:-1]) * (place[: size - 1] - place[1:size])
    too_many = above[1:] * place[:size] + below[:size]
    wrong = number + ((digit[None, :] - here[:, None]) * place[:size, None]).ravel()
    left_out = ((above * place * 10 + below)[:, None] + digit[None, :] * place[:, None]).ravel()
    meant = np.concatenate([swapped, too_many, wrong, left_out])
    each = (("swapped", swapped.size, size - 1), ("too_many", size, size * 10), ("wrong", wrong.size, size * 9),
            ("left_out", left_out.size, size + 1))  # fmt: skip
    chance = np.concatenate([np.full(count, float(ways[way]) / max(1, among)) for way, count, among in each])
    told = meant != number
    return meant[told].astype(float), chance[told]
