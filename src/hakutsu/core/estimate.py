"""An uncertain result: its median, its interval, and from what it was computed."""

from __future__ import annotations

from dataclasses import dataclass
from statistics import NormalDist

COVERAGE = 0.8
Z80 = NormalDist().inv_cdf((1 + COVERAGE) / 2)  # half of an 80 % interval in standard deviations


@dataclass(frozen=True, slots=True)
class Estimate:
    """Median, lowest and highest of an interval that holds the truth with probability `coverage`, and its basis."""

    median: float
    low: float
    high: float
    coverage: float = COVERAGE
    basis: tuple[str, ...] = ()

    def scaled(self, factor: float) -> Estimate:
        """The same in another unit."""
        return Estimate(self.median * factor, self.low * factor, self.high * factor, self.coverage, self.basis)
