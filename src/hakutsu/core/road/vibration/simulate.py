"""Made-up records with known truth: roads, wandering speeds, bumps, jittering clocks. For bench, tests and demo."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from hakutsu.core.road.vibration.record import Record
from hakutsu.core.road.vibration.sources import Family, Source, Stated, sources

Floats = NDArray[np.float64]

SPEED_ERR, ROLLING_ERR, RPM_ERR = 0.02, 0.015, 0.01


@dataclass(frozen=True, slots=True)
class World:
    """How records are made: noise ("white", "road"), wandering ("sway", "ramp", "walk"), whether the engine's speed
    wanders with the vehicle's, bumps a minute, share of records with nothing, a second source, or an other tone.
    """

    noise: str = "road"
    wandering: str = "sway"
    engine_follows: bool = True
    bumps: float = 0.0
    nothing: float = 0.2
    two: float = 0.15
    other: float = 0.1
    harmonics: float = 0.35
    jitter: float = 0.1
    gaps: float = 0.2
    lasts: tuple[float, float] = (20.0, 60.0)
    strengths: tuple[float, ...] = (0.35, 0.6, 1.2, 3.0)


@dataclass(frozen=True, slots=True)
class Made:
    """A record with what was stated of it and what it truly holds; `strength` is peak over noise (both m/s²)."""

    record: Record
    stated: Stated
    truth: tuple[str, ...]
    strength: float
    rate_hz: float
    aliased: bool


def make(rng: np.random.Generator, world: World) -> Made:
    """One record of a world."""
    rate = float(rng.choice([50, 100, 100, 200, 400]))
    lasts = float(rng.uniform(*world.lasts))
    stated = Stated(
        float(rng.uniform(55, 130)), float(rng.uniform(1.75, 2.25)),
        float(rng.uniform(2.6, 4.6)) if rng.random() < 0.7 else None,
        float(rng.uniform(1300, 3600)) if rng.random() < 0.7 else None,
    )  # fmt: skip
    t = _stamps(rng, world, rate, lasts)
    speed = 1 + rng.normal(0, SPEED_ERR) - rng.normal(0, ROLLING_ERR)
    course = speed * (1 + _wander(rng, world.wandering, t))
    turns = 1 + rng.normal(0, RPM_ERR)
    engine = turns * (course / speed if world.engine_follows else 1 + _wander(rng, world.wandering, t) / 2)
    noise = float(rng.uniform(0.1, 0.4))
    strength = float(rng.choice(world.strengths))
    a = _noise(rng, world, t, rate) * noise
    kind = rng.random()
    every = [one for one in sources(stated) if one.hz < 0.45 * rate or rng.random() < 0.3]
    truth: list[str] = []
    aliased = False
    if kind >= world.nothing:
        if kind < world.nothing + world.other or not every:
            a += _tone(rng, t, np.full_like(t, _free_hz(rng, sources(stated), rate)), strength * noise)
            truth.append("other")
        else:
            count = 2 if rng.random() < world.two and len(every) > 1 else 1
            for index in rng.choice(len(every), count, replace=False):
                one = every[int(index)]
                ways = course if one.family is Family.WHEELS else engine
                a += _source(rng, world, t, one.hz * ways, strength * noise * (1 if not truth else rng.uniform(0.6, 1)))
                truth.append(one.key)
                aliased = aliased or one.hz > 0.45 * rate
    a += 9.81 * _direction(rng)
    return Made(Record(t, a), stated, tuple(truth), strength if truth else 0.0, rate, aliased)


def _stamps(rng: np.random.Generator, world: World, rate: float, lasts: float) -> Floats:
    t = np.arange(0, lasts, 1 / rate)
    t = np.sort(t + rng.normal(0, world.jitter / rate, t.size))
    if rng.random() < world.gaps:
        start = rng.uniform(0.2, 0.7) * lasts
        t = t[(t < start) | (t > start + rng.uniform(0.5, 4))]
    if rng.random() < world.gaps:
        t = np.round(t, 3)
    return np.asarray(t)


def _wander(rng: np.random.Generator, kind: str, t: Floats) -> Floats:
    """A share of the speed, at most 3 % to either side."""
    most = float(rng.uniform(0, 0.03))
    if kind == "ramp":
        return np.asarray(np.interp(t, np.linspace(t[0], t[-1], 4), rng.uniform(-most, most, 4)))
    if kind == "walk":
        steps = np.cumsum(rng.normal(0, 1, int(t[-1] - t[0]) + 3))
        smooth = np.convolve(steps, np.ones(5) / 5, mode="same")
        course = np.interp(t, np.arange(len(smooth)) + t[0], smooth)
        course = course - course.mean()
        return np.asarray(most * course / max(1e-9, float(np.abs(course).max())))
    period = rng.uniform(15, 50)
    return np.asarray(most * np.sin(2 * np.pi * t / period + rng.uniform(0, 6.3)))


def _noise(rng: np.random.Generator, world: World, t: Floats, rate: float) -> Floats:
    """Three axes of noise, of unit strength over a band of 25 Hz whatever the rate."""
    count = t.size
    white = rng.normal(0, np.sqrt(rate / 50), (count, 3))
    if world.noise == "white":
        return white
    spectrum = np.fft.rfft(white, axis=0)
    hz = np.fft.rfftfreq(count, 1 / rate)
    shape = 0.4 + 1.6 / (1 + (hz / 4) ** 2)
    for at, height, width in ((1.4, 2.5, 0.4), (rng.uniform(10, 14), 1.2, 2.0), (rng.uniform(20, 60), 0.8, 4.0)):
        shape += height / (1 + ((hz - at) / width) ** 2)
    a = np.fft.irfft(spectrum * shape[:, None], count, axis=0)
    for _ in range(rng.poisson(world.bumps * (t[-1] - t[0]) / 60)):
        since = t - rng.uniform(t[0], t[-1])
        ring = np.where(since > 0, np.exp(-since / 0.25) * np.sin(2 * np.pi * rng.uniform(8, 16) * since), 0)
        a += rng.uniform(4, 20) * ring[:, None] * _direction(rng)
    return np.asarray(a)


def _direction(rng: np.random.Generator) -> Floats:
    one = rng.normal(size=3)
    return np.asarray(one / np.linalg.norm(one))


def _tone(rng: np.random.Generator, t: Floats, hz: Floats, amplitude: float) -> Floats:
    phase = 2 * np.pi * np.concatenate([[0.0], np.cumsum(np.diff(t) * (hz[1:] + hz[:-1]) / 2)])
    return np.asarray(amplitude * np.sin(phase + rng.uniform(0, 6.3))[:, None] * _direction(rng))


def _source(rng: np.random.Generator, world: World, t: Floats, hz: Floats, amplitude: float) -> Floats:
    a = _tone(rng, t, hz, amplitude)
    if rng.random() < world.harmonics:
        a = a + _tone(rng, t, 2 * hz, amplitude * rng.uniform(0.2, 0.8))
    return a


def _free_hz(rng: np.random.Generator, every: list[Source], rate: float) -> float:
    while True:
        hz = float(rng.uniform(4, 0.44 * rate))
        if all(abs(hz / one.hz - 1) > 0.1 for one in every):
            return hz
