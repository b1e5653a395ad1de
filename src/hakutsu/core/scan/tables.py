"""Models of the scan's data files."""

from __future__ import annotations

from hakutsu.vehicle.tables import Number, Row, Table


class Parameter(Row):
    """`parameter` of parameters.toml."""

    name: str
    words: str
    bytes: int
    unit: str
    scale: Number = 1
    offset: Number = 0
    at_least: bool = False


class ParametersTable(Table):
    """parameters.toml."""

    parameter: dict[str, Parameter]


class Monitors(Row):
    """`monitors` of monitors.toml."""

    continuous: tuple[str, ...]
    spark: tuple[str, ...]
    compression: tuple[str, ...]


class Counters(Row):
    """`counters` of monitors.toml."""

    spark: tuple[str, ...]
    compression: tuple[str, ...]


class MonitorsTable(Table):
    """monitors.toml."""

    monitors: Monitors
    counters: Counters
    words: dict[str, str]


class Recent(Row):
    """`recent` of clearing.toml."""

    km: Number
    km_soft: Number
    warm_ups: Number
    warm_ups_soft: Number
    before: Number
    contradicted: Number
    counted: Number
    least_tests: int
    many_untested: Number
    untested_if_recent: Number
    untested_if_not: Number


class Incomplete(Row):
    """`incomplete` of clearing.toml."""

    tau: Number
    floor: Number


class ClearingTable(Table):
    """clearing.toml."""

    recent: Recent
    incomplete: dict[str, Incomplete]


class Family(Row):
    """`family` of codes.toml."""

    name: str
    finding: str
    not_said: str
    confirm: str
    part: str = ""
    grade: str = ""


class CodesTable(Table):
    """codes.toml: `ranges` and `code` are pairs of a family and words."""

    family: dict[str, Family]
    ranges: dict[str, tuple[str, str]]
    code: dict[str, tuple[str, str]]
