"""A stand-in for vehicle and adapter: a process on loopback that speaks the ASCII protocol of serial CAN adapters, with
a simulated vehicle on its bus.

References
----------
ISO 15765-2 (single, first and consecutive frames, flow control).
"""

from __future__ import annotations

import socket
from collections.abc import Callable, Iterator
from functools import partial

from hakutsu.instruments.diagnostic.addresses import FUNCTIONAL, Unit
from hakutsu.instruments.diagnostic.services import FRAME, PADDING
from hakutsu.instruments.diagnostic.simulated_vehicle import SimulatedUnit, SimulatedVehicle
from hakutsu.instruments.loopback import serve_on_loopback

FIRST, NEXT, GO_ON, SINGLE = 0x10, 0x20, 0x30, 7


class Adapter:
    """One connection of an adapter: lines end with a carriage return; frames pass only while its channel is open."""

    def __init__(self, vehicle: SimulatedVehicle) -> None:
        self._vehicle = vehicle
        self._left: dict[Unit, list[bytes]] = {}
        self._spoilt: set[tuple[Unit, bytes]] = set()
        self.channel = "closed"

    def line(self, raw: str) -> str:
        """What the adapter sends back to one line."""
        if raw[:1] in ("O", "L", "C"):
            self.channel = {"O": "open", "L": "listening", "C": "closed"}[raw[0]]
            return "\r"
        if raw[:1] in ("t", "T"):
            return self._frame(raw)
        return "V1013\r" if raw == "V" else "\r"

    def _frame(self, raw: str) -> str:
        extended = raw[0] == "T"
        at = 9 if extended else 4
        try:
            identifier, length = int(raw[1:at], 16), int(raw[at])
            data = bytes.fromhex(raw[at + 1 : at + 1 + 2 * length])
        except (ValueError, IndexError):
            return "\a"
        if self.channel != "open" or len(data) != length:
            return "\a"
        said = "".join(self._heard(identifier, data, extended=extended))
        return ("Z\r" if extended else "z\r") + said

    def _heard(self, identifier: int, data: bytes, *, extended: bool) -> Iterator[str]:
        for one in self._vehicle.units:
            unit = one.unit
            functional = identifier == FUNCTIONAL[extended] and unit.extended == extended
            if not functional and identifier != unit.asked:
                continue
            if data[:1] == bytes([GO_ON]):
                for frame in self._left.pop(unit, ()):
                    yield _line(unit, frame)
            elif data and not data[0] >> 4 and 1 <= data[0] < len(data):
                payload = data[1 : 1 + data[0]]
                for said in one.answered(payload, functional=functional):
                    yield self._begun(one, payload, said)

    def _begun(self, one: SimulatedUnit, asked: bytes, said: bytes) -> str:
        """The first frame of an answer; the rest waits until it is let go on."""
        unit = one.unit
        if len(said) <= SINGLE:
            frame = bytes([len(said)]) + said
            return _line(unit, frame if one.row.faults.short else frame.ljust(FRAME, bytes([PADDING])))
        rest = [
            bytes([NEXT | (i + 1) & 0xF]) + said[at : at + SINGLE]
            for i, at in enumerate(range(FRAME - 2, len(said), SINGLE))
        ]
        self._left[unit] = self._as_faulty(one, asked, rest)
        return _line(unit, bytes([FIRST | len(said) >> 8, len(said) & 0xFF]) + said[: FRAME - 2])

    def _as_faulty(self, one: SimulatedUnit, asked: bytes, rest: list[bytes]) -> list[bytes]:
        faults, key = one.row.faults, asked.hex().upper()
        if faults.once and (one.unit, asked) in self._spoilt:
            return rest
        self._spoilt.add((one.unit, asked))
        if key in faults.cut:
            return rest[:-1]
        return [*rest[1:], rest[0]] if key in faults.disorder else rest


def _line(unit: Unit, frame: bytes) -> str:
    letter = "T" if unit.extended else "t"
    return f"{letter}{unit}{len(frame)}{frame.hex().upper()}\r"


def serve_vehicle(
    vehicle: SimulatedVehicle, port: int, announce: Callable[[int], None], *, until_stdin_closes: bool = False
) -> None:
    """Serve on loopback, one connection after the other; for ever, or until standard input closes.

    Raises
    ------
    OSError
        If the port cannot be listened on.
    """
    serve_on_loopback(partial(_talk, vehicle), port, announce, until_stdin_closes=until_stdin_closes)


def _talk(vehicle: SimulatedVehicle, connection: socket.socket) -> None:
    adapter, waiting = Adapter(vehicle), ""
    while received := connection.recv(4096):
        *lines, waiting = (waiting + received.decode("ascii", "replace")).split("\r")
        for line in lines:
            if line:
                connection.sendall(adapter.line(line).encode("ascii"))
