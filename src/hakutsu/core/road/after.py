"""What is looked at once more after a drive, made by the day: one list, ticked by what was entered since."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum

from hakutsu.core.engine.after import AgainAfter
from hakutsu.core.road.measured import HubPair, Pair

HUBS = "hubs of the {} axle, within two minutes"
PAIRED = (Pair.ALIKE, Pair.DIFFER)


class AgainKind(StrEnum):
    """What is looked at again."""

    HUBS = "hubs"
    ENGINE = "engine"
    START = "start"
    LEVELS = "levels"
    VENT = "vent"
    SCAN = "scan"
    FUNCTION = "function"


@dataclass(frozen=True, slots=True)
class Again:
    """Something to look at again: of which kind, in words, what it was before, and whether it was done since."""

    kind: AgainKind
    words: str
    before: str
    done: bool


@dataclass(frozen=True, slots=True)
class Since:
    """When levels were read, the vent felt, it was started, memory read; functions that flipped or failed."""

    levels: Sequence[datetime] = ()
    vents: Sequence[datetime] = ()
    starts: Sequence[datetime] = ()
    scans: Sequence[datetime] = ()
    functions: Sequence[tuple[str, str, Sequence[datetime]]] = ()


def after_list(
    ended: datetime | None, engine: Sequence[AgainAfter], hubs: Sequence[HubPair], since: Since, *, electric: bool
) -> list[Again]:
    """Everything to look at after the drive; before one, only what the engine station wants looked at again.

    Parameters
    ----------
    ended : when the drive ended
    engine : what the engine station wants looked at again, leaks among it
    hubs : pairs of hubs as they stand
    since : when everything else was entered
    electric : it has no engine to start hot
    """
    seen = [Again(AgainKind.ENGINE, one.words, one.before, one.done) for one in engine]
    if ended is None:
        return seen

    def late(times: Sequence[datetime]) -> bool:
        return any(at >= ended for at in times)

    found = [Again(AgainKind.HUBS, HUBS.format(one.axle), "", one.state in PAIRED) for one in hubs]
    found += seen
    if not electric:
        found.append(Again(AgainKind.START, "restart, hot", "", late(since.starts)))
    found.append(Again(AgainKind.LEVELS, "levels", "", late(since.levels)))
    if since.vents:
        found.append(Again(AgainKind.VENT, "vent again, by hand or thermometer", "", late(since.vents)))
    if since.scans:
        found.append(Again(AgainKind.SCAN, "second scan", "", late(since.scans)))
    return found + [Again(AgainKind.FUNCTION, name, was, late(times)) for name, was, times in since.functions]
