"""Warming up at idle: the course of the coolant, where it settles, and what that means.

References
----------
Newton's law of cooling, solved for a constant source; Cauchy loss after P. J. Huber, Robust Statistics (1981).
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares

from hakutsu.core.engine.tables import WarmUpTable
from hakutsu.core.estimate import Estimate
from hakutsu.entries.engine import heat_confirmed, heat_suspected
from hakutsu.vehicle.heat import heat_limits
from hakutsu.vehicle.tables import read_table

Floats = NDArray[np.float64]
BAND_DRAWS, BAND_SEED = 300, 5
NEAR = 1e-7  # where a fit ends, as a share: far below what a reading tells


@dataclass(frozen=True, slots=True)
class Sample:
    """A reading of the coolant [°C] at a minute of the run; `fan` says that the fan was running."""

    minute: float
    coolant_c: float
    fan: bool = False


@dataclass(frozen=True, slots=True)
class WarmUp:
    """A fitted course T(t) = min(T0 + (Tu − T0)(1 − e^(−t/τ)), Ts).

    `start_c`, `end_c`, `minutes` (τ), `thermostat_c`; `draws` are parameters likely beside them, for the band; `wrong`
    marks samples far from the course; `settled` is where it came to rest, none while it has not.
    """

    start_c: float
    end_c: float
    minutes: float
    thermostat_c: float
    draws: Floats
    wrong: tuple[bool, ...]
    settled: Estimate | None

    def at(self, minutes: Floats) -> Floats:
        """The course [°C]."""
        return course(np.array([self.start_c, self.end_c, np.log(self.minutes), self.thermostat_c]), minutes)

    def band(self, minutes: Floats) -> tuple[Floats, Floats]:
        """The 80 % band of the course [°C]."""
        low, high = np.quantile(course(self.draws, minutes), (0.1, 0.9), axis=0)
        return low, high


class Warming(StrEnum):
    """What a run says so far."""

    TOO_FEW = "too few samples"
    NOT_SETTLED = "not yet settled"
    USUAL = "usual"
    HIGH = "high: normal only where the thermostat is controlled by a map"
    COLD = "too cold: thermostat open, or the gauge"
    INCONCLUSIVE = "inconclusive: judge after the drive"
    HOT = "too hot"
    STOP = "stop the engine"


@dataclass(frozen=True, slots=True)
class WarmUpVerdict:
    """What it says, in words with numbers, how many more samples are wanted, whether a reading is to be repeated."""

    warming: Warming
    words: str
    more: int = 0
    repeat: bool = False


@cache
def warm_up_table() -> WarmUpTable:
    """Priors and limits of `data/warm_up.toml`."""
    return read_table("core.engine", "warm_up", WarmUpTable)


def course(parameters: Floats, minutes: Floats) -> Floats:
    """Temperature [°C] after minutes, from start, end without thermostat, ln τ, thermostat; many of them by row."""
    start, end, log_tau, thermostat = parameters.T[..., None]
    free = start + (end - start) * (1 - np.exp(-minutes / np.exp(log_tau)))
    return np.asarray(np.minimum(free, thermostat))


@dataclass(frozen=True, slots=True)
class _Posterior:
    """Readings under Cauchy loss around the course, parameters normal around `mean` with `sd`."""

    minutes: Floats
    read: Floats
    mean: Floats
    sd: Floats
    sample_sd_c: float

    def residuals(self, parameters: Floats) -> Floats:
        """Their squares sum to twice the negative log posterior."""
        z = (self.read - course(parameters, self.minutes)) / self.sample_sd_c
        robust = np.sign(z) * np.sqrt(2.0 * np.log1p(z * z / 2.0))
        return np.concatenate([robust, (parameters - self.mean) / self.sd])

    def slopes(self, parameters: Floats) -> Floats:
        """How the residuals change with each parameter: shape (readings + 4 priors, 4)."""
        began, end, log_tau, thermostat = parameters
        past = self.minutes / np.exp(log_tau)
        left = np.exp(-past)
        free = began + (end - began) * (1 - left)
        held = free >= thermostat
        grows = np.empty((len(left) + 4, 4))
        mine = grows[:-4]
        mine[:, 0], mine[:, 1], mine[:, 2], mine[:, 3] = left, 1 - left, (began - end) * left * past, 0.0
        mine[held] = (0.0, 0.0, 0.0, 1.0)
        z = (self.read - np.minimum(free, thermostat)) / self.sample_sd_c
        whole = np.sqrt(2.0 * np.log1p(z * z / 2.0))
        steep = np.divide(np.abs(z), (1 + z * z / 2.0) * whole, out=np.ones_like(z), where=whole > 1e-6)
        mine *= (-steep / self.sample_sd_c)[:, None]
        grows[-4:] = np.diag(1 / self.sd)
        return grows


def _posterior(minutes: Floats, read: Floats, start: tuple[float, float]) -> _Posterior:
    prior = warm_up_table().prior
    rows = (start, prior.end_c, np.log(prior.minutes), prior.thermostat_c)
    mean, sd = np.array(rows).T
    return _Posterior(minutes, read, mean, sd, warm_up_table().sample.sd_c)


def warm_up(samples: Sequence[Sample], start_c: float | None = None) -> WarmUp | None:
    """Fit the course, robustly; none from fewer samples than anything can be judged from.

    Parameters
    ----------
    samples : readings, in any order
    start_c : temperature when it was started [°C]; where not known, carried back from the first readings, and wide
    """
    table = warm_up_table()
    every = sorted(samples, key=lambda one: one.minute)
    if len(every) < table["sample"]["least"]:
        return None
    minutes = np.array([one.minute for one in every])
    read = np.array([one.coolant_c for one in every])
    prior = warm_up_table()["prior"]
    start = (
        (_back_to_start(minutes, read), prior["start_unknown_sd_c"])
        if start_c is None
        else (start_c, prior["start_sd_c"])
    )
    posterior = _posterior(minutes, read, start)
    fits = (_fitted(posterior, guess) for guess in _guesses(read, start[0]))
    best = min(fits, key=lambda one: one.cost)
    fitted = np.asarray(best.x)
    wrong = np.abs(read - course(fitted, minutes)) > table["sample"]["wrong_from_sd"] * table["sample"]["sd_c"]
    draws = _draws(best)
    settled = _settled(draws, fitted, minutes[~wrong])
    began, end, log_tau, thermostat = (float(one) for one in fitted)
    return WarmUp(began, end, float(np.exp(log_tau)), thermostat, draws, tuple(bool(one) for one in wrong), settled)


def _back_to_start(minutes: Floats, read: Floats) -> float:
    """Where a run of unknown beginning began, roughly: the median slope of its first readings, carried back."""
    few = slice(0, 5)
    at, values = minutes[few], read[few]
    steps = np.diff(at)
    slope = float(np.median(np.diff(values)[steps > 0] / steps[steps > 0])) if (steps > 0).any() else 0.0
    return float(np.clip(np.median(values - slope * at), -20.0, 110.0))


def _guesses(read: Floats, first: float) -> list[Floats]:
    high = float(np.quantile(read, 0.8))
    return [
        np.array([first, end, np.log(tau), thermostat])
        for end, tau, thermostat in ((125.0, 14.0, 92.0), (125.0, 10.0, high), (max(high, first + 5), 10.0, 95.0))
    ]


def _fitted(posterior: _Posterior, guess: Floats) -> Any:
    bounds = ([-40.0, -40.0, np.log(1.0), 20.0], [150.0, 260.0, np.log(120.0), 150.0])
    inside = np.clip(guess, np.array(bounds[0]) + 1e-3, np.array(bounds[1]) - 1e-3)
    close = {"ftol": NEAR, "xtol": NEAR, "gtol": NEAR}
    return least_squares(posterior.residuals, inside, posterior.slopes, bounds, x_scale=[1, 5, 0.1, 2], **close)


def _draws(best: Any) -> Floats:
    """Parameters likely beside the best, by the curvature there."""
    information = best.jac.T @ best.jac
    covariance = np.linalg.inv(information + 1e-9 * np.eye(4))
    rng = np.random.default_rng(BAND_SEED)
    return rng.multivariate_normal(best.x, covariance, BAND_DRAWS)


def _settled(draws: Floats, best: Floats, minutes: Floats) -> Estimate | None:
    """Where it came to rest: after some minutes with hardly any slope, seen by enough good samples."""
    row = warm_up_table()["settled"]
    if not len(minutes):
        return None
    last = float(minutes[-1])
    near = int((minutes >= last - row["minutes"] - 1.0).sum())
    if near < row["least_near"]:
        return None
    began = max(0.0, last - row["minutes"])
    grown = np.diff(course(np.vstack([best, draws]), np.array([began, last])))[:, 0]
    if grown[0] > row["slope_c"] * row["minutes"] or np.quantile(grown, 0.8) > 2 * row["slope_c"] * row["minutes"]:
        return None
    ends = course(draws, np.array([last]))[:, 0]
    middle = float(course(best, np.array([last]))[0])
    low, high = (float(one) for one in np.quantile(ends, (0.1, 0.9)))
    return Estimate(middle, min(low, middle), max(high, middle), basis=(f"{len(minutes)} samples, to minute {last:g}",))


def judge(
    samples: Sequence[Sample],
    *,
    start_c: float | None = None,
    outside_c: float | None = None,
    diesel: bool = False,
    map_controlled: bool = False,
) -> WarmUpVerdict:
    """What a run says so far. Only readings stop the engine, and one that does not fit its course is read again first.

    Parameters
    ----------
    outside_c : air outside [°C]; below 5 °C an idling diesel may never warm up
    map_controlled : the thermostat is controlled by a map and may settle as high as 112 °C
    """
    fit = warm_up(samples, start_c)
    return judge_fit(samples, fit, outside_c=outside_c, diesel=diesel, map_controlled=map_controlled)


def judge_fit(
    samples: Sequence[Sample],
    fit: WarmUp | None,
    *,
    outside_c: float | None = None,
    diesel: bool = False,
    map_controlled: bool = False,
) -> WarmUpVerdict:
    """The same of samples whose course was fitted already."""
    table, every = warm_up_table(), sorted(samples, key=lambda one: one.minute)
    if stopped := _stop(every):
        return stopped
    if fit is None:
        more = int(table["sample"]["least"]) - len(every)
        return WarmUpVerdict(Warming.TOO_FEW, f"{more} more before anything can be said", more)
    cold = table["cold_diesel"]
    slow = _slow_in_cold(outside_c, diesel) and every[-1].minute >= cold["minutes"]
    if fit.settled is None and slow and float(fit.at(np.array([every[-1].minute]))[0]) < table["usual"]["low_c"]:
        words = f"not warm after {every[-1].minute:.0f} minutes: {_idling(diesel)}"
        return WarmUpVerdict(Warming.INCONCLUSIVE, words)
    if fit.settled is None:
        return WarmUpVerdict(Warming.NOT_SETTLED, f"{{temperature {every[-1].coolant_c:.1f}}} and not at rest yet", 1)
    return _judged(fit.settled, outside_c, diesel, map_controlled)


def _judged(settled: Estimate, outside_c: float | None, diesel: bool, map_controlled: bool) -> WarmUpVerdict:
    usual = warm_up_table()["usual"]
    where = f"settled at {{temperature {settled.median:.1f}}}"
    if settled.median < usual["low_c"]:
        if _slow_in_cold(outside_c, diesel):
            return WarmUpVerdict(Warming.INCONCLUSIVE, f"{where}: {_idling(diesel)}")
        return WarmUpVerdict(Warming.COLD, where)
    if settled.median < usual["high_c"]:
        return WarmUpVerdict(Warming.USUAL, where)
    if settled.median < usual["map_controlled_c"]:
        return WarmUpVerdict(Warming.USUAL if map_controlled else Warming.HIGH, where)
    return WarmUpVerdict(Warming.HOT, where)


def _slow_in_cold(outside_c: float | None, diesel: bool) -> bool:
    """Whether an engine that only idles may never warm up: a diesel in the cold, a petrol engine in frost."""
    row = warm_up_table()["cold_diesel"]
    return outside_c is not None and outside_c < (row["outside_c"] if diesel else row["frost_c"])


def _idling(diesel: bool) -> str:
    return "an idling diesel in the cold" if diesel else "idling in frost; judge it after the drive"


def _stop(every: Sequence[Sample]) -> WarmUpVerdict | None:
    """Whether the newest readings stop the engine, or ask for another at once."""
    if not every:
        return None
    readings = [(one.minute, one.coolant_c, one.fan) for one in every]
    hot = heat_suspected(readings[-1])
    confirmed = heat_confirmed(readings)
    if not (hot or confirmed):
        return None
    last = every[-1]
    too_hot = last.coolant_c >= heat_limits().stop_c
    words = f"{{temperature {last.coolant_c:.1f}}}{'' if too_hot else ' and rising with the fan running'}"
    if confirmed:
        return WarmUpVerdict(Warming.STOP, words)
    if not too_hot and not _heated(every):
        return None
    return WarmUpVerdict(Warming.NOT_SETTLED, f"{words}: read again at once", 1, repeat=True)


def _heated(every: Sequence[Sample]) -> bool:
    """Whether the newest reading lies above the one before it."""
    return len(every) > 1 and every[-1].coolant_c > every[-2].coolant_c
