"""Places round and in a vehicle: where an inspector stands, which panels are within reach, in which order one walks."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache

from hakutsu.vehicle.panels import Side, panels
from hakutsu.vehicle.table_models import PlacesTable
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.vocabulary import Direction

FIRST = "front"
WHEELS = ("wheel_front_left", "wheel_front_right", "wheel_rear_left", "wheel_rear_right")
SPARE = "wheel_spare"
# Places that stand for several corners: an axle, or all four.
CORNERS_OF = {
    "axle_front": WHEELS[:2], "axle_rear": WHEELS[2:], "wheels": WHEELS,
}  # fmt: skip


def corners_of(place: str | None) -> tuple[str, ...]:
    """The wheels a place stands for: those of an axle, all four, or itself."""
    return CORNERS_OF.get(place or "", (place,) if place else ())


@dataclass(frozen=True, slots=True)
class Place:
    """A place, its name (the side in braces, for `Terms.say`), the vehicle's own side, and the panels within reach."""

    key: str
    name: str
    side: Side | None
    panels: tuple[str, ...]


@cache
def _table() -> PlacesTable:
    return read_table("vehicle", "places", PlacesTable)


@cache
def places() -> dict[str, Place]:
    """All places by key.

    Raises
    ------
    ValueError
        If the data file names a panel that does not exist.
    """
    found: dict[str, Place] = {}
    for key, row in _table()["place"].items():
        sides: tuple[Side | None, ...] = ("left", "right") if row.get("sided") else (None,)
        for side in sides:
            within = [name for panel in row["panels"] for name in _keys(panel, side)]
            name = row["name"].replace("{s}", f"{{{side}}}")
            full = f"{key}_{side}" if side else key
            found[full] = Place(full, name, side, tuple(within))
    return found


def _keys(panel: str, side: Side | None) -> list[str]:
    keys = [panel] if panel in panels() else [f"{panel}_{s}" for s in ((side,) if side else ("left", "right"))]
    for key in keys:
        if key not in panels():
            raise ValueError(f"places name the panel {key}, which does not exist")
    return keys


@cache
def place_of_panel() -> dict[str, str]:
    """The place from which each panel is reached."""
    return {panel: place.key for place in places().values() for panel in place.panels}


def outside() -> tuple[str, ...]:
    """Places on the walk round the vehicle."""
    return tuple(_table()["ring"])


def walk(start: str = FIRST, direction: Direction = Direction.LEFT_FIRST) -> list[str]:
    """All places in walk order.

    Parameters
    ----------
    start : a place of the walk round the vehicle
    direction : from the nose along the vehicle's own left side first, or its right

    Raises
    ------
    ValueError
        If `start` is no place of that walk.
    """
    ring: Sequence[str] = outside()
    if start not in ring:
        raise ValueError(f"the walk round a vehicle can begin at {', '.join(ring)}, not at “{start}”")
    if direction is Direction.RIGHT_FIRST:
        ring = [ring[0], *reversed(ring[1:])]
    at = ring.index(start)
    return [*ring[at:], *ring[:at], *_table()["then"]]
