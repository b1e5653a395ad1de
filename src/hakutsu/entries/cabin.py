"""The cabin: wear by part, and what is smelt, felt and seen."""

from __future__ import annotations

from typing import Annotated, Self

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


@entry_kind("cabin.looked", version=2, upgrades={1: to_keys})
class CabinLooked(Body):
    """What is smelt, felt and seen inside. Airbags and belts: looked at only, nothing touched."""

    smells: Several[CabinSmell] = ()
    moist: Several[Moist] = ()
    signs: Several[CabinSign] = ()
    note: Note = ""

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
