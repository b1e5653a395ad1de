"""A look at a fluid: level, colour by our own swatches, smell, debris, tests."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field, StringConstraints

from hakutsu.entries.bounds import KeyOf, Several
from hakutsu.entries.registry import Body, entry_kind


class FluidLevel(StrEnum):
    """Level under the maker's condition."""

    UNKNOWN = "not read"
    RIGHT = "right"
    LOW = "low"
    BELOW = "below the mark"
    OVER = "over"


class Smell(StrEnum):
    """What it smells of."""

    NONE = "nothing particular"
    FUEL = "fuel"
    BURNT = "burnt"
    SWEET = "sweet"


class Debris(StrEnum):
    """What is in it."""

    METAL = "metal"
    FIBRES = "fibres"
    FILM = "oil film"
    FOAM = "foam"
    SLUDGE = "sludge"


class FluidTest(StrEnum):
    """What a test of the coolant found."""

    CLEAN = "no combustion gas"
    GAS = "combustion gas found"
    BUBBLES = "bubbles while running"
    INHIBITOR = "inhibitor used up"


@entry_kind("fluid.looked")
class Fluid(Body):
    """A fluid by its key: level, colour (a swatch's key), smell, debris, tests; freeze point of coolant [°C]."""

    fluid: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("fluid")]
    level: FluidLevel = FluidLevel.UNKNOWN
    colour: Annotated[str, StringConstraints(pattern=r"^[a-z]{0,20}$"), KeyOf("fluid colour")] = ""
    smell: Smell = Smell.NONE
    debris: Several[Debris] = ()
    test: Several[FluidTest] = ()
    freezes_c: Annotated[float, Field(ge=-80, le=10)] | None = None
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = ""
