"""What a vehicle of an age, power and build is fitted with, and which of its facts follow from others."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from hakutsu.vehicle.keyed import key_of
from hakutsu.vehicle.mechanics import UNKNOWN, Mechanics
from hakutsu.vehicle.table_models import FitmentSpan, FitmentTable, FollowsRow
from hakutsu.vehicle.tables import read_table

VEHICLES_AT_HAND = 512
MODERN = 2010  # what is taken for a vehicle of which nobody said the year


def _table() -> FitmentTable:
    return read_table("vehicle", "fitment", FitmentTable)


def spans(table: str) -> dict[str, FitmentSpan]:
    """The rows of one table ("equipment", "part", "look"), by key."""
    found: dict[str, FitmentSpan] = getattr(_table(), table)
    return found


def usual(table: str, key: str, year: int | None) -> bool | None:
    """Whether a vehicle first used in a year has a thing.

    Parameters
    ----------
    table : "equipment", "part" or "look"
    key : of that table; one that is not in it has no era
    year : of first use; where it is not known, what belongs to modern vehicles is taken for fitted

    Returns
    -------
    True where nearly all have it, False where none does, None where some do. Source: `data/fitment.toml`, ours.
    """
    span = spans(table).get(key)
    if span is None:
        return True
    if year is None:
        return not span.old
    if year < span.none_before or year > span.none_after:
        return False
    return True if span.usual_from <= year <= span.usual_until else None


@dataclass(frozen=True, slots=True)
class Follows:
    """A fact that follows from others: its field, its value (a key), and whether hardly any vehicle differs."""

    fact: str
    value: str
    sure: bool


@lru_cache(VEHICLES_AT_HAND)
def follows(vehicle: Mechanics) -> tuple[Follows, ...]:
    """Facts nobody said that follow from those that were, the first row of the table for each."""
    found: dict[str, Follows] = {}
    for row in _table().follows:
        if row.fact not in found and key_of(getattr(vehicle, row.fact)) == UNKNOWN and _holds(row, vehicle):
            found[row.fact] = Follows(row.fact, row.value, row.sure)
    return tuple(found.values())


def _holds(row: FollowsRow, vehicle: Mechanics) -> bool:
    if row.power and key_of(vehicle.power) not in row.power:
        return False
    if row.separate_frame is not None and vehicle.separate_frame is not row.separate_frame:
        return False
    if row.dated and vehicle.year is None:
        return row.sure and row.first <= MODERN <= row.last
    return not row.dated or row.first <= (vehicle.year or MODERN) <= row.last


def as_built(vehicle: Mechanics, fact: str) -> str:
    """The key of a fact: as it was said, else where it surely follows; "unknown" otherwise."""
    said = key_of(getattr(vehicle, fact))
    if said != UNKNOWN:
        return said
    return next((one.value for one in follows(vehicle) if one.fact == fact and one.sure), UNKNOWN)


def proposed_facts(vehicle: Mechanics) -> list[Follows]:
    """Facts to propose: what usually follows; the inspector confirms or says otherwise."""
    return [one for one in follows(vehicle) if not one.sure] if vehicle.year is not None else []
