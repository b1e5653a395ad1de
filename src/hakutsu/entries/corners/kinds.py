"""What the entries of a corner share."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field, StringConstraints

from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.places import CORNERS_OF, WHEELS

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Short = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)]
Thickness = Annotated[float, Field(ge=0, le=60)]


Percent = Annotated[float, Field(ge=0, le=100)]
Percents = tuple[Percent, Percent]


def rising(said: tuple[float, float] | None) -> tuple[float, float] | None:
    """A range whose lowest is not above its highest."""
    if said is not None and said[0] > said[1]:
        raise ValueError("the lowest is above the highest")
    return said


class Compared(Keyed):
    """A part said by another: "a little less than the front"."""

    UNKNOWN = "unknown", "not compared"
    SAME = "same", "the same as"
    LITTLE_LESS = "little_less", "a little less than"
    MUCH_LESS = "much_less", "much less than"
    LITTLE_MORE = "little_more", "a little more than"
    MUCH_MORE = "much_more", "much more than"


def check_compared(compared: Compared, to: str) -> None:
    """See that what is compared says with what.

    Raises
    ------
    ValueError
        If it does not, or names no corner, axle or all four.
    """
    if (compared is Compared.UNKNOWN) != (to == ""):
        raise ValueError("say with which corner or axle it is compared, and how")
    if to and to not in (*WHEELS, *CORNERS_OF):
        raise ValueError(f"“{to}” is no corner or axle")


class Method(StrEnum):
    """How a thickness was taken."""

    GAUGE = "gauge"
    EYE = "eye"
