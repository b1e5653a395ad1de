"""Likelihood of gauge readings: display step as an interval, over-range as a bound, a share of misreads."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from hakutsu.core.film.model.numeric import AnyFloats, Floats, normal_cdf
from hakutsu.core.film.parameters import FilmParameters, Gauge
from hakutsu.core.film.survey import Observation

LEAST_MISREAD = 1e-6


@dataclass(frozen=True)
class Shown:
    """What the gauge showed, as intervals of film [µm]; `high_um` is infinite where censored. Shape (readings,).

    `misread` is the prior probability that a reading says nothing; 0 where repeats confirmed it. `extra_um` is a
    standard deviation [µm] on top of the gauge's: from verification, dirt, or film that was subtracted. `soft` is the
    relative width of an interval's edges: 0 for a gauge, more for a magnet.
    """

    low_um: Floats
    high_um: Floats
    u: Floats
    v: Floats
    misread: Floats
    extra_um: Floats
    soft: Floats

    @property
    def censored(self) -> NDArray[np.bool_]:
        """Which readings are only a bound from below."""
        return np.isinf(self.high_um)

    @property
    def placed(self) -> NDArray[np.bool_]:
        """Which readings have a position."""
        return ~np.isnan(self.u)


def _interval(o: Observation, gauge: Gauge) -> tuple[float, float]:
    """Ends of the interval, rounded so that a film converted from another unit makes exactly the same one."""
    if o.between_um is not None:
        return max(o.between_um[0], 0.5), o.between_um[1]
    if o.censored:
        bound = o.limit_um or o.value_um or gauge.lowest_limit_um
        return round(min(bound, gauge.highest_limit_um), 6), np.inf
    value = round(o.value_um or 0.0, 6)
    if value >= gauge.highest_limit_um:
        return gauge.highest_limit_um, np.inf
    half = (o.step_um or gauge.default_step_um) / 2
    return max(value - half, 0.5), max(value + half, 1.0)


def shown(observations: Sequence[Observation], parameters: FilmParameters) -> Shown:
    """Turn observations into intervals: ± half a display step, or from the limit up.

    An `over` without number takes the gauge's limit; without that too, the smallest range met, which is a safe bound.
    Missing positions are NaN.
    """
    gauge = parameters.gauge
    ends = np.array([_interval(o, gauge) for o in observations])
    missing = float("nan")
    return Shown(
        ends[:, 0],
        ends[:, 1],
        np.array([missing if o.u is None else o.u for o in observations]),
        np.array([missing if o.v is None else o.v for o in observations]),
        np.array([0.0 if o.confirmed else gauge.misread_share for o in observations]),
        np.array([o.extra_sd_um for o in observations]),
        np.array([gauge.magnet_softness if o.between_um is not None else 0.0 for o in observations]),
    )


def mass(seen: Shown, film_um: Floats, own_sd: Floats | float, p: FilmParameters) -> Floats:
    """Probability of each reading, misread or not, over a true mean film of any shape; as `clean_mass`."""
    return with_misreads(seen, clean_mass(seen, film_um, own_sd, p), p)


def with_misreads(seen: Shown, clean: AnyFloats, p: FilmParameters) -> Floats:
    """Clean probabilities (n, ...) with the chance that a reading is a misread."""
    shape = (len(seen.u),) + (1,) * (clean.ndim - 1)
    misread = seen.misread.reshape(shape)
    return np.asarray((1 - misread) * clean + misread * misread_mass(seen, p).reshape(shape))


def clean_mass(seen: Shown, film_um: Floats, own_sd: Floats | float, p: FilmParameters) -> AnyFloats:
    """Probability of each reading that is no misread over a true mean film of any shape.

    The film at a spot is log-normal about that mean with `own_sd` as relative spread; gauge error adds in relative
    terms, sd = gain + offset/film; the display step is integrated over, a censored reading has the mass from its
    limit up.

    Parameters
    ----------
    seen : n readings
    film_um : mean film [µm], any shape
    own_sd : relative standard deviation of the film itself, broadcasting with `film_um`

    Returns
    -------
    Shape (n, *film_um.shape), each value in (0, 1].
    """
    shape = (len(seen.u),) + (1,) * film_um.ndim
    extra, soft = seen.extra_um.reshape(shape), seen.soft.reshape(shape)
    error = p.gauge.gain_sd + p.gauge.offset_sd_um / film_um
    if seen.extra_um.any() or seen.soft.any():
        sd = np.sqrt(own_sd**2 + error**2 + (extra / film_um) ** 2 + soft**2)
    else:
        sd = np.sqrt(own_sd**2 + error**2)
    log_film, scale = np.log(film_um), 1 / sd
    high, low = (
        normal_cdf(((np.log(end).reshape(shape) - log_film) * scale).astype(np.float32))
        for end in (seen.high_um, seen.low_um)
    )
    return np.asarray(np.maximum(high - low, 0))


def panel_table(seen: Shown, starts: NDArray[np.intp], clean: AnyFloats, p: FilmParameters) -> Floats:
    """Log likelihood of each panel's readings over anything: (n, ...) clean probabilities give (panels, ...).

    One misread a panel comes by itself; a second one is `second_misread` times as likely as if they came apart, a third
    is none: several readings that stand out speak for each other. With r the odds of misread for each reading, the
    product of the clean probabilities is multiplied by 1 + Σr + share · Σ over pairs of r·r.
    """
    shape = (len(seen.u),) + (1,) * (clean.ndim - 1)
    wrong = (np.maximum(seen.misread, LEAST_MISREAD) * misread_mass(seen, p)).reshape(shape).astype(clean.dtype)
    held = np.maximum(clean, wrong * clean.dtype.type(LEAST_MISREAD))
    odds = wrong / held
    total, squares = (np.add.reduceat(one, starts, axis=0) for one in (odds, odds * odds))
    pairs = np.maximum(total * total - squares, 0.0) / 2
    found = np.add.reduceat(np.log(held), starts, axis=0) + np.log1p(total + p.gauge.second_misread * pairs)
    return np.asarray(found, dtype=float)


def misread_mass(seen: Shown, parameters: FilmParameters) -> Floats:
    """Probability of each reading if it were a misread: broad about ordinary film. Shape (n,)."""
    gauge = parameters.gauge
    centre, sd = np.log(gauge.misread_median_um), gauge.misread_sd_log
    high, low = (normal_cdf((np.log(end) - centre) / sd) for end in (seen.high_um, seen.low_um))
    return np.asarray(np.maximum(high - low, 1e-12))
