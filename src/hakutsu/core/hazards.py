"""Stand-downs: what an open cause forbids, until it is cleared, or overridden by somebody who signs for it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from uuid import UUID

from hakutsu.core.tables import HazardsTable
from hakutsu.dossier.hazards import HazardsDossier, KeptHazard
from hakutsu.vehicle.heat import heat_limits
from hakutsu.vehicle.rules import RuleSet
from hakutsu.vehicle.tables import read_table

WALKING_PACE = "walking_pace"  # moving out of the way, an override of its own


@dataclass(frozen=True, slots=True)
class Cause:
    """A cause of a stand-down: its name, the activities it blocks, and the caution that goes with it."""

    key: str
    name: str
    blocks: tuple[str, ...]
    caution: str


@dataclass(frozen=True, slots=True)
class StandDown:
    """A cause that was raised and is not cleared; `overridden` names the activities somebody signed for."""

    entry: UUID
    cause: Cause
    note: str
    overridden: tuple[str, ...]
    place: str = ""

    @property
    def blocks(self) -> tuple[str, ...]:
        """Activities it still blocks."""
        return tuple(activity for activity in self.cause.blocks if activity not in self.overridden)


@cache
def _table() -> HazardsTable:
    return read_table("core", "hazards", HazardsTable)


@cache
def activities() -> dict[str, str]:
    """Names of the activities a stand-down can block."""
    return dict(_table()["activity"])


def headings() -> dict[str, str]:
    """What to write over the causes of each activity."""
    return dict(_table()["heading"])


@cache
def causes() -> dict[str, Cause]:
    """All causes by key.

    Raises
    ------
    ValueError
        If a cause blocks an activity the file does not name.
    """
    found, stop = {}, f"{{temperature {heat_limits().stop_c:g}}}"
    for key, row in _table()["cause"].items():
        unknown = set(row["blocks"]) - set(activities())
        if unknown:
            raise ValueError(f"cause {key} blocks {', '.join(sorted(unknown))}, which is no activity")
        found[key] = Cause(key, row.name.replace("{stop}", stop), tuple(row["blocks"]), row["caution"])
    return found


BY_AGE = {"no_belt": "belts_from"}  # causes that the law raises only from a year of first use on


def asked_by_law(cause: str, year: int | None, rules: RuleSet) -> bool:
    """Whether the law asks of a vehicle of a year what a cause is about; where the year is not known, yes."""
    since = getattr(rules, BY_AGE[cause]) if cause in BY_AGE else None
    return since is None or year is None or year >= since


def open_stand_downs(dossier: HazardsDossier) -> list[StandDown]:
    """Causes raised and not cleared, in the order they were raised."""
    return [_stand_down(kept) for kept in dossier.raised.values() if kept.cleared is None]


def _stand_down(kept: KeptHazard) -> StandDown:
    cause = causes().get(kept.body.cause) or Cause(kept.body.cause, kept.body.cause, tuple(activities()), "")
    return StandDown(kept.entry, cause, kept.body.note, tuple(one.activity for _, one in kept.overrides), kept.place)


def blocking(activity: str, stand_downs: Sequence[StandDown]) -> list[StandDown]:
    """The open stand-downs that forbid an activity."""
    return [one for one in stand_downs if activity in one.blocks]
