"""Fold of the entries that open and brief an inspection, and of remarks that belong to no station."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.general import Intervention, Seen
from hakutsu.entries.opening import Brief, Stage, StageReached, Vehicle
from hakutsu.entries.settings import Overrides
from hakutsu.vehicle.description import VehicleDescription


@dataclass(slots=True)
class Opening:
    """Key facts of an inspection as they stand."""

    vehicle: VehicleDescription | None = None
    brief: Brief = field(default_factory=Brief)
    stage: Stage = Stage.BEGUN
    settings: Overrides = field(default_factory=Overrides)


@dataclass(slots=True)
class Remarks:
    """What was seen at no station, and what was done to the vehicle."""

    seen: list[tuple[Entry, Seen]] = field(default_factory=list)
    interventions: list[tuple[Entry, Intervention]] = field(default_factory=list)


@fold("inspection.vehicle")
def _vehicle(gathering: Gathering, entry: Entry, body: Vehicle) -> None:
    gathering.station(Opening).vehicle = body.vehicle


@fold("inspection.brief")
def _brief(gathering: Gathering, entry: Entry, body: Brief) -> None:
    gathering.station(Opening).brief = body


@fold("inspection.stage")
def _stage(gathering: Gathering, entry: Entry, body: StageReached) -> None:
    gathering.station(Opening).stage = body.stage


@fold("inspection.settings")
def _settings(gathering: Gathering, entry: Entry, body: Overrides) -> None:
    gathering.station(Opening).settings = body


@fold("general.seen")
def _seen(gathering: Gathering, entry: Entry, body: Seen) -> None:
    gathering.station(Remarks).seen.append((entry, body))


@fold("general.intervention")
def _intervention(gathering: Gathering, entry: Entry, body: Intervention) -> None:
    gathering.station(Remarks).interventions.append((entry, body))
