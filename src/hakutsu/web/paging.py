"""Long lists, fifty at a time."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from fastapi import Query

SHOWN = 50
Number = Annotated[int | None, Query(ge=1, le=10**9)]


@dataclass(frozen=True, slots=True)
class Part:
    """What a page shows of a list: numbers of the first and the last, counted from one, of how many."""

    first: int
    last: int
    count: int

    @property
    def earlier(self) -> int | None:
        """Where the page before begins."""
        return max(1, self.first - SHOWN) if self.first > 1 else None

    @property
    def later(self) -> int | None:
        """Where the page behind begins."""
        return self.last + 1 if self.last < self.count else None

    def __contains__(self, number: object) -> bool:
        """Whether one is shown here."""
        return isinstance(number, int) and self.first <= number <= self.last


def part_of(count: int, start: int | None, at: int | None = None) -> Part:
    """The page that begins at a number or has one in its middle; the newest where neither is asked."""
    if start is None:
        start = count - SHOWN + 1 if at is None else min(at, count) - SHOWN // 2
    first = max(1, min(start, count))
    return Part(first, min(count, first + SHOWN - 1), count)
