"""Pages register themselves: phase, title, routes, fragments, what they cover, where an entry of theirs is shown."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from datetime import datetime
from functools import cache
from importlib import import_module
from pkgutil import walk_packages
from typing import Any

from fastapi import APIRouter
from pydantic import BaseModel

from hakutsu.dossier import Dossier
from hakutsu.dossier.coverage import PartCoverage
from hakutsu.entries.envelope import Entry
from hakutsu.entries.registry import Body
from hakutsu.reckoning import Reckoning
from hakutsu.report.searching import in_logbook
from hakutsu.vehicle.keyed import Keyed


class Phase(Keyed):
    """The phases of an inspection, in the order of the work."""

    PREPARE = "prepare", "Prepare"
    AT_THE_VEHICLE = "at_the_vehicle", "At the vehicle"
    PAPERS = "papers", "Papers"
    DESK = "desk", "Desk"
    REPORT = "report", "Report"


class Asked(BaseModel):
    """What a page wants back after it sent entries: its view, and what of it is shown."""

    view: str = ""
    panel: str | None = None
    drawing: str = "profile"
    place: str | None = None
    room: str | None = None
    shows: str | None = None


Fragments = Callable[[Reckoning, Asked, datetime], dict[str, str]]


@dataclass(frozen=True, slots=True)
class StationPage:
    """A page of an inspection.

    `key` is its address below the inspection, and its view; `order` its place within the phase, and of its routes.
    `covers` are kinds of looks it is responsible for, each with the address of one part; `shows` says by the beginning
    of a kind where such an entry is shown. `progress` counts for what is no look: done and expected.
    """

    key: str
    title: str
    phase: Phase
    order: int
    router: APIRouter
    fragments: Fragments | None = None
    covers: Mapping[str, str | Callable[[str], str]] = field(default_factory=dict)
    shows: Mapping[str, str | Callable[[Entry, Body], str]] = field(default_factory=dict)
    progress: Callable[[Dossier], tuple[int, int]] | None = None


_pages: dict[str, StationPage] = {}


def station_page(page: StationPage) -> StationPage:
    """Register a page."""
    _pages[page.key] = page
    return page


@cache
def _walked() -> None:
    package = import_module("hakutsu.web")
    for module in walk_packages(package.__path__, "hakutsu.web."):
        import_module(module.name)


def station_pages() -> list[StationPage]:
    """All pages, by phase and order."""
    _walked()
    phases = list(Phase)
    return sorted(_pages.values(), key=lambda one: (phases.index(one.phase), one.order))


def fragments_of(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    """The moving parts of the page that asks."""
    found = next((one.fragments for one in station_pages() if one.key == asked.view), None)
    return found(reckoning, asked, now) if found else {}


def part_link(part: PartCoverage) -> str:
    """The page of a part that is to be looked at, below the inspection's address."""
    for one in station_pages():
        if part.check.key in one.covers:
            address = one.covers[part.check.key]
            return address if isinstance(address, str) else address(part.part)
    raise LookupError(f"no page covers {part.check.key}")


def shown_at(entry: Entry, body: Body) -> str:
    """Where an entry is shown, below the inspection's address; in its logbook where no page says so."""
    for one in station_pages():
        for begins, address in one.shows.items():
            if entry.kind.startswith(begins):
                return address if isinstance(address, str) else address(entry, body)
    return in_logbook(entry.seq)


@dataclass(frozen=True, slots=True)
class Way:
    """A page in the navigation: address, title, how far it is (empty where that is no question), whether it is done."""

    key: str
    title: str
    far: str
    done: bool


def ways(dossier: Dossier) -> dict[Phase, list[Way]]:
    """Every phase that has pages, with how far each of them is."""
    counted = {one.key: one for one in dossier.station_coverage()}
    found: dict[Phase, list[Way]] = {}
    for one in station_pages():
        looks = [counted[key] for key in one.covers if key in counted]
        done, expected = sum(look.done + look.limited for look in looks), sum(look.expected for look in looks)
        if one.progress is not None:
            done, expected = one.progress(dossier)
        far = f"{done}/{expected}" if expected else ""
        found.setdefault(one.phase, []).append(Way(one.key, one.title, far, bool(expected) and done == expected))
    return found


def navigation(dossier: Dossier, tab: str) -> dict[str, Any]:
    """What the navigation shows on a page: phases, the present one, and the present page."""
    all_ways = ways(dossier)
    here = next((phase for phase, pages in all_ways.items() if any(one.key == tab for one in pages)), None)
    return {"ways": all_ways, "phase": here, "tab": tab}
