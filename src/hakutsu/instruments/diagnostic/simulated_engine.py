"""A simulated engine that idles: what its parameters are at a moment."""

from __future__ import annotations

import time
from collections.abc import Callable
from functools import cache

import numpy as np

from hakutsu.core.scan.codec.parameters import Pid
from hakutsu.instruments.table_models import EnginesEngine, EnginesTable
from hakutsu.vehicle.tables import read_table

VOLTS, LOAD = 14.1, 22.0


@cache
def engines() -> dict[str, EnginesEngine]:
    """Engines that ship, by kind."""
    return read_table("instruments", "engines", EnginesTable).engine


class Engine:
    """A simulated engine that has idled since it was made; `fast` lets its time run faster than the clock's.

    Raises
    ------
    KeyError
        If no engine of that kind ships.
    """

    def __init__(self, kind: str, fast: float = 1.0, clock: Callable[[], float] = time.monotonic) -> None:
        self._row = engines()[kind]
        self._fast, self._clock, self._began = fast, clock, clock()
        self._rng = np.random.default_rng(7)
        self._values: dict[int, Callable[[], float]] = {
            Pid.COOLANT: self.coolant_c,
            Pid.RPM: self.rpm,
            Pid.RUN_TIME: self.seconds,
            Pid.INTAKE: lambda: float(self._row["start_c"]) + 6.0,
            Pid.AMBIENT: lambda: float(self._row["start_c"]),
            Pid.VOLTS: lambda: VOLTS,
            Pid.LOAD: lambda: LOAD,
            Pid.SPEED: lambda: 0.0,
        }
        self.pids = frozenset(int(pid) for pid in self._values)

    def seconds(self) -> float:
        """How long it has run [s], in its own time."""
        return (self._clock() - self._began) * self._fast

    def coolant_c(self) -> float:
        """Its coolant now [°C]."""
        row, minutes = self._row, self.seconds() / 60
        free = row["start_c"] + (row["end_c"] - row["start_c"]) * (1 - np.exp(-minutes / row["minutes"]))
        return float(min(free, row["settle_c"]))

    def rpm(self) -> float:
        """Its speed at this moment [1/min]."""
        row, now = self._row, self._clock()
        swing = row.get("swing_rpm", 0.0) * np.sin(2 * np.pi * now / row.get("swing_s", 1.0))
        return float(row["idle_rpm"] + swing + row["scatter_rpm"] * self._rng.normal())

    def value(self, pid: int) -> float:
        """A parameter of service 01."""
        return self._values[pid]()
