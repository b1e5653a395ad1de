"""Small numeric helpers of the film model."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
AnyFloats = NDArray[np.floating[Any]]
TINY = 1e-30


_ERFC = (0.17087277, -0.82215223, 1.48851587, -1.13520398, 0.27886807, -0.18628806, 0.09678418, 0.37409196, 1.00002368)


def normal_cdf(z: AnyFloats) -> AnyFloats:
    """Standard normal distribution function; relative error below 1.2e-7 in the lower tail, absolute in the upper, in
    double precision, and a few 1e-6 in single. The result has the precision of `z`.

    Notes
    -----
    erfc(x) = t·exp(−x² − 1.26551223 + t·P(t)) with t = 1/(1 + x/2), x ≥ 0. A fraction of the time of a call that is
    exact to the last digit, on which the film model would spend most of its own.

    References
    ----------
    [1] W. H. Press et al., Numerical Recipes in C, 2nd ed., Cambridge University Press 1992, section 6.2.
    """
    kind = z.dtype.type
    x = np.abs(z)
    x *= kind(np.sqrt(0.5))
    t = 1 / (1 + kind(0.5) * x)
    poly = np.full_like(x, _ERFC[0])
    for coefficient in _ERFC[1:]:
        poly *= t
        poly += kind(coefficient)
    poly *= t
    x *= x
    poly -= x
    poly -= kind(1.26551223)
    np.exp(poly, out=poly)
    poly *= t
    poly *= kind(0.5)
    return np.asarray(np.where(z > 0, 1 - poly, poly))


def log_sum(log: AnyFloats, axis: int) -> AnyFloats:
    """Log of a sum of exponentials over an axis; faster than reducing by logaddexp, and as safe."""
    top = log.max(axis=axis, keepdims=True)
    return np.asarray(np.log(np.exp(log - top).sum(axis=axis)) + np.squeeze(top, axis=axis))


def hats(rank: AnyFloats, steps: int) -> AnyFloats:
    """Weights of linear interpolation: fractional steps of shape (...) give (..., steps), rows summing to one."""
    flat = rank.ravel()
    below = np.minimum(flat.astype(np.intp), steps - 2)
    share = flat - below.astype(flat.dtype)
    found = np.zeros((len(flat), steps), dtype=flat.dtype)
    row = np.arange(len(flat))
    found[row, below] = 1 - share
    found[row, below + 1] = share
    return found.reshape(*rank.shape, steps)


def interpolation(at: Floats, grid: Floats) -> Floats:
    """Matrix that reads a function off a rising grid: (grid,) values to (at,) values, constant beyond its ends."""
    return np.asarray(hats(np.interp(at, grid, np.arange(len(grid), dtype=float)), len(grid)))


def smooth_interpolation(at: Floats, grid: Floats) -> Floats:
    """The same by cubics through four neighbours, which keep a peak where it is whether it lies on the grid or between.

    Straight lines cut off a peak between two grid points, so that film on one would be favoured. Beyond the second
    point from either end the function is continued straight.

    References
    ----------
    [1] R. G. Keys, Cubic convolution interpolation for digital image processing, IEEE Transactions on Acoustics,
        Speech, and Signal Processing 29 (1981), 1153-1160; coefficient -1/2.
    """
    steps = len(grid)
    rank = np.interp(at, grid, np.arange(steps, dtype=float))
    below = np.minimum(rank.astype(np.intp), steps - 2)
    t = rank - below
    weights = (
        (-t + 2 * t**2 - t**3) / 2,
        (2 - 5 * t**2 + 3 * t**3) / 2,
        (t + 4 * t**2 - 3 * t**3) / 2,
        (t**3 - t**2) / 2,
    )
    wide = np.zeros((len(at), steps + 2))
    for shift, weight in enumerate(weights):
        wide[np.arange(len(at)), below + shift] = weight
    found = wide[:, 1:-1].copy()
    for end, first, second in ((wide[:, :1], 0, 1), (wide[:, -1:], -1, -2)):
        found[:, [first]] += 2 * end
        found[:, [second]] -= end
    return found


def normal_weights(log_x: Floats, log_centre: Floats | float, sd: float) -> Floats:
    """Log-normal weights over the last axis of a rising grid, each for the stretch about its point, summing to one."""
    weight = np.exp(-0.5 * ((log_x - log_centre) / sd) ** 2) * np.gradient(log_x) + 1e-300
    return np.asarray(weight / weight.sum(axis=-1, keepdims=True))


def log_mean(log: AnyFloats, weights: Floats) -> AnyFloats:
    """Log of a weighted sum of exponentials over the second axis: (p, c, k) and (c,) give (p, k).

    Scaled by the largest of each p, so that a k that falls short of it by more than 80 everywhere becomes −69.
    """
    top = log.max(axis=(1, 2), keepdims=True)
    total = weights.astype(log.dtype) @ np.exp(log - top)
    return np.asarray(np.log(np.maximum(total, TINY)) + top[:, 0])


def per_panel_sums(
    weights: AnyFloats, table: AnyFloats, placed: np.ndarray, starts: np.ndarray, unplaced: AnyFloats
) -> AnyFloats:
    """Sum over the readings of each panel of weights · log table.

    Parameters
    ----------
    weights : (shapes, placed readings, steps), the last axis summing to one
    table : log probabilities of all readings, (readings, steps, k)
    placed : which readings have a position, (readings,)
    starts : index of each panel's first reading
    unplaced : log probabilities of the readings without position, (readings without, shapes, k)

    Returns
    -------
    Shape (panels, shapes, k).
    """
    ends = [*starts[1:], len(placed)]
    before = np.concatenate([[0], np.cumsum(placed)])
    without = np.concatenate([[0], np.cumsum(~placed)])
    shapes, _, steps = weights.shape
    mine = table[placed] if not placed.all() else table
    found = np.zeros((len(starts), shapes, table.shape[2]), dtype=table.dtype)
    for i, (start, end) in enumerate(zip(starts, ends, strict=True)):
        first, last = before[start], before[end]
        if last > first:
            # A view of rows that lie apart: no copy is made for the product.
            one = weights[:, first:last].reshape(shapes, -1)
            np.matmul(one, mine[first:last].reshape((last - first) * steps, -1), out=found[i])
        for j in range(without[start], without[end]):
            found[i] += unplaced[j]
    return found


def counted(where: NDArray[np.intp], weight: Floats, size: int) -> Floats:
    """Weights summed by index: (n,) and (n,) give (size,)."""
    return np.asarray(np.bincount(where, weight, size), dtype=np.float64)


def weighted_quantiles(values: Floats, weights: Floats, at: tuple[float, ...]) -> list[float]:
    """Quantiles of a distribution given by weights on a rising grid, interpolated between grid points."""
    below = np.cumsum(weights) - 0.5 * weights
    return [float(q) for q in np.interp(np.array(at) * weights.sum(), below, values)]
