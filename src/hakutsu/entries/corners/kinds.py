"""What the entries of a corner share."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field, StringConstraints

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Short = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)]
Thickness = Annotated[float, Field(ge=0, le=60)]


def rising(said: tuple[float, float] | None) -> tuple[float, float] | None:
    """A range whose lowest is not above its highest."""
    if said is not None and said[0] > said[1]:
        raise ValueError("the lowest is above the highest")
    return said


class Method(StrEnum):
    """How a thickness was taken."""

    GAUGE = "gauge"
    EYE = "eye"
