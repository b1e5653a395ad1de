"""A third world of labelled film surveys, of our own making and unlike the first: how painters and factories work, not
how a model counts. Written as surveys.csv and truth.csv, like the labelled fleets.

What differs: film varies over a panel as a field; one factory's evenness, one painter's lift and evenness are shared by
a car; repaired panels are drawn from where a car was hit, from none to all; colour is blended out or carried over the
whole panel; filler has soft or hard edges, lies along a low edge, or is skimmed over a panel; seams hold lead; whole
cars are sprayed with uprights unlike flats; films and wraps lie on sound paint; gauges of coarse steps and short
ranges; surveys without positions and of one or two readings a panel.

Run: .venv/bin/python -m bench.film_third DIRECTORY [CARS [SEED]]
"""

from __future__ import annotations

import csv
import sys
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path

import numpy as np

from hakutsu.vehicle.panels import panels, walk_order

Rng = np.random.Generator
Field = Callable[[float, float], float]
STYLES = (("hatch", 5), ("hatch", 3), ("saloon", 4), ("estate", 5), ("coupe", 3))
GAUGES = ((1.0, "um"), (1.0, "um"), (1.0, "um"), (2.54, "mil"), (5.0, "um"), (12.7, "mil"))  # display step [µm], unit
LIMITS = (500.0, 508.0, 1000.0, 1250.0, 1500.0, 2000.0, 5000.0)
GRID = (np.arange(40) + 0.5) / 40
FLAT = ("roof", "bonnet", "boot_lid")
STORIES = {"untouched": 0.30, "spot": 0.24, "hit": 0.24, "most": 0.06, "whole": 0.05, "wrapped": 0.03, "filmed": 0.04,
           "thick": 0.04}  # fmt: skip


@dataclass
class Skin:
    """One panel: what happened to it, its film [µm] anywhere on it, and the share of it over filler."""

    state: str
    film: Field
    filled: float = 0.0


@dataclass
class Car:
    """A car before it is read: how its factory and its painter work, and its panels."""

    story: str
    names: list[str]
    finish: str = "factory"
    metal: dict[str, str] = field(default_factory=dict)
    skins: dict[str, Skin] = field(default_factory=dict)


def waves(rng: Rng, relative: float) -> Field:
    """A smooth field about one: long waves over the panel, and short ones of a hand's breadth."""
    ways = rng.normal(0, 1, (10, 2)) * np.where(np.arange(10) < 4, 2.2, 9.0)[:, None]
    turns, sd = rng.uniform(0, 2 * np.pi, 10), relative * np.sqrt(2 / 10)

    def at(u: float, v: float) -> float:
        return float(np.exp(sd * np.cos(ways @ (u, v) + turns).sum()))

    return at


def filler(rng: Rng) -> tuple[Field, Field]:
    """Thickness of filler [µm] over a panel, and how far the refinish around it reaches (0 to 1)."""
    peak = float(np.clip(rng.lognormal(np.log(480), 0.75), 160, 5000))
    kind = rng.choice(["feathered", "dome", "plateau", "low edge", "skim"], p=[0.4, 0.2, 0.2, 0.12, 0.08])
    u0, v0 = rng.uniform(0.1, 0.9), float(np.clip(rng.beta(1.4, 2.2), 0.06, 0.94))
    a, b = rng.lognormal(np.log(0.14), 0.45, 2).clip(0.05, 0.5)
    rough = waves(rng, 0.15)

    def shape(u: float, v: float) -> float:
        r = float(np.hypot((u - u0) / a, (v - v0) / b))
        if kind == "skim":
            return 0.9
        if kind == "low edge":
            return float(np.clip((1.6 * b - v) / b, 0, 1)) * float(np.clip((3 * a - abs(u - u0)) / a, 0, 1))
        if r >= 1:
            return 0.0
        return {"feathered": (1 - r * r) ** 2, "dome": (1 - r * r) ** 0.6, "plateau": min(1.0, (1 - r) / 0.3)}[kind]

    def reach(u: float, v: float) -> float:
        return float(np.clip(2.4 - np.hypot((u - u0) / (a + 0.08), (v - v0) / (b + 0.08)), 0, 1))

    return (lambda u, v: peak * shape(u, v) * rough(u, v)), reach


