"""A stand-in for vehicle and adapter: a process on loopback that speaks the ASCII protocol of serial CAN adapters and
answers service 01 as the engine control unit of a simulated, idling engine does.
"""

from __future__ import annotations

import socket
import time
from collections.abc import Callable
from functools import cache, partial

import numpy as np

from hakutsu.instruments.diagnostic.frames import FUNCTIONAL, packed, unpacked
from hakutsu.instruments.diagnostic.live import LIVE, MASK_STEP, QUANTITIES, Pid, answer, mask
from hakutsu.instruments.loopback import serve_on_loopback
from hakutsu.instruments.table_models import EnginesEngine, EnginesTable
from hakutsu.vehicle.tables import read_table

ENGINE_UNIT = 0x7E8
FAN_FROM_C = 100.0


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
        self.pids = frozenset(int(pid) for pid in QUANTITIES)

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
        values: dict[int, Callable[[], float]] = {
            Pid.COOLANT: self.coolant_c, Pid.RPM: self.rpm, Pid.RUN_TIME: self.seconds,
            Pid.INTAKE: lambda: float(self._row["start_c"]) + 6.0, Pid.AMBIENT: lambda: float(self._row["start_c"]),
            Pid.VOLTS: lambda: 14.1,
        }  # fmt: skip
        return values[pid]()

    def answered(self, payload: bytes) -> bytes | None:
        """What its control unit says to a request; silence to what it does not know."""
        if len(payload) != 2 or payload[0] != LIVE:
            return None
        pid = payload[1]
        if pid % MASK_STEP == 0 and (pid == 0 or any(one > pid for one in self.pids)):
            return answer(pid, mask(pid, self.pids))
        return answer(pid, QUANTITIES[pid].write(self.value(pid))) if pid in self.pids else None


class Adapter:
    """One connection of an adapter: lines end with a carriage return; frames pass only while its channel is open."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self.channel = "closed"

    def line(self, raw: str) -> str:
        """What the adapter sends back to one line."""
        if raw[:1] in ("O", "L", "C"):
            self.channel = {"O": "open", "L": "listening", "C": "closed"}[raw[0]]
            return "\r"
        if raw[:1] == "t":
            return self._frame(raw)
        return "V1013\r" if raw == "V" else "\r"

    def _frame(self, raw: str) -> str:
        try:
            identifier, length = int(raw[1:4], 16), int(raw[4])
            data = bytes.fromhex(raw[5 : 5 + 2 * length])
        except (ValueError, IndexError):
            return "\a"
        if self.channel != "open" or len(data) != length:
            return "\a"
        payload = unpacked(data) if identifier == FUNCTIONAL else None
        said = self._engine.answered(payload) if payload else None
        return "z\r" + (f"t{ENGINE_UNIT:03X}8{packed(said).hex().upper()}\r" if said else "")


def serve_engine(
    engine: Engine, port: int, announce: Callable[[int], None], *, until_stdin_closes: bool = False
) -> None:
    """Serve on loopback, one connection after the other; for ever, or until standard input closes.

    Raises
    ------
    OSError
        If the port cannot be listened on.
    """
    serve_on_loopback(partial(_talk, engine), port, announce, until_stdin_closes=until_stdin_closes)


def _talk(engine: Engine, connection: socket.socket) -> None:
    adapter, waiting = Adapter(engine), ""
    while received := connection.recv(4096):
        *lines, waiting = (waiting + received.decode("ascii", "replace")).split("\r")
        for line in lines:
            if line:
                connection.sendall(adapter.line(line).encode("ascii"))
