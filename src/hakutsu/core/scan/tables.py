"""Models of the scan's data files."""

from __future__ import annotations

from hakutsu.vehicle.tables import Number, Row, Table


class Parameter(Row):
    """`parameter` of parameters.toml."""

    name: str
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


class MonitorsTable(Table):
    """monitors.toml."""

    monitors: Monitors


class Recent(Row):
    """`recent` of clearing.toml."""

    km: Number
    km_soft: Number
    warm_ups: Number
    warm_ups_soft: Number
    before: Number
    contradicted: Number
    counted: Number
    never: Number


class Incomplete(Row):
    """`incomplete` of clearing.toml."""

    tau: Number
    floor: Number


class ClearingTable(Table):
    """clearing.toml."""

    recent: Recent
    incomplete: dict[str, Incomplete]
