"""A stand-in for a film gauge: a process on loopback that speaks the line protocol and measures a simulated car."""

from __future__ import annotations

import socket
from collections.abc import Callable
from functools import cache, partial
from zlib import crc32

import numpy as np

from hakutsu.core.film.simulate import Gauge, PaintedCar, paint_car
from hakutsu.instruments.gauge_line import FilmLine, Garbled, HelloLine, ProbeLine, WhoLine, read_line, write_line
from hakutsu.instruments.loopback import serve_on_loopback
from hakutsu.instruments.table_models import PaintedCarsCar, PaintedCarsTable
from hakutsu.vehicle.panels import default_substrate
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.units import from_um
from hakutsu.vehicle.vocabulary import ReadingStatus, Substrate, Unit

SURVEY_READINGS = 80  # after so many readings the whole drift has come
FULL_BATTERY = 96


@cache
def painted_cars() -> dict[str, PaintedCarsCar]:
    """The cars that ship, by name."""
    return read_table("instruments", "painted_cars", PaintedCarsTable).car


class StandIn:
    """One simulated gauge over one painted car; the same name, body and order of probes read the same."""

    def __init__(self, car: str, style: str | None = None, doors: int | None = None) -> None:
        known = painted_cars()
        said = known.get(car, {"name": car, "history": None, "repairs": 1.2, "seed": crc32(car.encode()),
                               "gauge": next(iter(known.values()))["gauge"]})  # fmt: skip
        self.name = f"Stand-in gauge, {car}"
        style, doors = style or said.get("style", "hatch"), doors or said.get("doors", 5)
        self._rng = np.random.default_rng(said["seed"])
        self.car: PaintedCar = paint_car(
            self._rng, style=style, doors=doors, history=said["history"], repairs=said["repairs"]
        )
        gauge = said["gauge"]
        self.unit = Unit(gauge["unit"])
        self.gauge = Gauge(**{key: value for key, value in gauge.items() if key != "unit"})
        self._taken = 0

    def hello(self) -> HelloLine:
        """What it says of itself."""
        step, limit = (from_um(um, self.unit) for um in (self.gauge.step_um, self.gauge.limit_um))
        return HelloLine(self.unit, step, limit, self.name)

    def measure(self, probe: ProbeLine) -> FilmLine:
        """Set the probe down: a reading, nothing on plastic or where the car has no such panel."""
        battery = max(5, FULL_BATTERY - self._taken // 12)
        if probe.panel not in self.car.panels:
            return FilmLine(None, self.unit, ReadingStatus.NONE, Substrate.UNKNOWN, battery)
        done = min(1.0, self._taken / SURVEY_READINGS)
        self._taken += 1
        seen = self.car.read(probe.panel, probe.u, probe.v, self.gauge, self._rng, done=done)
        value = None if seen.value_um is None else from_um(seen.value_um, self.unit)
        return FilmLine(value, self.unit, seen.status, default_substrate(probe.panel), battery)


def serve_stand_in(
    stand_in: StandIn, port: int, announce: Callable[[int], None], *, until_stdin_closes: bool = False
) -> None:
    """Serve on loopback, one application after the other; for ever, or until standard input closes.

    Raises
    ------
    OSError
        If the port cannot be listened on.
    """
    serve_on_loopback(partial(_answer, stand_in), port, announce, until_stdin_closes=until_stdin_closes)


def _answer(stand_in: StandIn, connection: socket.socket) -> None:
    waiting = b""
    while received := connection.recv(4096):
        *lines, waiting = (waiting + received).split(b"\n")
        for raw in lines:
            try:
                line = read_line(raw)
            except Garbled:
                continue
            if isinstance(line, WhoLine):
                connection.sendall(write_line(stand_in.hello()))
            if isinstance(line, ProbeLine):
                connection.sendall(write_line(stand_in.measure(line)))
