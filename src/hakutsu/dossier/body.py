"""Fold of what was seen walking round the vehicle."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Generic, TypeVar
from uuid import UUID

from hakutsu.dossier.coverage import Wanted, expects
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.body import Addition, Blemish, Event, EventDropped, Fit, Glass, Rust, Trim
from hakutsu.entries.envelope import Entry
from hakutsu.entries.general import NothingFound, Station
from hakutsu.entries.registry import Body
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.parts import fitted_parts
from hakutsu.vehicle.places import place_of_panel
from hakutsu.vehicle.quick import quick
from hakutsu.vehicle.vocabulary import Protocol

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier


SCREEN = "windscreen"
SeenT = TypeVar("SeenT", bound=Body)


@dataclass(frozen=True, slots=True)
class Seen(Generic[SeenT]):
    """An entry that stands, with its body."""

    entry: Entry
    body: SeenT
    corner: str = ""

    @property
    def place(self) -> str:
        """Where it was seen; `corner` where the entry speaks of an axle or of all four."""
        return self.corner or self.entry.place or ""


@dataclass(slots=True)
class BodyDossier:
    """Blemishes and events by entry; the newest fit of each panel; glass, rust, trim, additions as they were seen."""

    blemishes: dict[UUID, Seen[Blemish]] = field(default_factory=dict)
    events: dict[UUID, Seen[Event]] = field(default_factory=dict)
    apart: set[frozenset[UUID]] = field(default_factory=set)
    fits: dict[str, Seen[Fit]] = field(default_factory=dict)
    glass: list[Seen[Glass]] = field(default_factory=list)
    rust: list[Seen[Rust]] = field(default_factory=list)
    trim: list[Seen[Trim]] = field(default_factory=list)
    additions: list[Seen[Addition]] = field(default_factory=list)
    none: list[Seen[NothingFound]] = field(default_factory=list)

    def on(self, place: str) -> list[Seen[Blemish]]:
        """Blemishes of a panel or other part, in the order of the logbook."""
        return [one for one in self.blemishes.values() if one.place == place]


@fold("body.blemish")
def _blemish(gathering: Gathering, entry: Entry, body: Blemish) -> None:
    gathering.station(BodyDossier).blemishes[entry.id] = Seen(entry, body)


@fold("general.nothing_found")
def _none(gathering: Gathering, entry: Entry, body: NothingFound) -> None:
    if body.station is Station.OUTSIDE:
        gathering.station(BodyDossier).none.append(Seen(entry, body))


@fold("body.event")
def _event(gathering: Gathering, entry: Entry, body: Event) -> None:
    gathering.station(BodyDossier).events[entry.id] = Seen(entry, body)


@fold("body.event_dropped")
def _apart(gathering: Gathering, entry: Entry, body: EventDropped) -> None:
    gathering.station(BodyDossier).apart.add(frozenset(body.blemishes))


@fold("body.fit")
def _fit(gathering: Gathering, entry: Entry, body: Fit) -> None:
    gathering.station(BodyDossier).fits[entry.place or ""] = Seen(entry, body)


@fold("body.glass")
def _glass(gathering: Gathering, entry: Entry, body: Glass) -> None:
    gathering.station(BodyDossier).glass.append(Seen(entry, body))


@fold("body.rust")
def _rust(gathering: Gathering, entry: Entry, body: Rust) -> None:
    gathering.station(BodyDossier).rust.append(Seen(entry, body))


@fold("body.trim")
def _trim(gathering: Gathering, entry: Entry, body: Trim) -> None:
    gathering.station(BodyDossier).trim.append(Seen(entry, body))


@fold("body.addition")
def _addition(gathering: Gathering, entry: Entry, body: Addition) -> None:
    gathering.station(BodyDossier).additions.append(Seen(entry, body))


@expects("fit", "Fit")
def _fits(dossier: Dossier) -> Iterator[Wanted]:
    """The fit of everything that opens; quick asks for none."""
    if dossier.opening.brief.protocol is Protocol.QUICK:
        return
    home = place_of_panel()
    for key in dossier.vehicle.panel_keys():
        if panels()[key].opens:
            yield Wanted(home.get(key, ""), key, key in dossier.body.fits)


@expects("glass", "Glass and lamps")
def _panes(dossier: Dossier) -> Iterator[Wanted]:
    """Every pane and lamp; quick what its form asks for."""
    brief = dossier.opening.brief
    asked = quick(brief.quick).glass if brief.protocol is Protocol.QUICK else None
    seen, vehicle = {one.place for one in dossier.body.glass if one.body.says}, dossier.vehicle
    for part in fitted_parts(vehicle.body_style, vehicle.doors, year=dossier.mechanics.year):
        if part.key in asked if asked is not None else part.group in ("pane", "lamp"):
            yield Wanted(part.place, part.key, part.key in seen)
