"""Single frames of ISO 15765-2 with the identifiers of ISO 15765-4: enough for live data, whose answers fit in one.

References
----------
ISO 15765-2 (single frame: length in the low nibble of the first byte), ISO 15765-4 (7DF, 7E0 to 7E7, answers plus 8).
"""

from __future__ import annotations

FUNCTIONAL = 0x7DF
ANSWERS = range(0x7E8, 0x7F0)
PADDING = 0x55
MOST = 7


def packed(payload: bytes) -> bytes:
    """Eight bytes of a single frame, padded.

    Raises
    ------
    ValueError
        If the payload is empty or longer than seven bytes.
    """
    if not 1 <= len(payload) <= MOST:
        raise ValueError(f"a single frame carries 1 to {MOST} bytes, not {len(payload)}")
    return bytes([len(payload), *payload]).ljust(8, bytes([PADDING]))


def unpacked(data: bytes) -> bytes | None:
    """The payload of a single frame; none where it is another kind of frame, or cut short."""
    if not data or data[0] >> 4 or not 1 <= data[0] <= min(MOST, len(data) - 1):
        return None
    return bytes(data[1 : 1 + data[0]])
