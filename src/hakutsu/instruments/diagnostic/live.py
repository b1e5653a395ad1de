"""Live data: service 01 in bytes, both ways.

References
----------
SAE J1979 / ISO 15031-5, service 01, and its table of parameter identifiers (PID).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import IntEnum

LIVE = 0x01
ANSWER = 0x40
MASK_STEP = 0x20


class Pid(IntEnum):
    """Parameters the engine run reads."""

    SUPPORTED = 0x00
    COOLANT = 0x05
    RPM = 0x0C
    INTAKE = 0x0F
    RUN_TIME = 0x1F
    VOLTS = 0x42
    AMBIENT = 0x46


@dataclass(frozen=True, slots=True)
class Quantity:
    """How many bytes a parameter takes, what they mean, and the bytes of a value (held within what they can say)."""

    length: int
    read: Callable[[bytes], float]
    write: Callable[[float], bytes]
    unit: str


def _two(number: float) -> bytes:
    return int(min(max(round(number), 0), 0xFFFF)).to_bytes(2, "big")


def _degrees(celsius: float) -> bytes:
    return bytes([int(min(max(round(celsius + 40), 0), 255))])


_TEMPERATURE = Quantity(1, lambda b: float(b[0] - 40), _degrees, "°C")
QUANTITIES: dict[int, Quantity] = {
    Pid.COOLANT: _TEMPERATURE,
    Pid.INTAKE: _TEMPERATURE,
    Pid.AMBIENT: _TEMPERATURE,
    Pid.RPM: Quantity(2, lambda b: (256 * b[0] + b[1]) / 4, lambda rpm: _two(4 * rpm), "1/min"),
    Pid.RUN_TIME: Quantity(2, lambda b: float(256 * b[0] + b[1]), _two, "s"),
    Pid.VOLTS: Quantity(2, lambda b: (256 * b[0] + b[1]) / 1000, lambda volts: _two(1000 * volts), "V"),
}


def request(pid: int) -> bytes:
    """Ask for one parameter."""
    return bytes([LIVE, pid])


def answer(pid: int, data: bytes) -> bytes:
    """What a control unit says to that."""
    return bytes([LIVE + ANSWER, pid]) + data


def value(pid: int, payload: bytes) -> float | None:
    """The value in an answer; none where it answers something else, refuses, or is cut short."""
    quantity = QUANTITIES.get(pid)
    if quantity is None or payload[:2] != bytes([LIVE + ANSWER, pid]) or len(payload) < 2 + quantity.length:
        return None
    return quantity.read(payload[2 : 2 + quantity.length])


def supported(first: int, payload: bytes) -> frozenset[int] | None:
    """Parameters a mask lists, `first` being 00, 20, 40…; none where the answer is no such mask."""
    if payload[:2] != bytes([LIVE + ANSWER, first]) or len(payload) < 6:
        return None
    bits = int.from_bytes(payload[2:6], "big")
    return frozenset(first + 1 + i for i in range(MASK_STEP) if bits >> (MASK_STEP - 1 - i) & 1)


def mask(first: int, pids: frozenset[int]) -> bytes:
    """The four bytes that list parameters from `first` + 1 on; the last of them says that a further mask follows."""
    bits = 0
    for i in range(MASK_STEP):
        pid = first + 1 + i
        if pid in pids or (i == MASK_STEP - 1 and any(one > pid for one in pids)):
            bits |= 1 << (MASK_STEP - 1 - i)
    return bits.to_bytes(4, "big")
