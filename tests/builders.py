"""Builders for tests: a survey, a logbook, an inspection with a few words."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from pathlib import Path
from uuid import UUID, uuid4

from hakutsu.core.film import FilmSurvey, Observation
from hakutsu.entries import Draft
from hakutsu.entries.film import Reading
from hakutsu.entries.opening import Brief, Vehicle
from hakutsu.logbook import DataDirectory, Integrity, Logbook
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.vehicle.vocabulary import Finish, ReadingStatus, Substrate

NOON = datetime(2026, 11, 20, 12, 0, tzinfo=UTC)
HONEST = {"roof": 118, "bonnet": 121, "front_wing_left": 115, "front_door_left": 117, "rear_door_left": 119}


def readings(panel: str, *values: float, **more: object) -> list[Observation]:
    """Readings of one panel; a value may be "over" or "none"."""
    made = []
    for value in values:
        if isinstance(value, str):
            made.append(Observation(panel, None, ReadingStatus(value), **more))
        else:
            made.append(Observation(panel, float(value), **more))
    return made


def honest_car(level: float = 118, spots: int = 4, without: tuple[str, ...] = ()) -> list[Observation]:
    """Even factory film on five panels; spots differ by a few µm in a fixed pattern."""
    found = []
    for panel, um in HONEST.items():
        if panel not in without:
            found += readings(panel, *(um + level - 118 + (-2, 1, 3, -1)[i % 4] for i in range(spots)))
    return found


def survey(*parts: list[Observation], finish: Finish = Finish.FACTORY, **substrates: str) -> FilmSurvey:
    """A survey of all parts."""
    kinds = {key: Substrate(kind) for key, kind in substrates.items()}
    return FilmSurvey("car", [o for part in parts for o in part], finish, kinds)


def car(**more: object) -> VehicleDescription:
    """A five-door hatchback."""
    return VehicleDescription(**{"name": "Pellin Mote", **more})


def reading(panel: str, value: float | None = 112, *, after: int = 0, **more: object) -> Draft:
    """A reading's draft, `after` seconds past noon."""
    envelope = {key: more.pop(key) for key in ("strikes", "id") if key in more}
    at = NOON + timedelta(seconds=after)
    return Draft.write("film.reading", Reading(value_um=value, **more), at, place=panel, **envelope)


def opened(logbook: Logbook, **vehicle: object) -> UUID:
    """An inspection with its vehicle and brief."""
    inspection = uuid4()
    logbook.open_inspection(inspection, NOON)
    drafts = [
        Draft.write("inspection.vehicle", Vehicle(vehicle=car(**vehicle)), NOON),
        Draft.write("inspection.brief", Brief(), NOON),
    ]
    logbook.append(inspection, drafts, "Test Inspector")
    return inspection


def first_fault(logbook: Logbook, inspection: UUID) -> int | None:
    """Number of the first entry that does not follow from the one before, checking the whole chain."""
    return Integrity(logbook).check(inspection, NOON, whole=True).fault_seq


def logbook_in(directory: str) -> Logbook:
    """A logbook in a directory."""
    return Logbook(DataDirectory(Path(directory)).engine())
