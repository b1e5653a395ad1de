"""Entries that open an inspection, brief it, and move its state."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field, StringConstraints

from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.vehicle.vocabulary import Protocol, Taste


@entry_kind("inspection.vehicle")
class Vehicle(Body):
    """The vehicle's key facts; a later entry of this kind replaces an earlier one."""

    vehicle: VehicleDescription


@entry_kind("inspection.brief")
class Brief(Body):
    """For whom, for what use, at which depth."""

    buyer: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] = ""
    use: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = ""
    taste: Taste = Taste.TIDY
    km_per_year: Annotated[int, Field(gt=0, le=200_000)] | None = None
    protocol: Protocol = Protocol.STANDARD


class Stage(StrEnum):
    """How far an inspection has come."""

    BEGUN = "begun"
    FINISHED = "finished"


@entry_kind("inspection.stage")
class StageReached(Body):
    """The inspection reached a stage; going back to `begun` reopens it."""

    stage: Stage
