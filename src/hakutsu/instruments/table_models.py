"""Models of this room's data files: every table is read through one of them, once."""

from __future__ import annotations

from hakutsu.vehicle.tables import Number, Row, Table


class EnginesEngine(Row):
    """`engine` of engines.toml."""

    start_c: Number
    settle_c: Number
    end_c: Number
    minutes: Number
    idle_rpm: Number
    scatter_rpm: Number
    swing_rpm: Number | None = None
    swing_s: Number | None = None


class EnginesTable(Table):
    """engines.toml."""

    engine: dict[str, EnginesEngine]


class PaintedCarsCar(Row):
    """`car` of painted_cars.toml."""

    name: str
    style: str
    doors: Number
    history: str
    repairs: Number
    seed: Number
    gauge: dict[str, str | Number]


class PaintedCarsTable(Table):
    """painted_cars.toml."""

    car: dict[str, PaintedCarsCar]
