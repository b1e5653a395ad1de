"""Models of the film room's data files; the parameters have theirs beside them."""

from __future__ import annotations

from typing import Any

from hakutsu.vehicle.tables import Number, Row, Table, read_table


class CuesGroup(Row):
    """`group` of cues.toml."""

    name: str


class CuesCue(Row):
    """`cue` of cues.toml."""

    name: str
    group: str
    seen: dict[str, Number]
    absent: dict[str, Number]
    flat: Number = 1
    measured: bool = False


class CuesMagnet(Row):
    """`magnet` of cues.toml."""

    name: str
    between_um: tuple[Number, Number]


class CuesTable(Table):
    """cues.toml."""

    others_exponent: Number
    group: dict[str, CuesGroup]
    cue: dict[str, CuesCue]
    magnet: dict[str, CuesMagnet]


class ZonesSporadic(Row):
    """`sporadic` of zones.toml."""

    painted: Number
    blended: Number


class ZonesTable(Table):
    """zones.toml; a zone names its members beside its own fields."""

    sporadic: ZonesSporadic
    zone: dict[str, dict[str, Any]]


class RangeStops(Row):
    """`stops` of range_stops.toml: numbers as displayed."""

    um: tuple[int, ...]
    mil: tuple[int, ...]


class RangeStopsTable(Table):
    """range_stops.toml."""

    stops: RangeStops


def range_stops() -> dict[str, list[int]]:
    """Numbers at which gauges end, by the unit they display."""
    row = read_table("core.film", "range_stops", RangeStopsTable).stops
    return {"um": list(row.um), "mil": list(row.mil)}
