"""What is stored by a stable key and told by words: rewording never touches what was written down."""

from __future__ import annotations

from enum import StrEnum
from typing import Self


class Keyed(StrEnum):
    """An enumeration whose members are a key, and words where those differ: ``TO_METAL = "to_metal", "to metal"``.

    As text (`str`, f-strings, templates) a member is its words; compared, stored and sent it is its key (`value`).
    """

    words: str

    def __new__(cls, key: str, words: str = "") -> Self:
        """A member with its words; those of a key that needs none are the key."""
        member = str.__new__(cls, key)
        member._value_ = key
        member.words = words or key
        return member

    def __str__(self) -> str:
        """Words."""
        return self.words

    def __format__(self, spec: str) -> str:
        """Words, as text is formatted."""
        return format(self.words, spec)


def key_of(value: object) -> str:
    """The key of a member; of anything else its text."""
    return str.__str__(value) if isinstance(value, Keyed) else str(value)
