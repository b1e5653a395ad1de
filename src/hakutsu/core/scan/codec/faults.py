"""What is wrong with bytes."""

from __future__ import annotations


class Malformed(ValueError):
    """Bytes that are not laid out as published; the message says how."""
