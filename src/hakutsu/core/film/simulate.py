"""Painted cars with known truth, and gauges that read them: for calibration, property tests, and stand-ins.

The painter knows nothing of the model's grids and zones: repairs start at a panel and run over its seams; filler is one
to three tilted, wobbly lumps; unevenness is a smooth random field; blends end in a soft edge.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from hakutsu.core.film.parameters import parameters
from hakutsu.core.film.survey import FilmSurvey, Observation, State
from hakutsu.vehicle.panels import default_substrate, panels, walk_order
from hakutsu.vehicle.protocol import spot_pattern
from hakutsu.vehicle.shell import Patch, neighbours, shell
from hakutsu.vehicle.vocabulary import Finish, ReadingStatus

Floats = np.ndarray
_EVEN = np.linspace(0.01, 0.99, 41)
GRID = np.stack(np.meshgrid(_EVEN, _EVEN), axis=-1).reshape(-1, 2)
WAVES = 8
REPAIRED = (State.REFINISHED, State.REBUILT, State.FILLED)


@dataclass(frozen=True)
class Gauge:
    """A gauge: offset [µm] and gain, how both drift over a survey, display step and limit [µm], share of misreads,
    and dust [µm] it reads along.
    """

    step_um: float = 1.0
    limit_um: float = 1500.0
    offset_um: float = 0.0
    gain: float = 1.0
    misreads: float = 0.01
    dust_um: float = 0.0
    drift_um: float = 0.0

    def read(
        self, film_um: float, rng: np.random.Generator, *, done: float = 0.0
    ) -> tuple[float | None, ReadingStatus]:
        """What the display shows over a film [µm] when a share `done` of the survey is over."""
        dust = rng.exponential(self.dust_um) if self.dust_um else 0.0
        offset = self.offset_um + self.drift_um * done
        seen = (film_um * self.gain + offset + dust) * rng.normal(1, 0.008) + rng.normal(0, 0.8)
        if rng.random() < self.misreads:
            seen *= rng.lognormal(0, 0.7)
        shown = max(round(seen / self.step_um), 1) * self.step_um
        return (None, ReadingStatus.OVER) if shown >= self.limit_um else (shown, ReadingStatus.OK)


def usual_gauge(rng: np.random.Generator) -> Gauge:
    """A fair gauge: ±(2 µm + 2 %) at two standard deviations, 1 µm steps."""
    return Gauge(limit_um=float(rng.choice([1000, 1500, 2000])), offset_um=rng.normal(0, 1), gain=rng.normal(1, 0.01))


def rough_gauge(rng: np.random.Generator) -> Gauge:
    """A worn gauge on a dusty car: more error, more misreads, a step of 2 to 5 µm."""
    return Gauge(
        step_um=float(rng.choice([2, 5])), limit_um=float(rng.choice([800, 1250])), offset_um=rng.normal(0, 2),
        gain=rng.normal(1, 0.02), misreads=0.025, dust_um=2.5, drift_um=rng.normal(0, 2),
    )  # fmt: skip


def coarse_gauge(rng: np.random.Generator) -> Gauge:
    """A gauge that shows half mils and ends near 500 µm."""
    return Gauge(step_um=12.7, limit_um=508, offset_um=rng.normal(0, 1), gain=rng.normal(1, 0.01))


@dataclass(frozen=True)
class Lump:
    """Filler in one dent: centre, half-axes (share of the panel), tilt, peak [µm], and how its rim wobbles."""

    u: float
    v: float
    long: float
    wide: float
    tilt: float
    peak_um: float
    wobble: tuple[float, float]

    def thickness(self, u: Floats, v: Floats) -> Floats:
        """Filler [µm] at places: full in the middle, feathered out to nothing at the rim."""
        along = ((u - self.u) * np.cos(self.tilt) + (v - self.v) * np.sin(self.tilt)) / self.long
        over = (-(u - self.u) * np.sin(self.tilt) + (v - self.v) * np.cos(self.tilt)) / self.wide
        much, phase = self.wobble
        rim = 1 + much * np.cos(3 * np.arctan2(over, along) + phase)
        return np.asarray(self.peak_um * np.maximum(0, 1 - (np.hypot(along, over) / rim) ** 2.4))


@dataclass(frozen=True)
class PaintedPanel:
    """One panel's true film: its state, level [µm], waves of unevenness, lumps of filler, fade or polish as (amount
    [µm], direction of increase (u, v), where it begins), and film or wrap [µm] on top of the paint.
    """

    state: State
    level_um: float
    unevenness: float
    waves: Floats
    lumps: tuple[Lump, ...] = ()
    change: tuple[float, tuple[float, float], float] | None = None
    cover_um: float = 0.0

    def film(self, u: Floats, v: Floats) -> Floats:
        """True film [µm] at places, all that a gauge would read."""
        kx, ky, phase = self.waves.T
        wave = np.cos(np.outer(u, kx) + np.outer(v, ky) + phase).mean(axis=1) * np.sqrt(2 * len(self.waves))
        base = np.full_like(u, self.level_um)
        if self.change:
            amount, (du, dv), begins = self.change
            across = 0.5 + (u - 0.5) * du + (v - 0.5) * dv
            base = base + amount / (1 + np.exp(-(across - begins) / 0.05))
        return np.asarray(base * np.exp(self.unevenness * wave) + self.filler(u, v) + self.cover_um)

    def filler(self, u: Floats, v: Floats) -> Floats:
        """Thickness of filler [µm] at places; uneven by itself."""
        total = np.zeros_like(u)
        for lump in self.lumps:
            total = np.maximum(total, lump.thickness(u, v))
        rough = 1 + 0.15 * np.cos(17 * u + self.waves[0, 2]) * np.cos(13 * v + self.waves[1, 2])
        return np.asarray(total * rough)

    @property
    def filled_share(self) -> float:
        """Share of the panel's area whose film lies more than 150 µm above the refinish."""
        return float((self.filler(GRID[:, 0], GRID[:, 1]) > parameters().filled.counts_from_um).mean())


