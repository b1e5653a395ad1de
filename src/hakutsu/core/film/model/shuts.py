"""What film on shut faces and under lids says about the factory's level: it lies well under that of the skin."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from hakutsu.core.film.model.grids import Grids
from hakutsu.core.film.model.numeric import Floats
from hakutsu.core.film.parameters import FilmParameters

USUAL, WRAPPED = "usual", "wrapped"


@dataclass(frozen=True)
class Shuts:
    """Prior weights over baselines once the shut faces are known, `by_part` what the factory did; and log evidence of
    the shut faces themselves on a car of the factory's film and on one painted whole.
    """

    prior: Floats
    by_part: Mapping[str, Floats]
    factory: float
    painted: float

    def parts(self, baseline: Floats) -> dict[str, float]:
        """Probability of each part, given weights over baselines."""
        shares = {
            name: float(baseline @ (weight / np.maximum(self.prior, 1e-300))) for name, weight in self.by_part.items()
        }
        total = max(sum(shares.values()), 1e-300)
        return {name: share / total for name, share in shares.items()}


def _normal(log_x: float, log_centre: Floats | float, sd: float) -> Floats:
    return np.asarray(np.exp(-0.5 * ((log_x - log_centre) / sd) ** 2) / sd)


def shut_evidence(shut_um: Sequence[float], parts: Mapping[str, Floats], grid: Grids, p: FilmParameters) -> Shuts:
    """Weigh baselines by the middle of the shut faces read; they share one factory, so they count once.

    Under a wrap lies the factory's film without it; a car painted whole has shut faces of any factory, or painted too.
    """
    if not shut_um:
        return Shuts(np.asarray(sum(parts.values())), parts, 0.0, 0.0)
    q = p.baseline
    middle = float(np.log(np.median(shut_um)))
    sd = float(np.hypot(q.shut_sd_log, q.shut_reading_sd_log / len(shut_um) ** 0.5))
    wrap = q.factory[WRAPPED].median_um - q.factory[USUAL].median_um
    found = {}
    for name, weight in parts.items():
        under = np.maximum(grid.baseline_um - (wrap if name == WRAPPED else 0.0), 45.0)
        found[name] = weight * _normal(middle, np.log(q.shut_of_skin * under), sd)
    prior = np.asarray(sum(found.values()))
    total = float(prior.sum())
    any_factory = float(_normal(middle, np.log(q.shut_median_um), float(np.hypot(q.shut_any_sd_log, sd / 2))))
    level = np.log(grid.respray_um)
    painted = float(grid.respray_prior @ _normal(middle, level, q.shut_painted_sd_log))
    share = q.shut_painted_share
    log_painted = float(np.log(max((1 - share) * any_factory + share * painted, 1e-300)))
    scaled = {name: weight / total for name, weight in found.items()}
    return Shuts(prior / total, scaled, float(np.log(max(total, 1e-300))), log_painted)
