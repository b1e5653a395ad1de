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

    A section that is empty (false, or says so) is left out.
    """

    key: str
    order: int
    template: str
    build: Callable[[Making], Any]


_sections: dict[str, ReportSection] = {}


def report_section(key: str, order: int, template: str) -> Callable[[Callable[[Making], Any]], Callable[[Making], Any]]:
    """Register the decorated function as the section `key`."""

    def register(build: Callable[[Making], Any]) -> Callable[[Making], Any]:
        _sections[key] = ReportSection(key, order, template, build)
        return build

    return register


def report_sections() -> list[ReportSection]:
    """All sections in their order."""
    return sorted(_sections.values(), key=lambda one: one.order)


def is_empty(built: Any) -> bool:
    """Whether a section has nothing to say."""
    return bool(getattr(built, "empty", not built))
