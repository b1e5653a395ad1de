"""What a unit says of itself: identification number, calibrations, their check sums, counters in use (service 09).

References
----------
SAE J1979 / ISO 15031-5, service 09 on CAN: the number of items, then 17 characters (02), 16 for each calibration (04),
four bytes for each check sum (06), two for each counter (08 and 0B), 20 characters of the unit's name (0A).
"""

from __future__ import annotations

from collections.abc import Sequence

from hakutsu.core.scan.codec.faults import Malformed

VIN, CALIBRATIONS, CVNS, SPARK_COUNTERS, NAME, COMPRESSION_COUNTERS = 0x02, 0x04, 0x06, 0x08, 0x0A, 0x0B
VIN_LENGTH, CALIBRATION_LENGTH, CVN_LENGTH = 17, 16, 4


def printable(data: bytes) -> str | None:
    """Text in printable ASCII, padding taken off; none where something else is among it."""
    text = data.strip(b"\x00 \xff")
    return text.decode("ascii") if all(0x20 <= byte < 0x7F for byte in text) else None


def items(data: bytes, size: int) -> list[bytes]:
    """Items of one size after their number.

    Raises
    ------
    Malformed
        If number and length do not agree.
    """
    if not data:
        raise Malformed("no number of items")
    if len(data) != 1 + size * data[0]:
        raise Malformed(f"{data[0]} items of {size} bytes announced, {len(data) - 1} bytes follow")
    return [data[at : at + size] for at in range(1, len(data), size)]


def identification(data: bytes) -> str:
    """The vehicle identification number.

    Raises
    ------
    Malformed
        If it is not 17 printable characters.
    """
    (text,) = items(data, VIN_LENGTH) if data[:1] == b"\x01" else (data[1:],)
    found = printable(text)
    if len(text) != VIN_LENGTH or found is None or len(found) != VIN_LENGTH:
        raise Malformed("an identification number takes 17 characters")
    return found


def calibrations(data: bytes) -> list[str]:
    """Calibration identifications, their padding taken off."""
    found = [printable(one) for one in items(data, CALIBRATION_LENGTH)]
    if None in found:
        raise Malformed("a calibration holds characters that cannot be printed")
    return [one for one in found if one is not None]


def check_sums(data: bytes) -> list[str]:
    """Calibration verification numbers, eight hexadecimal digits each."""
    return [one.hex().upper() for one in items(data, CVN_LENGTH)]


def counters(data: bytes) -> list[int]:
    """In-use counters, two for each monitor: how often it completed, how often conditions were met."""
    return [int.from_bytes(one, "big") for one in items(data, 2)]


def itemised(parts: Sequence[bytes]) -> bytes:
    """Items with their number before them."""
    return bytes([len(parts)]) + b"".join(parts)
