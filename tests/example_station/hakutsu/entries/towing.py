"""The socket of a tow bar, tried with a test plug."""

from __future__ import annotations

from typing import Annotated

from pydantic import StringConstraints

from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.keyed import Keyed

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]


class SocketResult(Keyed):
    """What the test plug showed."""

    ALL_LIT = "all_lit", "every circuit lights"
    DEAD = "dead", "dead"


@entry_kind("towing.socket")
class TowingSocket(Body):
    """One try of the socket."""

    result: SocketResult
    note: Note = ""
