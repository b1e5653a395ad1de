"""What an entry may hold at most, so that whatever is acknowledged can be stored, read back and shown."""

from __future__ import annotations

import math
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Annotated, Any, TypeVar

from pydantic import AfterValidator, AwareDatetime, Field, StringConstraints

from hakutsu.vehicle.days import told_day

FIRST_YEAR, LAST_YEAR = 1970, 2199
MOST_TEXT, MOST_ITEMS, MOST_DEPTH = 4000, 4000, 8
MOST_INTEGER = 2**53  # beyond it readers of JSON disagree
MOST_BYTES = 200_000

ItemT = TypeVar("ItemT")
Several = Annotated[tuple[ItemT, ...], Field(max_length=40)]
Sha256 = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$", max_length=64)]


def _a_day(said: str) -> str:
    """A year, a month or a day of the calendar, or nothing."""
    try:
        told_day(said)
    except ValueError as error:
        raise ValueError(f"{said} is no day of any calendar") from error
    return said


Day = Annotated[
    str, StringConstraints(strip_whitespace=True, pattern=r"^(\d{4}(-\d{2}(-\d{2})?)?)?$"), AfterValidator(_a_day)
]


@dataclass(frozen=True, slots=True)
class KeyOf:
    """Marks a field that holds a key of the named table; `hakutsu.core.keys` knows the tables."""

    table: str


def within_reason(at: datetime) -> datetime:
    """A time that can be shown in any zone.

    Raises
    ------
    ValueError
        If it lies outside the years FIRST_YEAR to LAST_YEAR, or carries no zone.
    """
    if at.tzinfo is None:
        raise ValueError("a time needs its zone")
    try:
        year = at.astimezone(UTC).year
    except OverflowError:
        year = 0
    if not FIRST_YEAR <= year <= LAST_YEAR:
        raise ValueError(f"a time between the years {FIRST_YEAR} and {LAST_YEAR}")
    return at


Moment = Annotated[AwareDatetime, AfterValidator(within_reason)]


class Unstorable(ValueError):
    """A value that could not be kept as it is: the field it stands in, and why."""

    def __init__(self, field: str, why: str) -> None:
        super().__init__(why)
        self.field, self.why = field, why


def check_storable(value: Any, field: str = "body", depth: int = 0) -> None:
    """See that a value is JSON of a reasonable size: finite numbers, whole Unicode, bounded lists and texts.

    Raises
    ------
    Unstorable
        Naming the field.
    """
    if depth > MOST_DEPTH:
        raise Unstorable(field, "nested too deeply")
    if isinstance(value, str):
        _check_text(value, field)
    elif isinstance(value, float) and not math.isfinite(value):
        raise Unstorable(field, "no number that can be stored")
    elif isinstance(value, int) and abs(value) > MOST_INTEGER:
        raise Unstorable(field, "too large a number")
    elif isinstance(value, dict | list | tuple):
        if len(value) > MOST_ITEMS:
            raise Unstorable(field, f"at most {MOST_ITEMS:,} of them; these are {len(value):,}")
        inner = value.items() if isinstance(value, dict) else enumerate(value)
        for key, one in inner:
            if isinstance(key, str):
                _check_text(key, field)
            check_storable(one, str(key)[:60] if depth == 0 else field, depth + 1)


def _check_text(text: str, field: str) -> None:
    if len(text) > MOST_TEXT:
        raise Unstorable(field, f"at most {MOST_TEXT:,} characters; these are {len(text):,}")
    if "\x00" in text:
        raise Unstorable(field, "holds a character that is no text")
    try:
        text.encode()
    except UnicodeEncodeError as error:
        raise Unstorable(field, "holds half a character") from error
