"""Turns: few pages are made at a time, and what is done in the background waits until nobody wants anything."""

from __future__ import annotations

import time
from asyncio import Semaphore
from collections.abc import AsyncIterator, Iterator
from contextlib import asynccontextmanager, contextmanager
from threading import Event, Lock

AT_ONCE = 2  # one processor makes more no sooner, and entries would wait for all of them
FIRST = 3.0  # the first page after a start goes before the background [s]
CALM = 1.0  # the background begins when nobody asked for anything for so long [s]
LONGEST = 10.0  # but goes on after so long where somebody always does [s]
LOOK = 0.05  # [s]
SPELL = 0.03  # small pieces of work are done together for so long [s]
REST = 4.0  # the background rests so many times as long as it worked


class Turns:
    """Who makes a page takes a turn; the background works behind them, one piece at a time."""

    def __init__(self, at_once: int = AT_ONCE) -> None:
        self._turns = Semaphore(at_once)
        self._alone = Lock()
        self._wanted = 0
        self._asked = 0.0

    def asked(self) -> None:
        """Somebody asked for something."""
        self._asked = time.monotonic()

    def after_the_first(self, stopped: Event) -> None:
        """Wait in the background, after a start, for the first page."""
        stopped.wait(FIRST)

    @asynccontextmanager
    async def taken(self) -> AsyncIterator[None]:
        """A turn, in the order in which they were asked for."""
        self._wanted += 1
        try:
            async with self._turns:
                yield
        finally:
            self._wanted -= 1

    @contextmanager
    def behind(self, stopped: Event) -> Iterator[float]:
        """Some work in the background: when it is calm, nobody else works behind, and with a rest after it.

        Gives the time until which small pieces may be done together [s of the monotonic clock].
        """
        until = time.monotonic() + LONGEST
        while (self._wanted or time.monotonic() - self._asked < CALM) and time.monotonic() < until:
            if stopped.wait(LOOK):
                break
        with self._alone:
            began = time.monotonic()
            yield began + SPELL
            worked = time.monotonic() - began
        stopped.wait(REST * worked)
