"""Entries of the inspector's day: where the walk begins, and the conditions the run sheet is planned from."""

from __future__ import annotations

from typing import Annotated, Self

from pydantic import AwareDatetime, Field, model_validator

from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.places import FIRST, outside
from hakutsu.vehicle.vocabulary import Direction


@entry_kind("day.walk")
class Walk(Body):
    """Where the walk round the vehicle begins, and which side it takes first."""

    start: str = FIRST
    direction: Direction = Direction.LEFT_FIRST

    @model_validator(mode="after")
    def _on_the_ring(self) -> Self:
        if self.start not in outside():
            raise ValueError(f"the walk can begin at {', '.join(outside())}")
        return self


@entry_kind("day.conditions")
class DayConditions(Body):
    """From when, for how long [min], with whom and what; times after which a condition ends may be left out."""

    begins: AwareDatetime
    available: Annotated[int, Field(ge=5, le=1440)] = 120
    engine_cold: bool = True
    lift: bool = False
    lift_by_driving: bool = False
    helper: bool = False
    may_drive: bool = True
    seller_until: AwareDatetime | None = None
    daylight_until: AwareDatetime | None = None
    dry_until: AwareDatetime | None = None
