"""What may be left of a measured part and how fast it wears, as weights over a grid: quadrature for `measured`."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
N_POINTS, WORN_POINTS, NOW_POINTS = 9, 15, 121
REACH_SD = 3.2
K_KNOWN, K_REACH_SD, WORN_REACH_SD = 121, 6.0, 7.0
LEAST_WEIGHT = 1e-7


@dataclass(frozen=True, slots=True)
class Prior:
    """What is taken for granted of a part: rate [km/mm], thickness when new, limit and sd of the method [mm]."""

    k_median: float
    k_gsd: float
    new_mm: float
    new_sd: float
    limit_mm: float
    sd_mm: float


@dataclass(frozen=True, slots=True)
class Spread:
    """Thickness left above the limit [mm], weights that sum to 1 and rate [km/mm], point by point.

    `unusual` is how many standard deviations the rate lies from what such parts usually have: above 0, it lasts longer.
    `log_sd` is the standard deviation of the logarithm of the rate where its points do not hold it; `evidence` the
    density of the measurement [1/mm] under what this spread takes for granted.
    """

    left: Floats
    weight: Floats
    rate: Floats
    unusual: float = 0.0
    log_sd: float = 0.0
    evidence: float = 0.0


@cache
def _normal(points: int) -> tuple[Floats, Floats]:
    """Standard normal grid and weights."""
    z = np.linspace(-REACH_SD, REACH_SD, points)
    weight = np.exp(-0.5 * z * z)
    return z, weight / weight.sum()


def known(prior: Prior, measured: float, bounds: tuple[float, float]) -> Spread | None:
    """The thickness left, its weights and the rate with the distance known; none where no rate explains the two.

    For one rate and distance, thickness when new and measurement are both normal, so the thickness now is normal too:
    mean n − D/k with the sd of n, combined with the measurement by their precisions. Only k and D need a grid.
    """
    z_k = np.linspace(-K_REACH_SD, K_REACH_SD, K_KNOWN)
    k = prior.k_median * prior.k_gsd**z_k
    worn, share = _worn(prior, measured, bounds, k)
    expected = prior.new_mm - worn
    off = (measured - expected) ** 2 / (prior.new_sd**2 + prior.sd_mm**2)
    log_weight = share - 0.5 * (z_k[:, None] ** 2 + off)
    if log_weight.max() < -0.5 * K_REACH_SD**2:
        return None
    weight = np.exp(log_weight - log_weight.max())
    at_k, at_d = np.nonzero(weight > LEAST_WEIGHT)
    kept = weight[at_k, at_d]
    trust = prior.new_sd**2 / (prior.new_sd**2 + prior.sd_mm**2)
    centre = expected[at_k, at_d] + trust * (measured - expected[at_k, at_d])
    z_n, w_n = _normal(N_POINTS)
    now = centre[:, None] + np.sqrt(trust) * prior.sd_mm * z_n
    joint = kept[:, None] * w_n * (now >= 0)
    if joint.sum() <= 0:
        return None
    z_weight = np.exp(-0.5 * z_k**2).sum() * worn.shape[1] * np.sqrt(2 * np.pi * (prior.new_sd**2 + prior.sd_mm**2))
    evidence = float(np.exp(log_weight).sum() / z_weight)
    left, rate = np.maximum(0.0, now - prior.limit_mm), np.broadcast_to(k[at_k][:, None], now.shape)
    return Spread(
        left.ravel(),
        (joint / joint.sum()).ravel(),
        rate.ravel(),
        float(kept @ z_k[at_k] / kept.sum()),
        evidence=evidence,
    )


def _worn(prior: Prior, measured: float, bounds: tuple[float, float], k: Floats) -> tuple[Floats, Floats]:
    """Points of what may be worn away [mm] at each rate, and the log of the share of distances each row stands for.

    Of a wide range of distances only those count that can explain the measurement, others at every rate.
    """
    low, high = bounds
    if high <= low:
        return (low / k)[:, None], np.zeros((len(k), 1))
    away, sd = prior.new_mm - measured, float(np.hypot(prior.new_sd, prior.sd_mm))
    least, most = np.maximum(low / k, away - WORN_REACH_SD * sd), np.minimum(high / k, away + WORN_REACH_SD * sd)
    span = np.maximum(most - least, 0.0)
    steps = (np.arange(WORN_POINTS) + 0.5) / WORN_POINTS
    with np.errstate(divide="ignore"):
        share = np.log(span * k / (high - low))
    return least[:, None] + span[:, None] * steps, share[:, None]


def unknown(prior: Prior, measured: float) -> Spread:
    """The same with the distance unknown: share worn uniform from 0 to 1, thickness now and rate independent."""
    z_n, w_n = _normal(33)
    n = prior.new_mm + prior.new_sd * z_n
    reach = 5 * prior.sd_mm
    now = np.linspace(max(0.0, measured - reach), max(measured + reach, 1e-3), NOW_POINTS)
    density = (w_n[None, :] * (now[:, None] <= n[None, :]) / np.maximum(n[None, :], 1e-6)).sum(axis=1)
    weight = density * np.exp(-0.5 * ((measured - now) / prior.sd_mm) ** 2)
    evidence = float(weight.sum() * (now[1] - now[0]) / (prior.sd_mm * np.sqrt(2 * np.pi)))
    if weight.sum() <= 0:
        weight = np.exp(-0.5 * ((measured - now) / prior.sd_mm) ** 2)
    return replace(_independent(prior, np.maximum(0.0, now - prior.limit_mm), weight), evidence=evidence)


def unmeasured(prior: Prior, most_km: float | None = None) -> Spread:
    """The same with nothing measured: what is usable of it worn anywhere from 0 to 1, or to what `most_km` can wear."""
    usable = max(0.0, prior.new_mm - prior.limit_mm)
    worn = usable if most_km is None else min(usable, most_km / prior.k_median)
    left = usable - worn * (np.arange(NOW_POINTS) + 0.5) / NOW_POINTS
    return _independent(prior, left, np.ones(NOW_POINTS))


def _independent(prior: Prior, left: Floats, weight: Floats) -> Spread:
    """Thickness left and rate, independent of each other: the spread of the rate is folded in later."""
    rate = np.full(len(left), prior.k_median)
    return Spread(left, weight / weight.sum(), rate, log_sd=float(np.log(prior.k_gsd)))
