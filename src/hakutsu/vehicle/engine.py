"""What is looked at under the bonnet and from the seat while the engine runs."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from functools import cache

from hakutsu.vehicle.fitment import usual
from hakutsu.vehicle.mechanics import UNKNOWN
from hakutsu.vehicle.places import places
from hakutsu.vehicle.table_models import EngineTable
from hakutsu.vehicle.tables import read_table


@dataclass(frozen=True, slots=True)
class EngineLookAt:
    """Something the engine station expects: name, place, room of the station, powers that have it (empty: all), and
    whether only the thorough protocol asks for it.
    """

    key: str
    name: str
    place: str
    room: str
    power: tuple[str, ...]
    thorough: bool


@cache
def engine_looks() -> dict[str, EngineLookAt]:
    """All of them by key.

    Raises
    ------
    ValueError
        If the data file names a place that does not exist.
    """
    found = {}
    for key, row in read_table("vehicle", "engine", EngineTable)["look"].items():
        if row["place"] not in places():
            raise ValueError(f"look {key} is taken at {row['place']}, which is no place")
        found[key] = EngineLookAt(
            key, row["name"], row["place"], row["room"], tuple(row.get("power", ())), row.get("thorough", False)
        )  # fmt: skip
    return found


def expected_looks(
    power: str, *, thorough: bool, year: int | None = None, absent: Collection[str] = (), there: Collection[str] = ()
) -> list[EngineLookAt]:
    """What is expected of a vehicle moved by a power and first used in a year; where those are not known, what every
    vehicle has or most have. `there` and `absent` are keys that somebody said.
    """
    return [
        one
        for one in engine_looks().values()
        if (thorough or not one.thorough)
        and one.key not in absent
        and (one.key in there or usual("look", one.key, year) is True)
        and (not one.power or power in one.power or (power == UNKNOWN and one.key != "pack"))
    ]
