"""Sections of the report register themselves: where each stands, what it is made of, and its template."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from hakutsu.reckoning import Reckoning


@dataclass(frozen=True, slots=True)
class Making:
    """What a report is made from: a reckoning, the moment, a line on the logbook's integrity, and where the copy of a
    picture is found (an address, or the copy itself as a data address).
    """

    reckoning: Reckoning
    now: datetime
    integrity: str
    picture: Callable[[UUID], str]


@dataclass(frozen=True, slots=True)
class ReportSection:
    """A section: its key (the name its template knows it by), its order, its template, and how it is built.

    A section that is empty (false, or says so) is left out. One that is `kept` rests on the reckoning alone, and is
    built anew only where what it read there has changed.
    """

    key: str
    order: int
    template: str
    build: Callable[[Making], Any]
    kept: bool = False

    def built(self, making: Making) -> Any:
        """What it shows."""
        if not self.kept:
            return self.build(making)
        return making.reckoning.memo.get(("report", self.key), lambda: self.build(making))


_sections: dict[str, ReportSection] = {}


def report_section(
    key: str, order: int, template: str, *, kept: bool = False
) -> Callable[[Callable[[Making], Any]], Callable[[Making], Any]]:
    """Register the decorated function as the section `key`."""

    def register(build: Callable[[Making], Any]) -> Callable[[Making], Any]:
        _sections[key] = ReportSection(key, order, template, build, kept)
        return build

    return register


LIMITS = ("limitations", "limits", "gaps")  # what of an inspection could not be done
BEFORE_FINDINGS = 1


def report_sections(*, auction: bool = False) -> list[ReportSection]:
    """All sections in their order; of what is sold as seen, at an auction, the limits stand before the findings."""
    return sorted(_sections.values(), key=lambda one: BEFORE_FINDINGS if auction and one.key in LIMITS else one.order)


def is_empty(built: Any) -> bool:
    """Whether a section has nothing to say."""
    return bool(getattr(built, "empty", not built))
