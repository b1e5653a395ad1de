"""Services a request may carry: only those that read. Everything else is refused before it reaches the bus."""

from __future__ import annotations

ALLOWED = frozenset({0x01, 0x02, 0x03, 0x06, 0x07, 0x09, 0x0A, 0x19, 0x22, 0x3E})
GO_ON = b"\x30\x00\x00"  # flow control: send all that is left, without pauses
FRAME = 8
PADDING = 0x55


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


def checked_frame(data: bytes) -> bytes:
    """A frame, if it is a whole request that only reads, or lets an answer go on (ISO 15765-2).

    Raises
    ------
    Refused
        If it is anything else: another service, part of a longer request, a frame that is not eight bytes long.
    """
    data = bytes(data)
    if len(data) != FRAME:
        raise Refused(f"a frame takes {FRAME} bytes, padded, not {len(data)}")
    if data[:3] == GO_ON:
        return data
    if data[0] >> 4 or not 1 <= data[0] < FRAME:
        raise Refused(f"a frame that begins with {data[0]:02X} is no whole request")
    checked(data[1 : 1 + data[0]])
    return data


def framed(payload: bytes) -> bytes:
    """A request as one frame of eight bytes, padded.

    Raises
    ------
    Refused
        If it does not fit in one, or does more than read.
    """
    if not 1 <= len(payload) < FRAME:
        raise Refused(f"a request carries 1 to {FRAME - 1} bytes, not {len(payload)}")
    return checked_frame(bytes([len(payload), *payload]).ljust(FRAME, bytes([PADDING])))
