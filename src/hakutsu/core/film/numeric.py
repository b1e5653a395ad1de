"""Small numeric helpers of the film model."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from hakutsu.core.film.observation import Floats

AnyFloats = NDArray[np.floating[Any]]


def log_sum(log: AnyFloats, axis: int) -> Floats:
    """Log of a sum of exponentials over an axis; faster than reducing by logaddexp, and as safe."""
    top = log.max(axis=axis, keepdims=True)
    return np.asarray(np.log(np.exp(log - top).sum(axis=axis)) + np.squeeze(top, axis=axis))


def blend_rows(table: AnyFloats, rank: Floats) -> AnyFloats:
    """Rows of a table between two neighbours: table (n, steps, k) and fractional steps (n, c) give (n, c, k)."""
    below = np.minimum(rank.astype(int), table.shape[1] - 2)
    share = (rank - below).astype(table.dtype)[..., None]
    rows = np.arange(len(table))[:, None]
    low = table[rows, below]
    return np.asarray(low + share * (table[rows, below + 1] - low))
