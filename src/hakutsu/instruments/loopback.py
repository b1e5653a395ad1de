"""Serve one connection after the other on loopback: what every stand-in does."""

from __future__ import annotations

import socket
import sys
from collections.abc import Callable
from threading import Thread

LOOPBACK = "127.0.0.1"
Talk = Callable[[socket.socket], None]


def serve_on_loopback(
    talk: Talk, port: int, announce: Callable[[int], None], *, until_stdin_closes: bool = False
) -> None:
    """Serve for ever, or until standard input closes because the process that owns this one is gone.

    Parameters
    ----------
    talk : answers one connection until it ends
    port, announce : 0 takes a free port; `announce` gets the one that is listened on

    Raises
    ------
    OSError
        If the port cannot be listened on.
    """
    with socket.create_server((LOOPBACK, port)) as server:
        announce(server.getsockname()[1])
        serving = Thread(target=_serve, args=(talk, server), daemon=True)
        serving.start()
        if not until_stdin_closes:
            serving.join()
        while sys.stdin.readline():
            pass


def _serve(talk: Talk, server: socket.socket) -> None:
    while True:
        try:
            connection, _ = server.accept()
        except OSError:
            return
        with connection:
            connection.setsockopt(socket.IPPROTO_TCP, socket.TCP_NODELAY, 1)
            try:
                talk(connection)
            except OSError:
                continue
