"""Verification of a gauge on bare plate and shims: offset and gain, what they leave in doubt, drift over a survey."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from enum import StrEnum

import numpy as np
from numpy.typing import NDArray

from hakutsu.core.film.judging import Verifying
from hakutsu.core.film.survey import Observation


@dataclass(frozen=True, slots=True)
class Check:
    """A reference [µm], 0 for the bare plate, and what the gauge showed on it [µm]."""

    reference_um: float
    shown_um: float


@dataclass(frozen=True, eq=False)
class Fit:
    """Offset [µm] and gain of a gauge, their covariance, and the highest shim they rest on [µm]."""

    at: datetime
    offset_um: float
    gain: float
    covariance: NDArray[np.float64]
    highest_um: float
    complete: bool

    def shown(self, film_um: float) -> float:
        """What the gauge shows over a film [µm]."""
        return self.offset_um + self.gain * film_um

    def variance(self, film_um: float) -> float:
        """How far what it shows over a film is in doubt [µm²]."""
        (offset, both), (_, gain) = self.covariance.tolist()
        return float(offset + film_um * (2 * both + film_um * gain))


class Verified(StrEnum):
    """How far the gauge of a survey was verified."""

    NOT = "not verified"
    INCOMPLETE = "needs the bare plate and at least one shim"
    START_ONLY = "verified at the start only"
    VERIFIED = "verified at start and end"
    DRIFTED = "unverified: the gauge drifted"


def fit_gauge(at: datetime, checks: Sequence[Check], p: Verifying) -> Fit:
    """Offset and gain from checks, by least squares with the priors of an ordinary gauge.

    Notes
    -----
    shown = offset + gain · reference + error, error sd = 0.7 µm + 0.5 % (shim and repeat); prior offset 0 ± 3 µm, gain
    1 ± 0.03. The posterior is the usual one of a linear model with known variances.

    References
    ----------
    [1] ASTM D7091: verification of accuracy before and after use on certified shims and a bare plate.
    """
    reference = np.array([one.reference_um for one in checks])
    shown = np.array([one.shown_um for one in checks])
    design = np.stack([np.ones_like(reference), reference], axis=1)
    weight = 1 / (p.check_sd_um + p.check_sd_share * reference) ** 2
    prior = np.diag([1 / p.offset_sd_um**2, 1 / p.gain_sd**2])
    covariance = np.linalg.inv(prior + (design * weight[:, None]).T @ design)
    mean = covariance @ (prior @ np.array([0.0, 1.0]) + (design * weight[:, None]).T @ shown)
    complete = bool((reference == 0).any() and (reference > 0).any())
    return Fit(at, float(mean[0]), float(mean[1]), covariance, float(reference.max()), complete)


def verified(start: Fit | None, end: Fit | None, p: Verifying) -> Verified:
    """State of a survey's verification: drift of more than ±(3 µm + 3 %) between start and end voids it."""
    if start is None and end is None:
        return Verified.NOT
    if any(fit is not None and not fit.complete for fit in (start, end)):
        return Verified.INCOMPLETE
    if start is None or end is None:
        return Verified.START_ONLY if end is None else Verified.NOT
    if any(abs(drift) > p.drift_um + p.drift_share * film for film, drift in drifts(start, end)):
        return Verified.DRIFTED
    return Verified.VERIFIED


def drifts(start: Fit, end: Fit) -> list[tuple[float, float]]:
    """Change of what the gauge shows between start and end, at the bare plate and at the highest common shim [µm]."""
    return [(film, end.shown(film) - start.shown(film)) for film in (0.0, min(start.highest_um, end.highest_um))]


def corrected(o: Observation, at: datetime, start: Fit | None, end: Fit | None, p: Verifying) -> Observation:
    """A reading as a true gauge would have shown it, with the doubt the correction leaves.

    Offset and gain go linearly with time between start and end. Above the highest shim the doubt widens by 1 % of what
    lies above it.
    """
    fits = [fit for fit in (start, end) if fit is not None]
    if not fits or o.between_um is not None:
        return o
    share = _share(at, fits)
    first, last = fits[0], fits[-1]
    offset = (1 - share) * first.offset_um + share * last.offset_um
    gain = (1 - share) * first.gain + share * last.gain

    def true(shown: float | None) -> float | None:
        return None if shown is None else max((shown - offset) / gain, 1.0)

    film = true(o.value_um if o.value_um is not None else o.limit_um) or 0.0
    fitted = (1 - share) * first.variance(film) + share * last.variance(film)
    beyond = p.beyond_share * max(0.0, film - max(fit.highest_um for fit in fits))
    sd = float((o.extra_sd_um**2 + fitted + beyond**2) ** 0.5)
    return replace(o, value_um=true(o.value_um), limit_um=true(o.limit_um), extra_sd_um=sd)


def _share(at: datetime, fits: Sequence[Fit]) -> float:
    span = (fits[-1].at - fits[0].at).total_seconds()
    return min(1.0, max(0.0, (at - fits[0].at).total_seconds() / span)) if span > 0 else 0.0
