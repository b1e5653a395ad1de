"""Fold of the film station's entries."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime
from uuid import UUID

from hakutsu.dossier.body import Seen
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.film import (
    CoverFelt,
    CueLookedFor,
    GaugeInUse,
    Imported,
    MagnetTried,
    MappedRepair,
    OwnVehicles,
    Reading,
    Reflection,
    Verification,
    VerifiedWhen,
    WorkmanshipSeen,
)
from hakutsu.entries.general import Limit, NothingFound, Station


@dataclass(frozen=True, slots=True)
class KeptReading:
    """A reading that stands, with the entry it came from."""

    entry: UUID
    at: datetime
    by: str
    panel: str
    body: Reading


@dataclass(frozen=True, slots=True)
class KeptCue:
    """A cue that was looked for and stands, with the entry it came from."""

    entry: UUID
    panel: str
    body: CueLookedFor


@dataclass(frozen=True, slots=True)
class KeptMagnet:
    """A magnet's grade that stands."""

    entry: UUID
    panel: str
    body: MagnetTried


@dataclass(frozen=True, slots=True)
class KeptCover:
    """What was last felt for on top of a panel's paint."""

    entry: UUID
    body: CoverFelt


@dataclass(frozen=True, slots=True)
class KeptVerification:
    """A verification that stands."""

    entry: UUID
    at: datetime
    body: Verification


@dataclass(slots=True)
class FilmDossier:
    """The film survey as it stands: readings in the order of the logbook, and what was said instead of readings.

    `without_gauge` is one limit for the whole vehicle: nobody has a gauge there, so eye and hand are asked instead.
    """

    gauge: GaugeInUse = field(default_factory=GaugeInUse)
    readings: list[KeptReading] = field(default_factory=list)
    nothing: dict[str, UUID] = field(default_factory=dict)
    limits: dict[str, tuple[UUID, str]] = field(default_factory=dict)
    without_gauge: tuple[UUID, str] | None = None
    imports: list[Imported] = field(default_factory=list)
    cues: dict[tuple[str, str], KeptCue] = field(default_factory=dict)
    magnets: list[KeptMagnet] = field(default_factory=list)
    covers: dict[str, KeptCover] = field(default_factory=dict)
    verifications: dict[VerifiedWhen, KeptVerification] = field(default_factory=dict)
    own_vehicles: OwnVehicles | None = None
    reflections: dict[str, Seen[Reflection]] = field(default_factory=dict)
    mapped: dict[str, Seen[MappedRepair]] = field(default_factory=dict)
    workmanship: dict[str, Seen[WorkmanshipSeen]] = field(default_factory=dict)

    def on_panel(self, panel: str) -> list[KeptReading]:
        """Readings on one panel, oldest first."""
        return [reading for reading in self.readings if reading.panel == panel]

    def cues_on(self, panel: str) -> list[KeptCue]:
        """Cues looked for on one panel."""
        return [cue for cue in self.cues.values() if cue.panel == panel]

    def looked_at(self, panel: str) -> int:
        """How much was looked for, tried and measured on a panel by eye and hand."""
        by_hand = (self.reflections, self.mapped, self.workmanship)
        tried = sum(one.panel == panel for one in self.magnets)
        return len(self.cues_on(panel)) + tried + sum(panel in kept for kept in by_hand)


@fold("film.gauge")
def _gauge(gathering: Gathering, entry: Entry, body: GaugeInUse) -> None:
    gathering.station(FilmDossier).gauge = body


@fold("film.reading")
def _reading(gathering: Gathering, entry: Entry, body: Reading) -> None:
    film = gathering.station(FilmDossier)
    panel = str(entry.place)
    film.readings.append(KeptReading(entry.id, entry.at, entry.by, panel, body))
    # A reading contradicts an earlier "nothing to read here"; that entry stays readable in the logbook.
    film.nothing.pop(panel, None)
    film.without_gauge = None


@fold("film.imported")
def _imported(gathering: Gathering, entry: Entry, body: Imported) -> None:
    gathering.station(FilmDossier).imports.append(body)


@fold("film.cue")
def _cue(gathering: Gathering, entry: Entry, body: CueLookedFor) -> None:
    panel = str(entry.place)
    gathering.station(FilmDossier).cues[panel, body.cue] = KeptCue(entry.id, panel, body)


@fold("film.magnet")
def _magnet(gathering: Gathering, entry: Entry, body: MagnetTried) -> None:
    gathering.station(FilmDossier).magnets.append(KeptMagnet(entry.id, str(entry.place), body))


@fold("film.cover")
def _cover(gathering: Gathering, entry: Entry, body: CoverFelt) -> None:
    gathering.station(FilmDossier).covers[str(entry.place)] = KeptCover(entry.id, body)


@fold("film.reflection")
def _reflection(gathering: Gathering, entry: Entry, body: Reflection) -> None:
    gathering.station(FilmDossier).reflections[str(entry.place)] = Seen(entry, body)


@fold("film.mapped")
def _mapped(gathering: Gathering, entry: Entry, body: MappedRepair) -> None:
    gathering.station(FilmDossier).mapped[str(entry.place)] = Seen(entry, body)


@fold("film.workmanship")
def _workmanship(gathering: Gathering, entry: Entry, body: WorkmanshipSeen) -> None:
    gathering.station(FilmDossier).workmanship[str(entry.place)] = Seen(entry, body)


@fold("film.own_vehicles")
def _own_vehicles(gathering: Gathering, entry: Entry, body: OwnVehicles) -> None:
    gathering.station(FilmDossier).own_vehicles = body


@fold("film.verification")
def _verification(gathering: Gathering, entry: Entry, body: Verification) -> None:
    gathering.station(FilmDossier).verifications[body.when] = KeptVerification(entry.id, entry.at, body)


@fold("general.nothing_found")
def _nothing(gathering: Gathering, entry: Entry, body: NothingFound) -> None:
    if body.station is Station.FILM and entry.place:
        gathering.station(FilmDossier).nothing[entry.place] = entry.id


@fold("general.limit")
def _limit(gathering: Gathering, entry: Entry, body: Limit) -> None:
    if body.station is not Station.FILM:
        return
    film = gathering.station(FilmDossier)
    if entry.place:
        film.limits[entry.place] = (entry.id, body.because)
    else:
        film.without_gauge = (entry.id, body.because)
