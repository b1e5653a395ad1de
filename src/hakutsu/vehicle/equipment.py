"""What may be tried on a vehicle: lights, controls, comfort, doors, seats and belts."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache

from hakutsu.vehicle.panels import Side
from hakutsu.vehicle.places import places
from hakutsu.vehicle.table_models import EquipmentTable
from hakutsu.vehicle.tables import read_table


@dataclass(frozen=True, slots=True)
class Equipment:
    """One thing to try: name (the side in braces), group, place; whether many vehicles lack it; whether it has steps to
    try one by one; from how many doors on; its side.
    """

    key: str
    name: str
    group: str
    place: str
    optional: bool
    steps: bool
    since_doors: int
    side: Side | None = None


@cache
def equipment() -> dict[str, Equipment]:
    """All of it by key.

    Raises
    ------
    ValueError
        If the data file names a place that does not exist.
    """
    found = {}
    for key, row in read_table("vehicle", "equipment", EquipmentTable)["item"].items():
        sides: tuple[Side | None, ...] = ("left", "right") if row.get("sided") else (None,)
        for side in sides:
            place = row["place"].replace("{s}", side or "")
            if place not in places():
                raise ValueError(f"equipment {key} lies at {place}, which is no place")
            full = f"{key}_{side}" if side else key
            found[full] = Equipment(
                full, row["name"].replace("{s}", f"{{{side}}}"), row["group"], place, row.get("optional", False),
                row.get("steps", False), row.get("since_doors", 0), side,
            )  # fmt: skip
    return found


def fitted_equipment(doors: int, there: Iterable[str] = (), absent: Iterable[str] = ()) -> list[Equipment]:
    """What a vehicle has: the usual things, optional ones said to be there, none said to be absent."""
    said, gone = set(there), set(absent)
    return [
        one
        for one in equipment().values()
        if one.key not in gone and doors >= one.since_doors and (not one.optional or one.key in said)
    ]
