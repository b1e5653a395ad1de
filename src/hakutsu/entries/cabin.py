"""The cabin: wear by part, and what is smelt, felt and seen."""

from __future__ import annotations

from typing import Annotated, Any, Self

from pydantic import StringConstraints, model_validator

from hakutsu.entries.bounds import Several
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.inventory import belongings
from hakutsu.vehicle.keyed import Keyed

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]


class Wear(Keyed):
    """How worn a part is, by eye and hand."""

    NEW = "new", "as new"
    LIGHT = "light"
    CLEAR = "clear"
    HEAVY = "heavy"
    THROUGH = "through", "worn through"


@entry_kind("cabin.wear", version=2, upgrades={1: to_keys})
class CabinWear(Body):
    """How worn a part of the cabin is; `renewed`: it was re-trimmed or replaced."""

    part: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$")]
    wear: Wear
    renewed: bool = False
    note: Note = ""

    @model_validator(mode="after")
    def _known(self) -> Self:
        if self.part not in cabin_parts():
            raise ValueError(f"“{self.part}” is no part of the cabin that is graded")
        return self


class CabinSmell(Keyed):
    """What it smells of inside."""

    DAMP = "damp"
    FUEL = "fuel"
    COOLANT = "coolant"
    SMOKE = "smoke"
    PERFUME = "perfume", "perfume hiding something"


class Moist(Keyed):
    """Where moisture was felt."""

    MATS_FRONT = "mats_front", "under the front mats"
    MATS_REAR = "mats_rear", "under the rear mats"
    BOOT = "boot", "boot floor"
    ROOF = "roof", "at the roof opening"
    FOOTWELL = "footwell", "in the footwell, carpet lifted"


class CabinSign(Keyed):
    """Signs that somebody worked inside, or something happened."""

    OVERSPRAY = "overspray", "paint overspray"
    GLUE = "glue"
    STAIN = "stains"
    TEAR = "tears"
    BURN = "burns"
    DYE = "dye", "dyed over"
    FOAM = "foam", "seat foam broken down"
    HEADLINING = "headlining", "headlining hangs or is stained"
    MATS = "mats", "mats cover something"
    AIRBAG_COVER = "airbag_cover", "airbag cover not as made"
    BELT_DATE = "belt_date", "belt date marks differ"
    SILT = "silt", "silt or a tide line under the carpet"


def _all_looked(raw: dict[str, Any]) -> dict[str, Any]:
    """Older entries that named nothing meant that there was nothing."""
    none = {"no_smell": True} if not raw.get("smells") else {}
    return raw | none | ({} if raw.get("moist") else {"dry": [one.value for one in Moist]})


@entry_kind("cabin.looked", version=3, upgrades={1: to_keys, 2: _all_looked})
class CabinLooked(Body):
    """What is smelt, felt and seen inside; `dry` was felt and is dry. Airbags and belts are not touched."""

    smells: Several[CabinSmell] = ()
    no_smell: bool = False
    moist: Several[Moist] = ()
    dry: Several[Moist] = ()
    signs: Several[CabinSign] = ()
    note: Note = ""

    @model_validator(mode="after")
    def _one_answer(self) -> Self:
        if set(self.moist) & set(self.dry) or (self.no_smell and self.smells):
            raise ValueError("both found and not found: which of them?")
        if not (self.smells or self.no_smell or self.moist or self.dry or self.signs or self.note):
            raise ValueError("say what was smelt, felt or seen")
        return self

    def causes(self) -> tuple[str, ...]:
        return ("fuel_smell",) if CabinSmell.FUEL in self.smells else ()


class There(Keyed):
    """Whether something that may belong to a vehicle is there."""

    PRESENT = "present"
    MISSING = "missing"
    NOT_EXPECTED = "not_expected", "not expected"


@entry_kind("cabin.inventory", version=2, upgrades={1: to_keys})
class Inventory(Body):
    """A thing that may belong to the vehicle: present, missing, or not expected with this one."""

    thing: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$")]
    there: There

    @model_validator(mode="after")
    def _known(self) -> Self:
        if self.thing not in belongings():
            raise ValueError(f"“{self.thing}” is nothing the inventory knows")
        return self


@entry_kind("cabin.control")
class Control(Body):
    """A control without a mark: what it looks like, where, what it did when tried, and its picture's name or number."""

    looks: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200)]
    where: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] = ""
    does: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    picture: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)] = ""
