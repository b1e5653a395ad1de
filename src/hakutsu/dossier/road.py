"""Fold of the road test: what stood before it, drives, what was noticed, what was measured on it and after it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from datetime import datetime
from typing import TYPE_CHECKING

from hakutsu.dossier.body import Seen
from hakutsu.dossier.coverage import Wanted, expects
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.road import (
    Before,
    ClutchTried,
    DialRead,
    DistanceRead,
    DriveDone,
    HubRead,
    Noticed,
    RestFine,
    VibrationRecorded,
)
from hakutsu.vehicle.road import DRIVE_LOOK, Level, Subject, look_of, road_signs, subjects_of
from hakutsu.vehicle.vocabulary import Protocol

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier

SEAT, DROVE = "inside_front", "road"
OPENING_ROOFS, ROOF = ("convertible",), "roof"


@dataclass(slots=True)
class RoadDossier:
    """What was told of the road, in the order of the logbook; hubs by wheel."""

    before: Seen[Before] | None = None
    drives: list[Seen[DriveDone]] = field(default_factory=list)
    noticed: list[Seen[Noticed]] = field(default_factory=list)
    rest: dict[str, Seen[RestFine]] = field(default_factory=dict)
    clutch: Seen[ClutchTried] | None = None
    dials: list[Seen[DialRead]] = field(default_factory=list)
    distances: list[Seen[DistanceRead]] = field(default_factory=list)
    hubs: dict[str, list[Seen[HubRead]]] = field(default_factory=dict)
    vibrations: list[Seen[VibrationRecorded]] = field(default_factory=list)

    @property
    def level(self) -> Level | None:
        """The farthest level that a drive reached; none before one."""
        return max((one.body.level for one in self.drives), key=lambda one: one.rank, default=None)

    def level_at(self, entry: Entry) -> Level | None:
        """The level an entry rests on: that of the drive it was noted on or after; between two, the lower of them."""
        moved = [one for one in self.drives if one.body.level is not Level.NONE]
        before = [one.body.level for one in moved if one.entry.seq < entry.seq][-1:]
        after = [one.body.level for one in moved if one.entry.seq > entry.seq][:1]
        return min((*before, *after), key=lambda one: one.rank, default=None)

    @property
    def ended(self) -> datetime | None:
        """When the last drive was noted, which is when it ended."""
        moved = [one.entry.at for one in self.drives if one.body.level is not Level.NONE]
        return max(moved, default=None)

    def touched(self, subject: str) -> bool:
        """Whether anything was said of a subject."""
        return subject in self.rest or any(road_signs()[one.body.sign].subject == subject for one in self.noticed)


@fold("road.before")
def _before(gathering: Gathering, entry: Entry, body: Before) -> None:
    gathering.station(RoadDossier).before = Seen(entry, body)


@fold("road.drive")
def _drive(gathering: Gathering, entry: Entry, body: DriveDone) -> None:
    gathering.station(RoadDossier).drives.append(Seen(entry, body))


@fold("road.noticed")
def _noticed(gathering: Gathering, entry: Entry, body: Noticed) -> None:
    gathering.station(RoadDossier).noticed.append(Seen(entry, body))


@fold("road.rest")
def _rest(gathering: Gathering, entry: Entry, body: RestFine) -> None:
    gathering.station(RoadDossier).rest[body.subject] = Seen(entry, body)


@fold("road.clutch")
def _clutch(gathering: Gathering, entry: Entry, body: ClutchTried) -> None:
    gathering.station(RoadDossier).clutch = Seen(entry, body)


@fold("road.dial")
def _dial(gathering: Gathering, entry: Entry, body: DialRead) -> None:
    gathering.station(RoadDossier).dials.append(Seen(entry, body))


@fold("road.distance")
def _distance(gathering: Gathering, entry: Entry, body: DistanceRead) -> None:
    gathering.station(RoadDossier).distances.append(Seen(entry, body))


@fold("road.hub")
def _hub(gathering: Gathering, entry: Entry, body: HubRead) -> None:
    gathering.station(RoadDossier).hubs.setdefault(entry.place or "", []).append(Seen(entry, body))


@fold("road.vibration")
def _vibration(gathering: Gathering, entry: Entry, body: VibrationRecorded) -> None:
    gathering.station(RoadDossier).vibrations.append(Seen(entry, body))


def drove(dossier: Dossier) -> datetime | None:
    """When the last drive ended: as it was noted, or as its step was ticked; none before one."""
    step = dossier.hazards.done.get(DROVE)
    return dossier[RoadDossier].ended or (step.at if step else None)


def road_subjects_here(dossier: Dossier) -> list[Subject]:
    """What is tried on the road with this vehicle."""
    opens = dossier.vehicle.body_style in OPENING_ROOFS or dossier.functions.fitted.get(ROOF, False)
    return subjects_of(dossier.mechanics.gearbox, opens=opens)


@expects("road", "Road")
def _on_the_road(dossier: Dossier) -> Iterator[Wanted]:
    """The drive; then every subject, those its level cannot show as not seen. The quick form asks for no drive."""
    road = dossier[RoadDossier]
    if not road.drives:
        if dossier.opening.brief.protocol is not Protocol.QUICK:
            yield Wanted(SEAT, DRIVE_LOOK, looked=False)
        return
    level = road.level or Level.NONE
    yield Wanted(SEAT, DRIVE_LOOK, looked=level is not Level.NONE, hidden=level is Level.NONE)
    for one in road_subjects_here(dossier):
        yield Wanted(SEAT, look_of(one.key), road.touched(one.key), hidden=one.level.rank > level.rank)
