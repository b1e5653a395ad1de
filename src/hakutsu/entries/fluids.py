"""A look at a fluid: level, colour by our own swatches, smell, debris, tests."""

from __future__ import annotations

from typing import Annotated, Any

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


class FluidState(Keyed):
    """How the vehicle was when the fluid was looked at."""

    UNKNOWN = "unknown", "not told"
    COLD = "cold"
    WARM = "warm"
    RUNNING = "running"


class Smell(Keyed):
    """What it smells of."""

    UNKNOWN = "unknown", "not smelt"
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


def _smelt(raw: dict[str, Any]) -> dict[str, Any]:
    """Where older entries said nothing of a smell, they meant that there was nothing particular."""
    return {"smell": "none"} | raw


@entry_kind("fluid.looked", version=3, upgrades={1: to_keys, 2: _smelt})
class Fluid(Body):
    """A fluid by its key: level, colour (a swatch's key), smell, debris, tests; freeze point of coolant [°C].

    Cold, warm and running (`state`) are three looks.
    """

    fluid: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("fluid")]
    state: FluidState = FluidState.UNKNOWN
    level: FluidLevel = FluidLevel.UNKNOWN
    colour: Annotated[str, StringConstraints(pattern=r"^[a-z]{0,20}$"), KeyOf("fluid colour")] = ""
    smell: Smell = Smell.UNKNOWN
    debris: Several[Debris] = ()
    test: Several[FluidTest] = ()
    freezes_c: Annotated[float, Field(ge=-80, le=10)] | None = None
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = ""
