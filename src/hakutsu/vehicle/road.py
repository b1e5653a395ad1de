"""The road: levels of a test, its subjects, and what may be noticed of each."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from hakutsu.vehicle.keyed import Keyed, key_of
from hakutsu.vehicle.mechanics import UNKNOWN
from hakutsu.vehicle.table_models import RoadTable
from hakutsu.vehicle.tables import read_table


class Level(Keyed):
    """How far the test got, the least first."""

    NONE = "none", "not moved"
    ENGAGEMENT = "engagement", "engagement only"
    YARD = "yard", "in the yard"
    LOW = "low", "low speed, to 60 km/h"
    NORMAL = "normal", "normal roads"
    FAST = "fast", "fast roads"

    @property
    def rank(self) -> int:
        """Its place in the order."""
        return list(Level).index(self)


DRIVE_LOOK = "road_drive"
SHOWS = {
    Level.NONE: ("nothing", ""),
    Level.ENGAGEMENT: ("delay and shunt through each position, foot on the brake; reversing lamp",
                       "slip, flare, kick-down, brakes"),
    Level.YARD: ("bite, full lock both ways, first brakes, parking hold, creep", "tracking, balance, upper gears"),
    Level.LOW: ("tracking, straight stop, bumps, synchromesh of the gears reached",
                "hum, wind, gears not reached, vibration from speed"),
    Level.NORMAL: ("vibration, cruising, kick-down, most noise too", "sustained heat, wind at speed"),
    Level.FAST: ("everything", ""),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Sign:
    """Something that may be noticed: name, the lowest level that can show it, what of it is asked."""

    key: str
    subject: str
    name: str
    level: Level
    asks: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Subject:
    """A subject of the test with its signs; `gearboxes` that have it (empty: all)."""

    key: str
    name: str
    level: Level
    gearboxes: tuple[str, ...]
    signs: tuple[Sign, ...]

    def signs_at(self, level: Level) -> tuple[Sign, ...]:
        """What a level can show of it."""
        return tuple(one for one in self.signs if one.level.rank <= level.rank)


@cache
def road_subjects() -> dict[str, Subject]:
    """All subjects by key, in their order."""
    found = {}
    for key, row in read_table("vehicle", "road", RoadTable).subject.items():
        signs = tuple(Sign(name, key, one.name, Level(one.level), one.asks) for name, one in row.signs.items())
        found[key] = Subject(key, row.name, Level(row.level), row.gearbox, signs)
    return found


@cache
def road_signs() -> dict[str, Sign]:
    """Everything that may be noticed, by key."""
    return {sign.key: sign for subject in road_subjects().values() for sign in subject.signs}


@cache
def road_looks() -> dict[str, str]:
    """Looks of the road by the key limits and coverage name them by, in words."""
    return {DRIVE_LOOK: "the drive"} | {look_of(one.key): one.name for one in road_subjects().values()}


def look_of(subject: str) -> str:
    """The look a subject is."""
    return f"road_{subject}"


def subjects_of(gearbox: str, *, opens: bool = True) -> list[Subject]:
    """The subjects of a vehicle with a gearbox; one that is not known rules nothing out. `opens`: its roof does."""
    key = key_of(gearbox)
    return [
        one for one in road_subjects().values()
        if (not one.gearboxes or key in (*one.gearboxes, UNKNOWN)) and (opens or one.key != "roof")
    ]  # fmt: skip
