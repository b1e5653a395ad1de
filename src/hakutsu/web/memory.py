"""Memory that was freed goes back to the system: arithmetic takes much for a moment, and the allocator keeps it."""

from __future__ import annotations

import ctypes
from threading import Event

GIVING = "giving memory back"
EVERY = 5.0  # [s]


def give_back(stopped: Event) -> None:
    """Give back what is free, every few seconds, until stopped; nothing where the C library knows no such call."""
    try:
        trim = getattr(ctypes.CDLL(None), "malloc_trim", None)
    except (OSError, TypeError):
        return
    while trim is not None and not stopped.wait(EVERY):
        trim(0)
