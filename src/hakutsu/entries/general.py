"""Kinds of entry that hold at every station."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import StringConstraints

from hakutsu.entries.registry import Body, entry_kind

Said = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=2000)]


class Station(StrEnum):
    """Subjects of an inspection that an entry can belong to."""

    FILM = "film"
    GENERAL = "general"


@entry_kind("general.seen")
class Seen(Body):
    """A remark: something seen, in words."""

    station: Station = Station.GENERAL
    text: Said


@entry_kind("general.nothing_found")
class NothingFound(Body):
    """Looked, nothing found; at the film station: looked, and there is nothing a gauge could read."""

    station: Station
    text: str = ""


@entry_kind("general.limit")
class Limit(Body):
    """Could not be checked, because."""

    station: Station
    because: Said


@entry_kind("general.intervention")
class Intervention(Body):
    """Something opened, wiped, cleaned or moved; with whose leave, and whether it was put back."""

    station: Station = Station.GENERAL
    done: Said
    with_leave_of: str = ""
    put_back: bool = True


@entry_kind("general.strike")
class Strike(Body):
    """Takes back the entry named in the envelope's `strikes`; both stay readable."""

    because: str = ""
