"""Who is asked and who answers on a diagnostic bus (ISO 15765-4): identifiers of 11 and of 29 bits."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

FUNCTIONAL = {False: 0x7DF, True: 0x18DB33F1}  # by whether identifiers have 29 bits
STANDARD = range(0x7E8, 0x7F0)
EXTENDED, UNIT_MASK, TESTER = 0x18DAF100, 0xFF, 0xF1


@dataclass(frozen=True, slots=True, order=True)
class Unit:
    """A control unit by the identifier it answers with."""

    answers: int
    extended: bool = False

    @property
    def asked(self) -> int:
        """The identifier of requests to it alone."""
        if self.extended:
            return 0x18DA0000 | (self.answers & UNIT_MASK) << 8 | TESTER
        return self.answers - 8

    def __str__(self) -> str:
        """The answering identifier in hexadecimal digits."""
        return f"{self.answers:08X}" if self.extended else f"{self.answers:03X}"


def unit_of(identifier: int, *, extended: bool) -> Unit | None:
    """The unit that answers with an identifier; none where no unit does."""
    if extended:
        return Unit(identifier, True) if identifier & ~UNIT_MASK == EXTENDED else None
    return Unit(identifier) if identifier in STANDARD else None


def asked_one_by_one(*, wide: bool = False) -> Iterator[Unit]:
    """Units a sweep asks by themselves: 7E0 to 7E7; on the inspector's wish also every one of 29 bits."""
    for identifier in STANDARD:
        yield Unit(identifier)
    for number in range(0x100 if wide else 0):
        yield Unit(EXTENDED | number, True)
