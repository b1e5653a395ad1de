"""What may be tried on a vehicle: lights, controls, comfort, doors, seats and belts."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import cache

from hakutsu.vehicle.fitment import spans, usual
from hakutsu.vehicle.keyed import key_of
from hakutsu.vehicle.mechanics import Mechanics
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

    @property
    def base(self) -> str:
        """Its key without the side: that of its era and of what its findings ask for."""
        return self.key.removesuffix(f"_{self.side}") if self.side else self.key.partition(":")[0]


OWN = "own"  # what the table does not know and the inspector names


def own_equipment(name: str) -> Equipment:
    """A thing to try that the inspector named."""
    slug = "_".join("".join(one if one.isalnum() else " " for one in name.casefold()).split())
    like = equipment()[OWN]
    return Equipment(f"{OWN}:{slug}", name, like.group, like.place, True, False, 0)


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


def fitted_equipment(
    doors: int,
    there: Iterable[str] = (),
    absent: Iterable[str] = (),
    *,
    year: int | None = None,
    body: str = "",
    facts: Mapping[str, str] | None = None,
) -> list[Equipment]:
    """What a vehicle has: the usual things of its era and body, others said to be there, none said to be absent.

    Parameters
    ----------
    doors : how many
    there, absent : keys that somebody said
    year : of first use; where nobody said it, as on modern vehicles
    body : key of the body style
    facts : mechanical facts as they are known, by their names ("gearbox": "manual")
    """
    said, gone = set(there), set(absent)
    return [
        one
        for one in equipment().values()
        if one.key in said or (one.key not in gone and doors >= one.since_doors and has(one, year, body, facts or {}))
    ]


def facts_that_fit(mechanics: Mechanics) -> dict[str, str]:
    """The mechanical facts that decide what there is to try, by their names, as they are known."""
    return {"gearbox": key_of(mechanics.gearbox), "power": key_of(mechanics.power)}


def has(one: Equipment, year: int | None, body: str, facts: Mapping[str, str]) -> bool:
    """Whether vehicles of a year, body and facts usually have a thing to try."""
    span = spans("equipment").get(one.base)
    if span is None:
        return not one.optional
    if any(facts.get(fact, "unknown") not in known for fact, known in span.fits.items()):
        return False
    if span.bodies:
        return body in span.bodies and year is not None and usual("equipment", one.base, year) is True
    return not one.optional and usual("equipment", one.base, year) is True


def may_have(one: Equipment, year: int | None, facts: Mapping[str, str]) -> bool:
    """Whether a vehicle of a year and of facts as far as they are known can have a thing at all."""
    span = spans("equipment").get(one.base)
    if span and any(facts.get(fact, "unknown") not in (*known, "unknown") for fact, known in span.fits.items()):
        return False
    return one.key != OWN and usual("equipment", one.base, year) is not False
