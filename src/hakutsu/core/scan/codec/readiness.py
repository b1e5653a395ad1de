"""Readiness: which monitors a unit has, and which of them have run since its memory was cleared (PID 01) or today (41).

References
----------
SAE J1979 / ISO 15031-5, service 01, PID 01 and 41: byte A lamp and count of codes; B continuous monitors and, bit 3,
compression ignition; C supported; D incomplete, where 1 means not yet.
"""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from functools import cache

from hakutsu.core.scan.codec.faults import Malformed
from hakutsu.core.scan.tables import Monitors, MonitorsTable
from hakutsu.vehicle.tables import read_table

LAMP, COUNT, COMPRESSION = 0x80, 0x7F, 0x08


@cache
def monitors() -> Monitors:
    """Names of the monitors by their bits."""
    return read_table("core.scan", "monitors", MonitorsTable).monitors


def monitor_words(name: str) -> str:
    """A monitor in words."""
    return read_table("core.scan", "monitors", MonitorsTable).words.get(name, name)


@dataclass(frozen=True, slots=True)
class Readiness:
    """What PID 01 or 41 says; `ready` and `incomplete` list monitors that are supported, in the order of their bits."""

    lamp: bool
    count: int
    compression: bool
    ready: tuple[str, ...]
    incomplete: tuple[str, ...]

    @property
    def every(self) -> dict[str, str]:
        """Each monitor of this kind of engine: complete, incomplete or not supported."""
        names = monitors()
        kind = names.compression if self.compression else names.spark
        said = dict.fromkeys((*names.continuous, *filter(None, kind)), "not supported")
        return said | dict.fromkeys(self.ready, "complete") | dict.fromkeys(self.incomplete, "incomplete")


def readiness(data: bytes) -> Readiness:
    """Readiness from its four bytes.

    Raises
    ------
    Malformed
        If it has not four.
    """
    if len(data) != 4:
        raise Malformed(f"readiness takes four bytes, not {len(data)}")
    a, b, c, d = data
    compression = bool(b & COMPRESSION)
    kind = monitors().compression if compression else monitors().spark
    bits = [(name, b >> i & 1, b >> (i + 4) & 1) for i, name in enumerate(monitors().continuous)]
    bits += [(name, c >> i & 1, d >> i & 1) for i, name in enumerate(kind) if name]
    ready = tuple(name for name, there, left in bits if there and not left)
    incomplete = tuple(name for name, there, left in bits if there and left)
    return Readiness(bool(a & LAMP), a & COUNT, compression, ready, incomplete)


def readiness_bytes(
    ready: Collection[str],
    incomplete: Collection[str],
    *,
    compression: bool = False,
    lamp: bool = False,
    count: int = 0,
) -> bytes:
    """The four bytes that say so."""
    names = monitors()
    kind = names.compression if compression else names.spark
    b = COMPRESSION if compression else 0
    c = d = 0
    for i, name in enumerate(names.continuous):
        b |= ((name in ready or name in incomplete) << i) | ((name in incomplete) << (i + 4))
    for i, name in enumerate(kind):
        c |= (name in ready or name in incomplete) << i
        d |= (name in incomplete) << i
    return bytes([(LAMP if lamp else 0) | min(count, COUNT), b, c, d])
