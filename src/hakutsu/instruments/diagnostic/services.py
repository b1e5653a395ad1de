"""Services a request may carry: only those that read. Everything else is refused before it reaches the bus."""

from __future__ import annotations

ALLOWED = frozenset({0x01, 0x02, 0x03, 0x06, 0x07, 0x09, 0x0A, 0x19, 0x22, 0x3E})


class Refused(ValueError):
    """A request that would do more than read, or is none."""


def checked(payload: bytes) -> bytes:
    """The payload, if its first byte is a service that only reads.

    Raises
    ------
    Refused
        If it is empty or its service is not on the list.
    """
    if not payload:
        raise Refused("an empty request is none")
    if payload[0] not in ALLOWED:
        raise Refused(f"service {payload[0]:02X} does more than read: it is never sent")
    return payload
