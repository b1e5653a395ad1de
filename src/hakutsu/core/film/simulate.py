"""Painted cars with known truth, and gauges that read them: for calibration, property tests, and stand-ins.

The painter knows nothing of the model's grids: filler is one to three tilted, unequal lumps; unevenness is a smooth
random field; blends end in a soft edge.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np

from hakutsu.core.film.survey import STATES, FilmSurvey, Observation, State
from hakutsu.vehicle.panels import default_substrate, panels, walk_order
from hakutsu.vehicle.protocol import spot_pattern
from hakutsu.vehicle.vocabulary import Finish, ReadingStatus

Floats = np.ndarray
FILLER_FROM_UM = 150.0
GRID = np.stack(np.meshgrid(np.linspace(0.01, 0.99, 41), np.linspace(0.01, 0.99, 41)), axis=-1).reshape(-1, 2)
USUAL = {
    State.ORIGINAL: 0.78, State.THINNED: 0.02, State.BLENDED: 0.04,
    State.REFINISHED: 0.10, State.REBUILT: 0.02, State.FILLED: 0.04,
}  # fmt: skip


@dataclass(frozen=True)
class Gauge:
    """A gauge: offset and gain error at two standard deviations of ±(2 µm + 2 %), display step and limit [µm], share
    of misreads, and dust [µm] it reads along.
    """

    step_um: float = 1.0
    limit_um: float = 1500.0
    offset_um: float = 0.0
    gain: float = 1.0
    misreads: float = 0.01
    dust_um: float = 0.0

    def read(self, film_um: float, rng: np.random.Generator) -> tuple[float | None, ReadingStatus]:
        """What the display shows over a film [µm]."""
        dust = rng.exponential(self.dust_um) if self.dust_um else 0.0
        seen = (film_um * self.gain + self.offset_um + dust) * rng.normal(1, 0.008) + rng.normal(0, 0.8)
        if rng.random() < self.misreads:
            seen *= rng.lognormal(0, 0.7)
        shown = max(round(seen / self.step_um), 1) * self.step_um
        return (None, ReadingStatus.OVER) if shown >= self.limit_um else (shown, ReadingStatus.OK)


@dataclass(frozen=True)
class PaintedPanel:
    """One panel's true film: its state, level [µm], waves of unevenness, lumps of filler, and fade or polish."""

    state: State
    level_um: float
    unevenness: float
    waves: Floats
    lumps: Floats = field(default_factory=lambda: np.empty((0, 6)))
    change: tuple[float, float, float] | None = None

    def film(self, u: Floats, v: Floats) -> Floats:
        """True film [µm] at places."""
        kx, ky, phase = self.waves.T
        wave = np.cos(np.outer(u, kx) + np.outer(v, ky) + phase).mean(axis=1) * np.sqrt(2 * len(self.waves))
        base = np.full_like(u, self.level_um)
        if self.change:
            amount, angle, begins = self.change
            across = 0.5 + (u - 0.5) * np.cos(angle) + (v - 0.5) * np.sin(angle)
            base = base + amount / (1 + np.exp(-(across - begins) / 0.06))
        return np.asarray(base * np.exp(self.unevenness * wave) + self.filler(u, v))

    def filler(self, u: Floats, v: Floats) -> Floats:
        """Thickness of filler [µm] at places; uneven by itself."""
        total = np.zeros_like(u)
        for cu, cv, length, width, tilt, peak in self.lumps:
            along = (u - cu) * np.cos(tilt) + (v - cv) * np.sin(tilt)
            over = -(u - cu) * np.sin(tilt) + (v - cv) * np.cos(tilt)
            total = np.maximum(total, peak * np.exp(-0.5 * ((along / length) ** 2 + (over / width) ** 2)))
        rough = 1 + 0.2 * np.cos(17 * u + self.waves[0, 2]) * np.cos(13 * v + self.waves[1, 2])
        return np.asarray(total * rough)

    @property
    def filled_share(self) -> float:
        """Share of the panel's area whose film lies more than 150 µm above the refinish."""
        return float((self.filler(GRID[:, 0], GRID[:, 1]) > FILLER_FROM_UM).mean())


