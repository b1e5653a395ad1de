"""What wears in the cabin, and from which distance each grade is usual."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from hakutsu.vehicle.places import places
from hakutsu.vehicle.table_models import CabinTable
from hakutsu.vehicle.tables import read_table


@dataclass(frozen=True, slots=True)
class CabinPart:
    """A part: name, place, distances [km] or, where time and sun do it, ages [years] from which light, clear and heavy
    wear are usual, and whether it is often renewed.
    """

    key: str
    name: str
    place: str
    usual_km: tuple[float, ...]
    retrim: bool
    usual_years: tuple[float, ...] = ()


@cache
def cabin_parts() -> dict[str, CabinPart]:
    """All parts by key.

    Raises
    ------
    ValueError
        If the data file names a place that does not exist, or distances that do not rise.
    """
    found = {}
    for key, row in read_table("vehicle", "cabin", CabinTable)["part"].items():
        usual = tuple(1000.0 * one for one in row.get("usual_km", ()))
        years = tuple(float(one) for one in row.get("usual_years", ()))
        if row["place"] not in places() or list(usual) != sorted(usual) or list(years) != sorted(years):
            raise ValueError(f"cabin part {key}: no such place, or distances or ages that do not rise")
        found[key] = CabinPart(key, row["name"], row["place"], usual, row.get("retrim", False), years)
    return found
