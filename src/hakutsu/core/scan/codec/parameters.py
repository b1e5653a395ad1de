"""Parameters of services 01 and 02: counts of bytes and values in their units, masks of what is supported.

References
----------
SAE J1979 / ISO 15031-5, services 01 and 02, and their table of parameter identifiers (PID).
"""

from __future__ import annotations

from collections.abc import Collection
from enum import IntEnum
from functools import cache

from hakutsu.core.scan.codec.faults import Malformed
from hakutsu.core.scan.tables import Parameter, ParametersTable
from hakutsu.vehicle.tables import read_table


class Pid(IntEnum):
    """Parameters that are asked for by name."""

    LOAD = 0x04
    COOLANT = 0x05
    SHORT_TRIM = 0x06
    LONG_TRIM = 0x07
    RPM = 0x0C
    SPEED = 0x0D
    INTAKE = 0x0F
    RUN_TIME = 0x1F
    VOLTS = 0x42
    AMBIENT = 0x46


MASK_STEP = 0x20
FUEL_SYSTEM, MASK_BYTES = 0x03, 4
FUEL = {0: None, 1: "open", 2: "closed", 4: "open_load", 8: "open_fault", 16: "closed_fault"}
DECIMALS = 4


@cache
def known_parameters() -> dict[int, Parameter]:
    """Parameters with a count and a unit, by PID."""
    return {int(pid, 16): one for pid, one in read_table("core.scan", "parameters", ParametersTable).parameter.items()}


def value(pid: int, data: bytes) -> float:
    """The value of a parameter in its unit.

    Raises
    ------
    Malformed
        If the parameter is not known, or has another number of bytes.
    """
    one = known_parameters().get(pid)
    if one is None:
        raise Malformed(f"parameter {pid:02X} is not known")
    if len(data) != one.bytes:
        raise Malformed(f"parameter {pid:02X} takes {one.bytes} bytes, not {len(data)}")
    found = round(int.from_bytes(data, "big") * one.scale + one.offset, DECIMALS)
    return int(found) if found == int(found) else found


def written(pid: int, number: float) -> bytes:
    """The bytes of a value, held within what they can say."""
    one = known_parameters()[pid]
    count = min(max(round((number - one.offset) / one.scale), 0), 256**one.bytes - 1)
    return int(count).to_bytes(one.bytes, "big")


def at_least(pid: int, data: bytes) -> bool | None:
    """Whether a parameter says that much or more; none for one that never does."""
    return all(byte == 0xFF for byte in data) if known_parameters()[pid].at_least else None


def fuel_system(data: bytes) -> str | None:
    """Open or closed loop of the first fuel system (PID 03); none where there is none.

    Raises
    ------
    Malformed
        If it has not two bytes, or more than one bit is set.
    """
    if len(data) != 2 or data[0] not in FUEL:
        raise Malformed("the state of the fuel systems takes two bytes, one bit set in the first")
    return FUEL[data[0]]


def supported(first: int, data: bytes) -> list[int]:
    """Identifiers a mask lists, `first` being 00, 20, 40…

    Raises
    ------
    Malformed
        If it has not four bytes.
    """
    if len(data) != MASK_BYTES:
        raise Malformed(f"a mask takes four bytes, not {len(data)}")
    bits = int.from_bytes(data, "big")
    return [first + 1 + i for i in range(MASK_STEP) if bits >> (MASK_STEP - 1 - i) & 1]


def mask(first: int, identifiers: Collection[int]) -> bytes:
    """The four bytes that list identifiers from `first` + 1 on; the last bit says that a further mask follows."""
    bits = 0
    for i in range(MASK_STEP):
        one = first + 1 + i
        if one in identifiers or (i == MASK_STEP - 1 and any(other > one for other in identifiers)):
            bits |= 1 << (MASK_STEP - 1 - i)
    return bits.to_bytes(MASK_BYTES, "big")
