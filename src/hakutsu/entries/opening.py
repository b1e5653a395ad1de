"""Entries that open an inspection, brief it, and move its state."""

from __future__ import annotations

from datetime import date
from decimal import Decimal
from enum import StrEnum
from typing import Annotated

from pydantic import Field, StringConstraints, field_validator

from hakutsu.entries.bounds import Several
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.vehicle.mechanics import LATEST, OLDEST
from hakutsu.vehicle.quick import QuickForm
from hakutsu.vehicle.use import use_factor_names
from hakutsu.vehicle.vocabulary import Protocol, Taste

Price = Annotated[Decimal, Field(ge=0, le=100_000_000, decimal_places=2)]
Currency = Annotated[str, StringConstraints(pattern=r"^[A-Z]{3}$")]
Line = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200)]
Factor = Annotated[str, StringConstraints(max_length=60)]


@entry_kind("inspection.vehicle", version=2, upgrades={1: to_keys})
class Vehicle(Body):
    """The vehicle's key facts; a later entry of this kind replaces an earlier one."""

    vehicle: VehicleDescription


@entry_kind("inspection.brief")
class Brief(Body):
    """For whom, for what use, at which depth, and for what money.

    `auction`: it is bid for, sold as seen, with no price to bargain over; what comes on top of the hammer price are
    `fees` and `transport`; `lot` is its number, `collect_by` the last day to fetch it. `use_factors` are circumstances
    of the buyer's use, `past_factors` those of the vehicle's past life: two sets.
    """

    buyer: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] = ""
    use: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = ""
    taste: Taste = Taste.TIDY
    km_per_year: Annotated[int, Field(gt=0, le=200_000)] | None = None
    protocol: Protocol = Protocol.STANDARD
    quick: QuickForm = QuickForm.MECHANICAL
    budget: Price | None = None
    asking_price: Price | None = None
    currency: Currency = "EUR"
    auction: bool = False
    lot: Annotated[str, StringConstraints(strip_whitespace=True, max_length=40)] = ""
    fees: Price | None = None
    transport: Price | None = None
    collect_by: Annotated[date, Field(ge=OLDEST, le=LATEST)] | None = None
    deal_breakers: Several[Line] = ()
    use_factors: Several[Factor] = ()
    past_factors: Several[Factor] = ()

    @field_validator("use_factors", "past_factors")
    @classmethod
    def _known_factors(cls, said: tuple[str, ...]) -> tuple[str, ...]:
        for key in said:
            if key not in use_factor_names():
                raise ValueError(f"“{key}” is no circumstance of use that is known")
        return said


class Stage(StrEnum):
    """How far an inspection has come."""

    BEGUN = "begun"
    FINISHED = "finished"
    ARCHIVED = "archived"  # finished, and no longer listed unless asked for

    @property
    def done(self) -> bool:
        """True once it was finished."""
        return self is not Stage.BEGUN


@entry_kind("inspection.stage")
class StageReached(Body):
    """The inspection reached a stage; going back to `begun` reopens it."""

    stage: Stage
