"""Fold of the inspector's day."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime

from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.day import Arrival, DayConditions, Walk
from hakutsu.entries.envelope import Entry
from hakutsu.vehicle.places import walk


@dataclass(slots=True)
class DayDossier:
    """Where the walk begins, and the conditions last noted, with when they were."""

    walk: Walk = field(default_factory=Walk)
    conditions: DayConditions | None = None
    noted_at: datetime | None = None
    arrival: Arrival | None = None
    arrived: Entry | None = None  # the entry of it

    def places(self) -> list[str]:
        """All places in walk order."""
        return walk(self.walk.start, self.walk.direction)


@fold("day.walk")
def _walk(gathering: Gathering, entry: Entry, body: Walk) -> None:
    gathering.station(DayDossier).walk = body


@fold("day.conditions")
def _conditions(gathering: Gathering, entry: Entry, body: DayConditions) -> None:
    day = gathering.station(DayDossier)
    day.conditions, day.noted_at = body, entry.at


@fold("day.arrival")
def _arrival(gathering: Gathering, entry: Entry, body: Arrival) -> None:
    day = gathering.station(DayDossier)
    day.arrival, day.arrived = body, entry
