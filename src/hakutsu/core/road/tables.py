"""Models of this room's data file."""

from __future__ import annotations

from functools import cache

from hakutsu.vehicle.road import Level
from hakutsu.vehicle.tables import Number, Row, Table, read_table


class Candidate(Row):
    """`of` a sign: a candidate with its share, the part it would be and its grade."""

    name: str
    share: Number
    piece: str = ""
    grade: str = ""


class Moved(Row):
    """`moved` of a sign: what else was found makes a candidate `times` likelier."""

    name: str
    times: Number
    code: str = ""
    grade: str = ""
    sound: bool = False


class SignRow(Row):
    """`sign` of candidates.toml."""

    of: tuple[Candidate, ...]
    moved: tuple[Moved, ...] = ()
    unless: str = ""


class Speaks(Row):
    """`speaks` of candidates.toml."""

    subject: str
    piece: str
    level: Level


class ClutchRow(Row):
    """`clutch` of candidates.toml."""

    free_play_mm: dict[str, tuple[Number, Number]]
    low: Number
    usual: Number
    high: Number


class HubsRow(Row):
    """`hubs` of candidates.toml."""

    within_s: Number
    apart_k: Number


class DialRow(Row):
    """`dial` of candidates.toml."""

    share: Number
    least_km: Number
    minutes: Number
    meter_kmh: Number


class CandidatesTable(Table):
    """candidates.toml."""

    sign: dict[str, SignRow]
    speaks: tuple[Speaks, ...]
    clutch: ClutchRow
    hubs: HubsRow
    dial: DialRow


@cache
def road_table() -> CandidatesTable:
    """The table of this room."""
    return read_table("core.road", "candidates", CandidatesTable)
