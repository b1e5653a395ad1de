"""Contours of a map over a panel, as paths on the shell sheet."""

from __future__ import annotations

import numpy as np
from contourpy import contour_generator
from numpy.typing import NDArray

from hakutsu.vehicle.shell import Patch


def contour_path(chance: NDArray[np.float64], level: float, patch: Patch) -> str:
    """SVG path data around everything at or above `level`; empty where nothing is.

    Parameters
    ----------
    chance : map over the panel, rows along v, columns along u, cell centres at (i + ½)/n
    patch : where the panel lies on the sheet
    """
    rows, columns = chance.shape
    # A rim of zeros outside closes every contour at the panel's edge.
    framed = np.zeros((rows + 2, columns + 2))
    framed[1:-1, 1:-1] = chance
    u = np.clip((np.arange(columns + 2) - 0.5) / columns, 0, 1)
    v = np.clip((np.arange(rows + 2) - 0.5) / rows, 0, 1)
    lines = contour_generator(x=u, y=v, z=framed).lines(level)
    path = []
    for line in lines:
        points = [patch.at(float(a), float(b)) for a, b in np.asarray(line)]
        path.append("M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in points) + "Z")
    return "".join(path)
