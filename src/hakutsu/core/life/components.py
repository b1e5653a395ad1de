"""The parts a vehicle has, with their characteristic lives, and what is due by the calendar; data files in `data/`."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtri

from hakutsu.core.life.tables import ComponentsDefaults, ComponentsTable, ScheduledTable
from hakutsu.vehicle.fitment import as_built, usual
from hakutsu.vehicle.mechanics import UNKNOWN, Drive, Mechanics, RearAxle
from hakutsu.vehicle.tables import Row, read_table

CORNERS = ("front_left", "front_right", "rear_left", "rear_right")
Corners = Literal["", "all", "front", "rear", "driven", "doors"]


@dataclass(frozen=True, slots=True)
class Component:
    """A part with its characteristic life η by distance [km] and by time [years], and the Weibull shape of both.

    Lives are per piece where it sits at corners. `looked_only`: graded, with no life of its own. `brakes`: only on an
    axle with such brakes; `beam_rear` false: not on an axle in one piece; `part_of`: a detail of another component,
    graded apart where somebody looked at it apart.
    """

    key: str
    name: str
    km: float | None
    years: float | None
    beta: float
    job: str
    labour: str
    corners: Corners
    fits: Mapping[str, Sequence[str]]
    optional: bool
    axle_job: bool
    beam_rear: bool
    tested: tuple[str, ...]
    basis: str
    stainless_years: float | None = None
    looked_only: bool = False
    plural: str = ""
    brakes: str = ""
    part_of: str = ""


@dataclass(frozen=True, slots=True)
class Scheduled:
    """Something due by distance [km] or time [years] since it was last proven done."""

    key: str
    name: str
    km: float | None
    years: float | None
    job: str
    labour: str
    fits: Mapping[str, Sequence[str]]


@dataclass(frozen=True, slots=True)
class Piece:
    """One piece of a component on a vehicle: at a corner, or the only one."""

    component: Component
    corner: str = ""

    @property
    def key(self) -> str:
        """Component and corner."""
        return f"{self.component.key}:{self.corner}" if self.corner else self.component.key

    @property
    def name(self) -> str:
        """Name, the side in braces (for `Terms.say`)."""
        return f"{self.component.name}, {corner_name(self.corner)}" if self.corner else self.component.name


def corner_name(corner: str) -> str:
    """A corner in words, the side in braces."""
    axle, side = corner.split("_")
    return f"{axle} {{{side}}}"


def _table() -> ComponentsTable:
    return read_table("core.life", "components", ComponentsTable)


def life_table() -> ComponentsDefaults:
    """What holds for all lives of the table: their scale, their uncertainty."""
    return _table().defaults


@cache
def life_factors() -> NDArray[np.float64]:
    """Factors of characteristic lives in equally likely cases, log-normal about 1: the table is itself uncertain."""
    count = life_table().cases
    middle = ndtri((np.arange(count) + 0.5) / count)
    return np.asarray(np.exp(float(life_table().ln_sd) * middle / middle.std()))


def _fits(row: Row, engine: Sequence[str]) -> dict[str, Sequence[str]]:
    return {key: engine if value == "engine" else value for key, value in row.get("fits", {}).items()}


@cache
def components() -> dict[str, Component]:
    """All components by key, those with a life first."""
    table = _table()
    engine, basis, scale = table.defaults.engine, table["defaults"]["basis"], float(table.defaults.scale)
    found = {}
    for group in ("part", "look"):
        for key, row in table[group].items():
            km, years, stainless = (
                row[clock] * unit * scale if clock in row else None
                for clock, unit in (("km", 1000.0), ("years", 1.0), ("stainless_years", 1.0))
            )
            found[key] = Component(
                key, row["name"], km, years, row.get("beta", 1.0),
                row["job"], row.get("labour", ""), row.get("corners", ""), _fits(row, engine),
                row.get("optional", False), row.get("axle_job", False), row.get("beam_rear", True),
                tuple(row.get("tested", ())), row.basis or basis, stainless, group == "look",
                row.get("plural", f"{row['name']}s"), row.get("brakes", ""), row.get("part_of", ""),
            )  # fmt: skip
    return found


@cache
def scheduled_items() -> dict[str, Scheduled]:
    """All scheduled items by key."""
    engine = _table().defaults.engine
    return {
        key: Scheduled(
            key, row["name"], row["km"] * 1000.0 if "km" in row else None, row.get("years"), row["job"],
            row.get("labour", ""), _fits(row, engine),
        )
        for key, row in read_table("core.life", "scheduled", ScheduledTable).item.items()
    }  # fmt: skip


def fitted(row: Component | Scheduled, vehicle: Mechanics) -> bool | None:
    """Whether a vehicle has it; none where what decides that is not known: a fact, or its era."""
    if row.key in vehicle.not_fitted:
        return False
    if row.key in vehicle.also_fitted:
        return True
    if isinstance(row, Component) and row.optional:
        return False
    answer = usual("part", row.key, vehicle.year)
    if answer is False:
        return False
    for field, known in row.fits.items():
        value = as_built(vehicle, field)
        if value == UNKNOWN:
            answer = None
        elif value not in known:
            return False
    return answer


def pieces(vehicle: Mechanics, doors: int) -> list[Piece]:
    """Every piece this vehicle has, in the order of the table; what is not known to be fitted is left out."""
    found = []
    for one in components().values():
        if fitted(one, vehicle) and not one.part_of:
            found += [Piece(one, corner) for corner in _corners(one, vehicle, doors)]
    return found


def not_told(vehicle: Mechanics) -> list[Component | Scheduled]:
    """What may or may not be fitted, for want of a fact."""
    rows: list[Component | Scheduled] = [*components().values(), *scheduled_items().values()]
    return [
        one for one in rows if fitted(one, vehicle) is None and not (isinstance(one, Component) and one.looked_only)
    ]


def details(vehicle: Mechanics, of: str) -> list[Component]:
    """The details of a component that may be graded apart on this vehicle, such as the inner and the outer boot."""
    return [one for one in components().values() if one.part_of == of and fitted(one, vehicle) is not False]


def at_corner(one: Component, vehicle: Mechanics, corner: str) -> bool | None:
    """Whether a component of the corners sits at one; none where the driven axle or its brakes are not known."""
    axle = corner.split("_")[0]
    if one.corners in ("front", "rear") and one.corners != axle:
        return False
    if not one.beam_rear and axle == "rear" and vehicle.rear_axle in (RearAxle.BEAM, RearAxle.RIGID):
        return False
    if not one.beam_rear and axle == "front" and as_built(vehicle, "front_axle") == "rigid":
        return False
    if one.brakes:
        brakes = as_built(vehicle, f"{axle}_brakes")
        if brakes != UNKNOWN and brakes != one.brakes:
            return False
        if brakes == UNKNOWN:
            return None
    if one.corners == "driven" and vehicle.drive is not Drive.ALL:
        return None if vehicle.drive is Drive.UNKNOWN else vehicle.drive.value == axle
    return True


def _corners(one: Component, vehicle: Mechanics, doors: int) -> Sequence[str]:
    if not one.corners:
        return ("",)
    if one.corners == "doors":
        return CORNERS if doors >= 4 else CORNERS[:2]
    sure = [corner for corner in CORNERS if at_corner(one, vehicle, corner)]
    if one.brakes == "discs":  # discs at both axles are so common that an axle nobody spoke of is reckoned with
        return [corner for corner in CORNERS if at_corner(one, vehicle, corner) is not False]
    return sure