class Paint:
    """How the factory of a car and whoever painted it later lay film on panels."""

    def __init__(self, rng: Rng, car: Car) -> None:
        self.rng, self.car = rng, car
        thick = car.story == "thick"
        self.level = float(np.clip(rng.lognormal(np.log(172 if thick else 114), 0.09 if thick else 0.17), 68, 210))
        self.between, self.even = rng.lognormal(np.log(0.045), 0.45), rng.lognormal(np.log(0.031), 0.3)
        self.flat = rng.normal(0.02, 0.025)
        self.other_metal = rng.normal(0, 0.14)
        self.top = rng.uniform(35, 85) if rng.random() < 0.05 else 0.0
        self.guard = rng.uniform(50, 160) if rng.random() < 0.35 else 0.0
        self.lift, self.uneven = rng.lognormal(np.log(85), 0.42), rng.lognormal(np.log(0.05), 0.45)
        self.upright = rng.normal(0, 0.12)

    def own_level(self, name: str) -> float:
        """Factory film of a panel [µm]."""
        more = self.flat if name in FLAT else 0.0
        more += self.other_metal if self.car.metal[name] == "aluminium" else 0.0
        level = self.level * float(np.exp(more + self.rng.normal(0, self.between)))
        level += self.top if name == "roof" or "pillar" in name else 0.0
        return level + (self.guard if name.startswith("sill") else 0.0)

    def own(self, name: str) -> Skin:
        """A panel as the factory left it, now and then polished thin, or with lead in its seam."""
        level, even = self.own_level(name), waves(self.rng, self.even * self.rng.lognormal(0, 0.2))
        if self.rng.random() < 0.025:
            off, side = self.rng.uniform(15, 45), self.rng.uniform(-0.5, 1.5)
            return Skin("thinned", lambda u, v: level * even(u, v) - off * float(np.clip(side + u, 0.3, 1)))
        if ("quarter" in name or "c_pillar" in name) and self.rng.random() < 0.03:
            where, high = self.rng.uniform(0.1, 0.9), self.rng.uniform(200, 700)
            lead = lambda u: high * max(0.0, 1 - abs(u - where) / 0.05)  # noqa: E731
            return Skin("original", lambda u, v: level * even(u, v) + lead(u))
        return Skin("original", lambda u, v: level * even(u, v))

    def painted(self, name: str, *, filler_share: float, bare: float = 0.12) -> Skin:
        """A panel painted again, over the old film or on bare metal, twice, or over filler."""
        rng, under = self.rng, self.own_level(name)
        lift = self.lift * rng.lognormal(0, 0.22) * (1 if name in FLAT else float(np.exp(self.upright)))
        if rng.random() < bare:
            under, lift = 0.0, float(np.clip(rng.lognormal(np.log(145), 0.22), 90, 240))
        rough = waves(rng, self.uneven * rng.lognormal(0, 0.3))
        state = "refinished"
        if rng.random() < 0.05:
            state, lift = "rebuilt", float(np.clip(lift + rng.uniform(120, 260), 200, 450))
        if rng.random() >= filler_share:
            return Skin(state, lambda u, v: (under + lift) * rough(u, v))
        mud, reach = filler(rng)
        out = under > 0 and rng.random() < 0.4  # the colour is blended out, clear over the panel or not at all
        clear = rng.uniform(0, 35) if out else 0.0
        share = float(np.mean([[mud(u, v) > 30 for u in GRID] for v in GRID]))

        def film(u: float, v: float) -> float:
            over = clear + (lift - clear) * reach(u, v) if out else lift
            return (under + over) * rough(u, v) + mud(u, v)

        return Skin("filled" if share > 0.01 else state, film, share)

    def blended(self, name: str, from_front: bool) -> Skin:
        """A neighbour into which the colour was faded."""
        level, even = self.own_level(name), waves(self.rng, self.even)
        more, begins = self.rng.uniform(25, 75), self.rng.uniform(0.3, 0.7)

        def film(u: float, v: float) -> float:
            across = u if from_front else 1 - u
            return level * even(u, v) + more * float(np.clip((begins + 0.12 - across) / 0.24, 0, 1))

        return Skin("blended", film)

    def covered(self, name: str, thick: float) -> Skin:
        """A sound panel under film or wrap."""
        skin = self.own(name)
        return Skin(skin.state, lambda u, v: skin.film(u, v) + thick)


