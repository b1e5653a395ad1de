"""The cabin: wear by part, and what is smelt, felt and seen."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Self

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.cabin import cabin_parts

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]


class Wear(StrEnum):
    """How worn a part is, by eye and hand."""

    NEW = "as new"
    LIGHT = "light"
    CLEAR = "clear"
    HEAVY = "heavy"
    THROUGH = "worn through"


@entry_kind("cabin.wear")
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


class CabinSmell(StrEnum):
    """What it smells of inside."""

    DAMP = "damp"
    FUEL = "fuel"
    COOLANT = "coolant"
    SMOKE = "smoke"
    PERFUME = "perfume hiding something"


class Moist(StrEnum):
    """Where moisture was felt."""

    MATS_FRONT = "under the front mats"
    MATS_REAR = "under the rear mats"
    BOOT = "boot floor"
    ROOF = "at the roof opening"


class CabinSign(StrEnum):
    """Signs that somebody worked inside, or something happened."""

    OVERSPRAY = "paint overspray"
    GLUE = "glue"
    STAIN = "stains"
    TEAR = "tears"
    BURN = "burns"
    AIRBAG_COVER = "airbag cover not as made"
    BELT_DATE = "belt date marks differ"


@entry_kind("cabin.looked")
class CabinLooked(Body):
    """What is smelt, felt and seen inside. Airbags and belts: looked at only, nothing touched."""

    smells: tuple[CabinSmell, ...] = ()
    moist: tuple[Moist, ...] = ()
    signs: tuple[CabinSign, ...] = ()
    unmarked: Annotated[int, Field(ge=0, le=50)] = 0
    note: Note = ""

    def causes(self) -> tuple[str, ...]:
        return ("fuel_smell",) if CabinSmell.FUEL in self.smells else ()