@dataclass(frozen=True)
class PaintedCar:
    """A car's true film, panel by panel."""

    finish: Finish
    panels: Mapping[str, PaintedPanel]

    def survey(
        self, rng: np.random.Generator, gauge: Gauge | None = None, spots: int | None = None, placed: float = 1.0
    ) -> FilmSurvey:
        """Read the car with a gauge: the protocol's spots and more at random up to `spots`, a share with position."""
        gauge = gauge or Gauge(offset_um=rng.normal(0, 1), gain=rng.normal(1, 0.01))
        found = []
        for key, painted in self.panels.items():
            pattern = list(spot_pattern(panels()[key]))
            count = spots or len(pattern)
            places = [*pattern, *(tuple(rng.uniform(0.06, 0.94, 2)) for _ in range(max(0, count - len(pattern))))]
            for u, v in places[:count]:
                u, v = (float(np.clip(x + rng.normal(0, 0.03), 0, 1)) for x in (u, v))
                film = float(painted.film(np.array([u]), np.array([v]))[0])
                value, status = gauge.read(film, rng)
                at_u, at_v = (u, v) if rng.random() < placed else (None, None)
                found.append(Observation(key, value, status, at_u, at_v, gauge.step_um, gauge.limit_um))
        return FilmSurvey("simulated", found, self.finish)


def paint_car(
    rng: np.random.Generator, *, style: str = "hatch", doors: int = 5, chances: Mapping[State, float] | None = None
) -> PaintedCar:
    """A car of the factory, with panels altered by chance."""
    weights = np.array([(chances or USUAL)[state] for state in STATES])
    base = rng.lognormal(np.log(118), 0.15)
    keys = [key for key in walk_order(style, doors) if default_substrate(key).is_metal]
    states = rng.choice(len(STATES), size=len(keys), p=weights / weights.sum())
    return PaintedCar(
        Finish.FACTORY, {key: paint_panel(STATES[i], base, rng) for key, i in zip(keys, states, strict=True)}
    )


def paint_panel(state: State, base_um: float, rng: np.random.Generator) -> PaintedPanel:
    """One panel of a state, on a car of a baseline [µm]."""
    own = base_um * rng.normal(1, 0.045)
    waves = np.column_stack([rng.uniform(-9, 9, 8), rng.uniform(-9, 9, 8), rng.uniform(0, 2 * np.pi, 8)])
    even, sprayed = rng.lognormal(np.log(0.03), 0.3), rng.lognormal(np.log(0.06), 0.35)
    angle = rng.choice([0, np.pi, np.pi / 2, -np.pi / 2], p=[0.4, 0.4, 0.1, 0.1])
    if state is State.ORIGINAL:
        return PaintedPanel(state, own, even, waves)
    if state is State.THINNED:
        return PaintedPanel(state, own, even, waves, change=(-rng.uniform(15, 45), angle, rng.uniform(0.2, 0.6)))
    if state is State.BLENDED:
        return PaintedPanel(state, own, even, waves, change=(rng.uniform(30, 70), angle, rng.uniform(0.35, 0.7)))
    if state is State.REBUILT:
        return PaintedPanel(state, own + rng.uniform(200, 450), sprayed, waves)
    bare = rng.random() < 0.35
    level = rng.uniform(95, 210) if bare else own + rng.uniform(70, 190)
    if state is State.REFINISHED:
        return PaintedPanel(state, level, sprayed, waves)
    first = rng.uniform((0.1, 0.05), (0.9, 0.7))
    lumps = []
    for i in range(rng.integers(1, 4)):
        centre = first + (rng.normal(0, 0.12, 2) if i else 0)
        size = rng.uniform(0.08, 0.28, 2)
        lumps.append([*centre, *size, rng.uniform(0, np.pi), rng.lognormal(np.log(600), 0.6)])
    return PaintedPanel(state, level, sprayed, waves, np.array(lumps))
