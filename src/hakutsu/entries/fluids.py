"""A look at a fluid: level, colour by our own swatches, smell, debris, tests."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, StringConstraints

from hakutsu.entries.bounds import KeyOf, Several
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.keyed import Keyed


class FluidLevel(Keyed):
    """Level under the maker's condition."""

    UNKNOWN = "unknown", "not read"
    RIGHT = "right"
    LOW = "low"
    BELOW = "below", "below the mark"
    OVER = "over"


class Smell(Keyed):
    """What it smells of."""

    NONE = "none", "nothing particular"
    FUEL = "fuel"
    BURNT = "burnt"
    SWEET = "sweet"


class Debris(Keyed):
    """What is in it."""

    METAL = "metal"
    FIBRES = "fibres"
    FILM = "film", "oil film"
    FOAM = "foam"
    SLUDGE = "sludge"


class FluidTest(Keyed):
    """What a test of the coolant found."""

    CLEAN = "clean", "no combustion gas"
    GAS = "gas", "combustion gas found"
    BUBBLES = "bubbles", "bubbles while running"
    INHIBITOR = "inhibitor", "inhibitor used up"


@entry_kind("fluid.looked", version=2, upgrades={1: to_keys})
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
