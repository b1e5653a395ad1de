"""What a finding asks for: one table from its code; `data/consequences.toml`."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import ConfigDict, Field

from hakutsu.vehicle.tables import Row, Table, read_table
from hakutsu.vehicle.vocabulary import Consequence


class Looks(StrEnum):
    """Whether a code is of looks alone: a mark that shows from somewhere, or another; none: it is more than looks."""

    NONE = ""
    MARK = "mark"
    OTHER = "other"


class Base(Row):
    """What a code asks for before taste, instrument and law.

    `check` is what would settle it where it is not sure yet; `job` the part whose job mends it, or a row of the cost
    table; `condemns`: the tyre or brake it is found on is done with, whatever is left of it. `price_as` joins codes
    that one price holds for, such as a leak at every stage; `looks`: the buyer's taste has a say. `sureness` (0 to 1)
    is how often such an observation holds.
    """

    consequence: Consequence
    check: str = ""
    job: str = ""
    condemns: bool = False
    price_as: str = ""
    looks: Looks = Looks.NONE
    sureness: Annotated[float, Field(ge=0, le=1)] | None = None


class Consequences(Table):
    """Stations, each with its codes."""

    model_config = ConfigDict(extra="allow")
    __pydantic_extra__: dict[str, dict[str, Base]]


SEEN, UNSURE = 0.95, 0.5  # what was seen plainly; what wants another look before anybody relies on it


def consequences() -> Consequences:
    """The table."""
    return read_table("core", "consequences", Consequences)


def codes() -> list[str]:
    """Every code that a rule may use."""
    return [f"{station}.{what}" for station, rows in consequences().__pydantic_extra__.items() for what in rows]


def base(code: str) -> Base:
    """What a code asks for.

    Raises
    ------
    LookupError
        If the table has no such code.
    """
    station, _, what = code.partition(".")
    row = consequences().__pydantic_extra__.get(station, {}).get(what)
    if row is None:
        raise LookupError(f"“{code}” is no code of core/data/consequences.toml")
    return row
