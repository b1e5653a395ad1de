"""Fold of the film station's entries."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime
from uuid import UUID

from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.film import GaugeInUse, Imported, Reading
from hakutsu.entries.general import Limit, NothingFound, Station


@dataclass(frozen=True, slots=True)
class KeptReading:
    """A reading that stands, with the entry it came from."""

    entry: UUID
    at: datetime
    by: str
    panel: str
    body: Reading


@dataclass(slots=True)
class FilmDossier:
    """The film survey as it stands: readings in the order of the logbook, and what was said instead of readings."""

    gauge: GaugeInUse = field(default_factory=GaugeInUse)
    readings: list[KeptReading] = field(default_factory=list)
    nothing: dict[str, UUID] = field(default_factory=dict)
    limits: dict[str, tuple[UUID, str]] = field(default_factory=dict)
    imports: list[Imported] = field(default_factory=list)

    def on_panel(self, panel: str) -> list[KeptReading]:
        """Readings on one panel, oldest first."""
        return [reading for reading in self.readings if reading.panel == panel]


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


@fold("film.imported")
def _imported(gathering: Gathering, entry: Entry, body: Imported) -> None:
    gathering.station(FilmDossier).imports.append(body)


@fold("general.nothing_found")
def _nothing(gathering: Gathering, entry: Entry, body: NothingFound) -> None:
    if body.station is Station.FILM and entry.place:
        gathering.station(FilmDossier).nothing[entry.place] = entry.id


@fold("general.limit")
def _limit(gathering: Gathering, entry: Entry, body: Limit) -> None:
    if body.station is Station.FILM and entry.place:
        gathering.station(FilmDossier).limits[entry.place] = (entry.id, body.because)