@dataclass(frozen=True)
class PaintedCar:
    """A car's true film, panel by panel."""

    finish: Finish
    panels: Mapping[str, PaintedPanel]
    style: str = "hatch"
    doors: int = 5

    def survey(
        self,
        rng: np.random.Generator,
        gauge: Gauge | None = None,
        spots: int | Sequence[int] | None = None,
        placed: float = 1.0,
        skipped: float = 0.0,
    ) -> FilmSurvey:
        """Read the car with a gauge.

        Parameters
        ----------
        spots : readings per panel, or several numbers to draw from; by default the full pattern
        placed : share of readings whose position is kept
        skipped : share of panels nobody measures
        """
        gauge = gauge or usual_gauge(rng)
        found: list[Observation] = []
        kept = [key for key in self.panels if rng.random() >= skipped]
        for i, key in enumerate(kept):
            pattern = list(spot_pattern(panels()[key]))
            wanted = spots if isinstance(spots, int) else int(rng.choice(spots)) if spots else len(pattern)
            extra = [tuple(rng.uniform(0.06, 0.94, 2)) for _ in range(max(0, wanted - len(pattern)))]
            if wanted < len(pattern):
                pattern = [pattern[j] for j in sorted(rng.choice(len(pattern), wanted, replace=False))]
            for u, v in [*pattern, *extra]:
                at_u, at_v = (float(np.clip(x + rng.normal(0, 0.03), 0, 1)) for x in (u, v))
                read = self.read(key, at_u, at_v, gauge, rng, done=i / len(kept))
                found.append(read if rng.random() < placed else replace(read, u=None, v=None))
        return FilmSurvey("simulated", found, self.finish, {key: default_substrate(key) for key in kept})

    def read(
        self, panel: str, u: float, v: float, gauge: Gauge, rng: np.random.Generator, *, done: float = 0.0
    ) -> Observation:
        """One reading at a place."""
        film = float(self.panels[panel].film(np.array([u]), np.array([v]))[0])
        value, status = gauge.read(film, rng, done=done)
        return Observation(panel, value, status, u, v, gauge.step_um, gauge.limit_um)


@dataclass
class _Painter:
    """Paints one car: the film of the factory, then repairs that start at a panel and run over its seams."""

    rng: np.random.Generator
    base_um: float
    patches: Mapping[str, Patch]
    keys: list[str]
    roughness: float = 1.0
    guard_um: float = 0.0
    done: dict[str, PaintedPanel] = field(default_factory=dict)

    def factory(self, key: str) -> None:
        own = self.base_um * self.rng.normal(1, 0.045 * self.roughness)
        own *= 1.035 if panels()[key].plane == "top" else 1.0
        own += self.guard_um if key.startswith("sill") else 0.0
        even = self.rng.lognormal(np.log(0.03), 0.3) * self.roughness
        self.done[key] = PaintedPanel(State.ORIGINAL, own, even, _waves(self.rng))

    def paint(self, key: str, state: State, bare_share: float = 0.33) -> None:
        rng, old = self.rng, self.done[key].level_um
        bare = rng.random() < (0.1 if state is State.FILLED else bare_share)
        level = rng.uniform(95, 215) if bare else old + rng.uniform(65, 190)
        if state is State.REBUILT:
            level = old + rng.uniform(200, 450)
        sprayed = rng.lognormal(np.log(0.06), 0.4) * self.roughness
        lumps = _lumps(rng) if state is State.FILLED else ()
        self.done[key] = PaintedPanel(state, level, sprayed, _waves(rng), lumps)

    def blend(self, key: str, towards: str) -> None:
        rng, panel = self.rng, self.done[key]
        change = (rng.uniform(30, 70), _towards(self.patches, key, towards), rng.uniform(0.4, 0.65))
        self.done[key] = replace(panel, state=State.BLENDED, change=change)

    def thin(self, key: str) -> None:
        rng, panel = self.rng, self.done[key]
        amount = -rng.uniform(15, 45)
        way = [(1, 0), (-1, 0), (0, 1), (0, -1)][rng.integers(4)]
        begins = -1.0 if rng.random() < 0.4 else rng.uniform(0.2, 0.6)
        self.done[key] = replace(panel, state=State.THINNED, change=(amount, way, begins))

    def repair(self, near: Mapping[str, Sequence[str]]) -> None:
        """One repair: a struck panel, and its neighbours painted along, blended or left."""
        rng = self.rng
        struck = self.keys[rng.integers(len(self.keys))]
        self.paint(struck, _drawn(rng, 0.5, 0.06, 0.44))
        for other in near[struck]:
            if other not in self.done or self.done[other].state is not State.ORIGINAL:
                continue
            luck = rng.random()
            if luck < 0.22:
                self.paint(other, _drawn(rng, 0.85, 0.03, 0.12))
            elif luck < 0.44:
                self.blend(other, struck)


