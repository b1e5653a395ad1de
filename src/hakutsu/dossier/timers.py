"""Fold of timers."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime, timedelta
from uuid import UUID

from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.timers import TimerLooked, TimerStarted, TimerStopped


@dataclass(slots=True)
class KeptTimer:
    """A watch: since when, what over, when it rings, and every look at it."""

    entry: UUID
    at: datetime
    place: str | None
    body: TimerStarted
    looks: list[tuple[datetime, str]] = field(default_factory=list)
    stopped: datetime | None = None

    @property
    def rings(self) -> datetime:
        """When it rings."""
        return self.at + timedelta(minutes=self.body.minutes)


@dataclass(slots=True)
class Timers:
    """All watches of an inspection."""

    all: dict[UUID, KeptTimer] = field(default_factory=dict)

    @property
    def running(self) -> list[KeptTimer]:
        """Watches that are not over, the next to ring first."""
        return sorted((one for one in self.all.values() if one.stopped is None), key=lambda one: one.rings)


@fold("timer.started")
def _started(gathering: Gathering, entry: Entry, body: TimerStarted) -> None:
    gathering.station(Timers).all[entry.id] = KeptTimer(entry.id, entry.at, entry.place, body)


@fold("timer.looked")
def _looked(gathering: Gathering, entry: Entry, body: TimerLooked) -> None:
    kept = gathering.station(Timers).all.get(body.of)
    if kept is not None:
        kept.looks.append((entry.at, body.seen))


@fold("timer.stopped")
def _stopped(gathering: Gathering, entry: Entry, body: TimerStopped) -> None:
    kept = gathering.station(Timers).all.get(body.of)
    if kept is not None:
        kept.stopped = entry.at