def hit(rng: Rng, names: list[str]) -> tuple[list[str], list[str]]:
    """Panels around a place where a car was hit, painted and faded into."""
    walk = [n for n in names if "bumper" not in n]
    first = int(rng.integers(len(walk)))
    count = int(rng.choice([2, 3, 4, 5], p=[0.35, 0.3, 0.2, 0.15]))
    struck = [walk[(first + i) % len(walk)] for i in range(count)]
    beside = [walk[(first - 1) % len(walk)], walk[(first + count) % len(walk)]]
    return struck, [one for one in beside if rng.random() < 0.35]


def painted_panels(rng: Rng, car: Car) -> dict[str, float]:
    """Panels painted again, with how likely each hides filler."""
    walk = [n for n in car.names if "bumper" not in n]
    match car.story:
        case "spot":
            return {str(one): 0.55 for one in rng.choice(walk, int(rng.integers(1, 4)), replace=False)}
        case "most":
            share = rng.uniform(0.5, 0.95)
            return {one: 0.08 for one in walk if rng.random() < (0.12 if one == "roof" or "pillar" in one else share)}
        case "whole":
            return dict.fromkeys(walk, 0.06)
    return {}


def make_car(rng: Rng) -> Car:
    """One car, painted."""
    style = STYLES[int(rng.integers(len(STYLES)))]
    names = walk_order(*style)
    car = Car(str(rng.choice(list(STORIES), p=list(STORIES.values()))), names)
    light = rng.random() < 0.1
    for name in names:
        plastic = "bumper" in name
        car.metal[name] = "plastic" if plastic else "aluminium" if light and name in (
            "bonnet", "front_wing_left", "front_wing_right") else "steel"  # fmt: skip
    paint = Paint(rng, car)
    again = painted_panels(rng, car)
    faded: list[str] = []
    if car.story == "hit":
        struck, faded = hit(rng, names)
        again = dict.fromkeys(struck, 0.3)
    wrap = rng.uniform(80, 125) if car.story == "wrapped" else 0.0
    film = set(rng.choice(names, 3, replace=False)) if car.story == "filmed" else set()
    for name in names:
        if car.metal[name] == "plastic":
            continue
        if name in again:
            car.skins[name] = paint.painted(name, filler_share=again[name])
        elif name in faded:
            car.skins[name] = paint.blended(name, bool(rng.random() < 0.5))
        elif wrap or name in film:
            car.skins[name] = paint.covered(name, wrap or rng.uniform(150, 230))
        else:
            car.skins[name] = paint.own(name)
    return car


