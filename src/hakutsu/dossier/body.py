"""Fold of what was seen walking round the vehicle."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Generic, TypeVar
from uuid import UUID

from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.body import Addition, Blemish, Event, EventDropped, Fit, Glass, Rust, Trim
from hakutsu.entries.envelope import Entry
from hakutsu.entries.general import NothingFound, Station
from hakutsu.entries.registry import Body

SeenT = TypeVar("SeenT", bound=Body)


@dataclass(frozen=True, slots=True)
class Seen(Generic[SeenT]):
    """An entry that stands, with its body."""

    entry: Entry
    body: SeenT

    @property
    def place(self) -> str:
        """Where it was seen."""
        return self.entry.place or ""


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
