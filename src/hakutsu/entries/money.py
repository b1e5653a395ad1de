"""Entries of the negotiation: what drives a vehicle, what a claim that did not hold is worth, how a line is treated."""

from __future__ import annotations

from decimal import Decimal
from enum import StrEnum
from typing import Annotated
from uuid import UUID

from pydantic import Field, StringConstraints

from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.mechanics import Mechanics

Amount = Annotated[Decimal, Field(ge=0, le=100_000_000, decimal_places=3)]
Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]


@entry_kind("inspection.mechanics")
class MechanicsSaid(Body):
    """Mechanical facts of the vehicle; a later entry replaces an earlier one."""

    mechanics: Mechanics


class Treat(StrEnum):
    """What becomes of a line of the negotiation sheet."""

    SETTLE = "settle"
    BUDGET = "budget for"
    LIVE = "live with"


@entry_kind("money.line")
class Line(Body):
    """A line of the negotiation sheet as the inspector treats it, by its key; `amount` replaces the reckoned one."""

    line: Annotated[str, StringConstraints(min_length=1, max_length=80)]
    treat: Treat
    amount: Amount | None = None
    note: Note = ""


@entry_kind("money.claim")
class ClaimPriced(Body):
    """A claim, named by its entry, that does not hold: what that takes off the price, and why."""

    of: UUID
    amount: Amount
    because: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=400)]