def paint_car(
    rng: np.random.Generator,
    *,
    style: str = "hatch",
    doors: int = 5,
    history: str | None = None,
    repairs: float = 0.9,
    roughness: float = 1.0,
) -> PaintedCar:
    """A car of the factory with what happened to it since.

    Parameters
    ----------
    history : "in_places", "resprayed" or "stripped"; drawn at random if none
    repairs : mean number of repairs of a car repaired in places
    roughness : how uneven film is, as a multiple of the usual
    """
    keys = [key for key in walk_order(style, doors) if default_substrate(key).is_metal]
    patches = shell(style, doors, tuple(keys))
    history = history or str(rng.choice(["in_places", "resprayed", "stripped"], p=[0.88, 0.06, 0.06]))
    base = rng.lognormal(np.log(118), 0.15)
    guard = rng.uniform(60, 160) if rng.random() < 0.3 else 0.0
    painter = _Painter(rng, base, patches, keys, roughness, guard)
    for key in keys:
        painter.factory(key)
    if history == "in_places":
        for _ in range(rng.poisson(repairs)):
            painter.repair(neighbours(patches))
        for key in keys:
            if painter.done[key].state is State.ORIGINAL and rng.random() < 0.015:
                painter.thin(key)
        finish = rng.choice([Finish.FACTORY, Finish.UNKNOWN], p=[0.97, 0.03])
    else:
        chances = [0.87, 0.02, 0.11] if history == "resprayed" else [0.64, 0.16, 0.20]
        for key in keys:
            painter.paint(key, _drawn(rng, *chances), 0.03 if history == "resprayed" else 0.5)
        finish = Finish.RESTORED if history == "stripped" else rng.choice([Finish.FACTORY, Finish.UNKNOWN])
    return PaintedCar(Finish(finish), painter.done, style, doors)


def _drawn(rng: np.random.Generator, *chances: float) -> State:
    return REPAIRED[int(rng.choice(len(REPAIRED), p=chances))]


def _waves(rng: np.random.Generator) -> Floats:
    return np.column_stack([rng.uniform(-9, 9, (WAVES, 2)), rng.uniform(0, 2 * np.pi, WAVES)])


def _lumps(rng: np.random.Generator) -> tuple[Lump, ...]:
    first = rng.uniform((0.15, 0.08), (0.85, 0.65))
    found = []
    for i in range(rng.integers(1, 4)):
        centre = first + (rng.normal(0, 0.1, 2) if i else 0)
        long, wide = rng.uniform(0.12, 0.34, 2)
        peak = rng.lognormal(np.log(560), 0.6)
        wobble = (float(rng.uniform(0, 0.22)), float(rng.uniform(0, 2 * np.pi)))
        found.append(
            Lump(float(centre[0]), float(centre[1]), long, wide, rng.uniform(0, np.pi), max(peak, 190.0), wobble)
        )
    return tuple(found)


def _towards(patches: Mapping[str, Patch], key: str, other: str) -> tuple[float, float]:
    """The direction in a panel's own (u, v) in which another panel lies: one of its four sides."""
    x, y = patches[other].at(0.5, 0.5)
    sides = {(1.0, 0.0): (1, 0.5), (-1.0, 0.0): (0, 0.5), (0.0, 1.0): (0.5, 1), (0.0, -1.0): (0.5, 0)}

    def far(side: tuple[float, float]) -> float:
        px, py = patches[key].at(*sides[side])
        return float(np.hypot(px - x, py - y))

    return min(sides, key=far)
