"""Rules of the tow bar."""

from __future__ import annotations

from hakutsu.core.findings import Finding, found
from hakutsu.entries.towing import SocketResult, TowingSocket


def socket_found(socket: TowingSocket) -> Finding | None:
    """What a try of the socket says; nothing where every circuit lights."""
    if socket.result is SocketResult.ALL_LIT:
        return None
    return found("towing.socket_dead", "rear", "tow bar socket dead", (socket.note,) if socket.note else ())
