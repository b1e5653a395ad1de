"""Likelihood of gauge readings: display step as an interval, over-range as a bound, a share of misreads."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from hakutsu.core.film.parameters import FilmParameters
from hakutsu.core.film.survey import Observation

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Shown:
    """What the gauge showed, as intervals of film [µm]; `high_um` is infinite where censored. Shape (readings,).

    `misread` is the prior probability that a reading says nothing; 0 where repeats confirmed it.
    """

    low_um: Floats
    high_um: Floats
    u: Floats
    v: Floats
    misread: Floats

    @property
    def censored(self) -> NDArray[np.bool_]:
        """Which readings are only a bound from below."""
        return np.isinf(self.high_um)


def shown(observations: Sequence[Observation], parameters: FilmParameters) -> Shown:
    """Turn observations into intervals: ± half a display step, or from the limit up.

    An `over` without number takes the gauge's limit; without that too, the smallest range met, which is a safe bound.
    Missing positions are NaN.
    """
    gauge = parameters.gauge
    low, high = [], []
    for observation in observations:
        if observation.censored:
            bound = observation.limit_um or observation.value_um or gauge.lowest_limit_um
            low.append(min(bound, gauge.highest_limit_um))
            high.append(np.inf)
        elif (observation.value_um or 0.0) >= gauge.highest_limit_um:
            low.append(gauge.highest_limit_um)
            high.append(np.inf)
        else:
            half = (observation.step_um or gauge.default_step_um) / 2
            value = observation.value_um or 0.0
            low.append(max(value - half, 0.5))
            high.append(value + half)
    missing = float("nan")
    return Shown(
        np.array(low),
        np.array(high),
        np.array([missing if o.u is None else o.u for o in observations]),
        np.array([missing if o.v is None else o.v for o in observations]),
        np.array([0.0 if o.confirmed else gauge.misread_share for o in observations]),
    )


def reading_table(seen: Shown, level_um: Floats, spread: Floats, parameters: FilmParameters) -> Floats:
    """Probability of each reading given the panel's level and unevenness.

    The film at a spot is log-normal about the level; gauge error adds in relative terms; the display step is
    integrated over, a censored reading has the mass from its limit up.

    Parameters
    ----------
    seen : the readings, n of them
    level_um : levels [µm], shape (k,)
    spread : unevenness [standard deviation over mean], shape (s,)

    Returns
    -------
    Shape (n, k, s), each value in (0, 1].
    """
    gauge = parameters.gauge
    error = gauge.gain_sd + gauge.offset_sd_um / level_um
    sd = np.sqrt(spread[None, :] ** 2 + error[:, None] ** 2)
    log_level = np.log(level_um)[:, None]

    def mass(log_film: Floats) -> Floats:
        return np.asarray(ndtr((log_film[:, None, None] - log_level) / sd))

    with np.errstate(divide="ignore"):
        high = mass(np.log(seen.high_um))
        low = mass(np.log(seen.low_um))
    stray = misread_mass(seen, parameters)
    misread = seen.misread[:, None, None]
    return np.asarray((1 - misread) * (high - low) + misread * stray[:, None, None])


def misread_mass(seen: Shown, parameters: FilmParameters) -> Floats:
    """Probability of each reading if it were a misread: broad about ordinary film. Shape (n,)."""
    gauge = parameters.gauge
    centre, sd = np.log(gauge.misread_median_um), gauge.misread_sd_log
    high = ndtr((np.log(seen.high_um) - centre) / sd)
    return np.asarray(np.maximum(high - ndtr((np.log(seen.low_um) - centre) / sd), 1e-12))
