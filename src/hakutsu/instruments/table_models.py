"""Models of this room's data files: every table is read through one of them, once."""

from __future__ import annotations

from typing import Any

from pydantic import Field

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


class Faults(Row):
    """`faults` of a unit in vehicles.toml."""

    pending: dict[str, int] = Field(default_factory=dict)
    cut: tuple[str, ...] = ()
    disorder: tuple[str, ...] = ()
    once: bool = False
    quiet: bool = False
    short: bool = False


class VehiclesUnit(Row):
    """`unit` of vehicles.toml, and what a scenario makes of it."""

    answers: str
    services: tuple[str, ...]
    kind: str = "spark"
    vin: str = ""
    name: str = ""
    lamp: bool = False
    ready: tuple[str, ...] = ()
    incomplete: tuple[str, ...] = ()
    stored: tuple[str, ...] = ()
    pending: tuple[str, ...] = ()
    permanent: tuple[str, ...] = ()
    by_status: tuple[tuple[str, str], ...] = ()
    supported: tuple[tuple[str, str], ...] = ()
    calibrations: tuple[str, ...] = ()
    cvns: tuple[str, ...] = ()
    counters: tuple[int, ...] = ()
    parameters: dict[str, Number] = Field(default_factory=dict)
    frozen: dict[str, Number] = Field(default_factory=dict)
    trims: tuple[Number, Number] | None = None
    tests: tuple[tuple[str, str, str, int, int, int], ...] = ()
    faults: Faults = Faults()


class VehiclesScenario(Row):
    """`scenario` of vehicles.toml."""

    units: tuple[str, ...]
    engine: str
    changes: dict[str, dict[str, Any]] = Field(default_factory=dict)


class VehiclesTable(Table):
    """vehicles.toml."""

    unit: dict[str, VehiclesUnit]
    scenario: dict[str, VehiclesScenario]
