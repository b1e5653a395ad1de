"""Fold of stand-downs and of the steps of an inspection."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime
from uuid import UUID, uuid5

from hakutsu.dossier.folding import Gathering, fold, fold_every
from hakutsu.entries.envelope import Entry
from hakutsu.entries.hazards import HazardCleared, HazardOverridden, HazardRaised, StepBegun, StepDone
from hakutsu.entries.registry import Body
from hakutsu.vehicle.places import SPARE


@dataclass(slots=True)
class KeptHazard:
    """A cause that was raised, who cleared it, and every override signed for it."""

    entry: UUID
    at: datetime
    body: HazardRaised
    cleared: tuple[Entry, HazardCleared] | None = None
    overrides: list[tuple[Entry, HazardOverridden]] = field(default_factory=list)
    place: str = ""
    source: UUID | None = None  # the entry that raised it by itself


@dataclass(frozen=True, slots=True)
class KeptStep:
    """A step that was done; `during` are the causes that were open when it was noted."""

    entry: UUID
    at: datetime
    minutes: float | None
    during: tuple[str, ...]


@dataclass(slots=True)
class HazardsDossier:
    """Stand-downs raised so far, and the steps begun and done."""

    raised: dict[UUID, KeptHazard] = field(default_factory=dict)
    begun: dict[str, datetime] = field(default_factory=dict)
    done: dict[str, KeptStep] = field(default_factory=dict)

    def find(self, of: UUID) -> KeptHazard | None:
        """A cause by its id, or by the entry that raised it: up to 0.7 perforated rust went by its entry."""
        return self.raised.get(of) or next((one for one in self.raised.values() if one.source == of), None)


@fold("hazard.raised")
def _raised(gathering: Gathering, entry: Entry, body: HazardRaised) -> None:
    gathering.station(HazardsDossier).raised[entry.id] = KeptHazard(entry.id, entry.at, body, source=entry.id)


def raise_once(gathering: Gathering, entry: Entry, cause: str, note: str = "") -> None:
    """Raise a cause that follows from an entry, unless it is open at its place already."""
    raised, place = gathering.station(HazardsDossier).raised, entry.place or ""
    if not any(one.body.cause == cause and one.cleared is None and one.place == place for one in raised.values()):
        id = uuid5(entry.id, cause)
        raised[id] = KeptHazard(id, entry.at, HazardRaised(cause=cause, note=note), place=place, source=entry.id)


@fold_every
def _of_entry(gathering: Gathering, entry: Entry, body: Body) -> None:
    """What is noted raises its causes by itself; a tyre or wheel in the boot carries nothing."""
    if entry.place == SPARE:
        return
    for cause in body.causes():
        raise_once(gathering, entry, cause, body.cause_note())


@fold("hazard.cleared")
def _cleared(gathering: Gathering, entry: Entry, body: HazardCleared) -> None:
    kept = gathering.station(HazardsDossier).find(body.of)
    if kept is not None:
        kept.cleared = (entry, body)


@fold("hazard.overridden")
def _overridden(gathering: Gathering, entry: Entry, body: HazardOverridden) -> None:
    kept = gathering.station(HazardsDossier).find(body.of)
    if kept is not None:
        kept.overrides.append((entry, body))


@fold("step.begun")
def _begun(gathering: Gathering, entry: Entry, body: StepBegun) -> None:
    gathering.station(HazardsDossier).begun[body.step] = entry.at


@fold("step.done")
def _done(gathering: Gathering, entry: Entry, body: StepDone) -> None:
    hazards = gathering.station(HazardsDossier)
    during = tuple(kept.body.cause for kept in hazards.raised.values() if kept.cleared is None)
    hazards.done[body.step] = KeptStep(entry.id, entry.at, body.minutes, during)
