"""What belongs to a vehicle and is often gone: keys, books, tools, covers."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from hakutsu.vehicle.mechanics import UNKNOWN
from hakutsu.vehicle.places import places
from hakutsu.vehicle.table_models import InventoryTable
from hakutsu.vehicle.tables import read_table


@dataclass(frozen=True, slots=True)
class Belonging:
    """A thing: name, where it is looked for, which powers have it (empty: all), what its absence
    means, and whether many vehicles never had one.
    """

    key: str
    name: str
    place: str
    power: tuple[str, ...]
    missing: str
    optional: bool


@cache
def belongings() -> dict[str, Belonging]:
    """All things by key.

    Raises
    ------
    ValueError
        If the data file names a place that does not exist.
    """
    found = {}
    for key, row in read_table("vehicle", "inventory", InventoryTable)["thing"].items():
        if row["place"] not in places():
            raise ValueError(f"thing {key} is looked for at {row['place']}, which is no place")
        found[key] = Belonging(
            key, row["name"], row["place"], tuple(row.get("power", ())), row["missing"],
            row.get("optional", False),
        )  # fmt: skip
    return found


def expected_belongings(power: str) -> list[Belonging]:
    """What may belong to a vehicle moved by a power; what is not known rules nothing out."""
    return [one for one in belongings().values() if not one.power or power in (*one.power, UNKNOWN)]
