"""Diagnostic trouble codes: two bytes and text, with a failure type from ISO 14229, and status bits.

References
----------
SAE J2012 / ISO 15031-6 (two bytes: bits 15 and 14 the letter, 13 and 12 the second character, then three hexadecimal
digits), ISO 14229-1 (status of a code).
"""

from __future__ import annotations

import re

from hakutsu.core.scan.codec.faults import Malformed

LETTERS = "PCBU"
PATTERN = re.compile(r"^[PCBU][0-3][0-9A-F]{3}(-[0-9A-F]{2})?$")
FLAGS = (
    "failed_now",
    "failed_this_cycle",
    "pending",
    "confirmed",
    "not_completed_since_clear",
    "failed_since_clear",
    "not_completed_this_cycle",
    "lamp",
)


def code_text(data: bytes) -> str:
    """A code of two bytes, or of three with its failure type, as text."""
    if len(data) not in (2, 3):
        raise Malformed(f"a code takes two bytes, or three with its failure type, not {len(data)}")
    number = int.from_bytes(data[:2], "big")
    text = f"{LETTERS[number >> 14]}{number >> 12 & 3}{number & 0xFFF:03X}"
    return f"{text}-{data[2]:02X}" if len(data) == 3 else text


def code_bytes(text: str) -> bytes:
    """The bytes of a code.

    Raises
    ------
    Malformed
        If the text is no code.
    """
    if not PATTERN.match(text):
        raise Malformed(f"“{text}” is no code: such as P0133, or P0133-1A with a failure type")
    number = LETTERS.index(text[0]) << 14 | int(text[1]) << 12 | int(text[2:5], 16)
    return number.to_bytes(2, "big") + (bytes([int(text[6:], 16)]) if len(text) > 5 else b"")


def code_list(data: bytes) -> list[str]:
    """Codes after a count byte, as services 03, 07 and 0A give them on CAN.

    Raises
    ------
    Malformed
        If count and length do not agree.
    """
    if not data:
        raise Malformed("no count of codes")
    if len(data) != 1 + 2 * data[0]:
        raise Malformed(f"{data[0]} codes announced, {len(data) - 1} bytes follow")
    return [code_text(data[at : at + 2]) for at in range(1, len(data), 2)]


def flags(status: int) -> list[str]:
    """Names of the bits of a status that are set."""
    return [name for bit, name in enumerate(FLAGS) if status >> bit & 1]


def system(text: str) -> str:
    """Who says what a code means: `standard`, `maker` or `reserved` (SAE J2012)."""
    family, third = text[:2], text[2]
    if family in ("P0", "P2", "B0", "C0", "U0", "U3"):
        return "standard"
    if family == "P3":
        return "standard" if third >= "4" else "maker"
    return "reserved" if family in ("B3", "C3") else "maker"