@dataclass
class Reader:
    """A gauge and whoever holds it."""

    rng: Rng
    step: float
    unit: str
    limit: float
    offset: float
    gain: float
    placed: bool
    few: bool

    def reading(self, skin: Skin, u: float, v: float) -> float | None:
        """What the gauge shows at a place [µm]; none for over."""
        film = skin.film(u, v) * self.gain + self.offset + self.rng.normal(0, 1 + 0.006 * 120)
        if self.rng.random() < 0.007:
            film *= self.rng.choice([0.35, 0.6, 1.7, 3.0])
        shown = max(round(film / self.step), 1) * self.step
        return None if shown >= self.limit else shown

    def panel(self, name: str, skin: Skin) -> list[tuple[float, float, float | None]]:
        """Places and readings of a panel; what surprises is read again beside it, then circled."""
        count = int(self.rng.integers(1, 3)) if self.few else 5 if panels()[name].size == "large" else 3
        places = [(0.25, 0.7), (0.75, 0.7), (0.5, 0.45), (0.25, 0.2), (0.75, 0.2)][:count]
        rows = [self._at(skin, *(np.array(at) + self.rng.normal(0, 0.06, 2)).clip(0.03, 0.97)) for at in places]
        if self.few:
            return rows
        middle = float(np.median([self.limit if row[2] is None else row[2] for row in rows]))
        odd = [row for row in rows if row[2] is None or abs(row[2] - middle) > max(25, 0.25 * middle)]
        for u, v, _ in odd[:2]:
            rows += [self._at(skin, u + du, v + dv) for du, dv in self.rng.normal(0, 0.012, (2, 2))]
            if self.rng.random() < 0.6:
                rows += [self._at(skin, u + du, v + dv) for du, dv in ((0.11, 0), (-0.11, 0), (0, 0.13), (0, -0.13))]
        return rows

    def _at(self, skin: Skin, u: float, v: float) -> tuple[float, float, float | None]:
        u, v = float(np.clip(u, 0.01, 0.99)), float(np.clip(v, 0.01, 0.99))
        return u, v, self.reading(skin, u, v)


def make_reader(rng: Rng) -> Reader:
    """A gauge, its error within what is allowed, and a protocol."""
    step, unit = GAUGES[int(rng.integers(len(GAUGES)))]
    limit = float(rng.choice(LIMITS))
    return Reader(
        rng, step, unit, limit, rng.normal(0, 1), rng.normal(1, 0.01), rng.random() > 0.15, rng.random() < 0.1
    )


COLUMNS = (
    "survey", "panel", "u", "v", "reading", "unit", "status", "substrate", "finish", "gauge_limit", "resolution",
)  # fmt: skip
TRUTH = ("survey", "panel", "state", "detail", "filled_fraction")
Rows = list[tuple[object, ...]]


def survey(name: str, rng: Rng) -> tuple[Rows, Rows]:
    """One car as rows of its survey and of its truth."""
    car, reader = make_car(rng), make_reader(rng)
    read, truth = Rows(), Rows()
    for panel, skin in car.skins.items():
        for u, v, shown in reader.panel(panel, skin):
            at = (f"{u:.2f}", f"{v:.2f}") if reader.placed else ("", "")
            value = "" if shown is None else f"{shown / 25.4:.2f}" if reader.unit == "mil" else f"{shown:.0f}"
            gauge = (car.metal[panel], car.finish, f"{reader.limit:g}", f"{reader.step:g}")
            read.append((name, panel, *at, value, reader.unit, "over" if shown is None else "ok", *gauge))
        truth.append((name, panel, skin.state, car.story, f"{skin.filled:.3f}"))
    return read, truth


def write(directory: Path, cars: int, seed: int) -> None:
    """Cars as surveys and truth."""
    directory.mkdir(parents=True, exist_ok=True)
    with (directory / "surveys.csv").open("w") as one, (directory / "truth.csv").open("w") as two:
        surveys, truths = csv.writer(one, lineterminator="\n"), csv.writer(two, lineterminator="\n")
        surveys.writerow(COLUMNS)
        truths.writerow(TRUTH)
        for number in range(cars):
            read, truth = survey(f"t{number:05}", np.random.default_rng([seed, number]))
            surveys.writerows(read)
            truths.writerows(truth)


if __name__ == "__main__":
    write(
        Path(sys.argv[1]), int(sys.argv[2]) if len(sys.argv) > 2 else 400, int(sys.argv[3]) if len(sys.argv) > 3 else 1
    )
