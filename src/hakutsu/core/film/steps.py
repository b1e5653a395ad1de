"""The display step of a gauge, inferred from the numbers it showed."""

from __future__ import annotations

from collections.abc import Sequence

CANDIDATES_UM = (25.4, 12.7, 10.0, 5.0, 2.54, 2.0)
FEWEST = 10
WITHIN_UM = 0.55  # numbers may have been rounded to whole micrometres on their way


def inferred_step(values_um: Sequence[float]) -> float | None:
    """The coarsest usual step [µm] that all numbers are multiples of; none below ten numbers or without any.

    Ten numbers fall on the multiples of a step by chance with probability below (2 · 0.55 / step)^10, and for whole
    numbers and a step of 2 µm with 1 in 1,000.
    """
    if len(values_um) < FEWEST:
        return None
    for step in CANDIDATES_UM:
        within = min(WITHIN_UM, step / 5)
        if all(abs(value - round(value / step) * step) <= within for value in values_um):
            return step
    return None
