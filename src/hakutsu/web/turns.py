"""Turns: few pages are made at a time, and what is done in the background waits for them."""

from __future__ import annotations

import time
from asyncio import Semaphore
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from threading import Event

AT_ONCE = 2  # one processor makes more no sooner, and entries would wait for all of them
LONGEST = 5.0  # so long does the background let pages go first [s]
LOOK = 0.02  # [s]


class Turns:
    """Who makes a page takes a turn; `wanted` counts those that have one or wait for it."""

    def __init__(self, at_once: int = AT_ONCE) -> None:
        self._turns = Semaphore(at_once)
        self.wanted = 0

    @asynccontextmanager
    async def taken(self) -> AsyncIterator[None]:
        """A turn, in the order in which they were asked for."""
        self.wanted += 1
        try:
            async with self._turns:
                yield
        finally:
            self.wanted -= 1

    def let_go_first(self, stopped: Event, seconds: float = 0.0) -> bool:
        """Rest in the background for some seconds, then until no page is wanted; whether it is to stop."""
        if stopped.wait(seconds):
            return True
        until = time.monotonic() + LONGEST
        while self.wanted and time.monotonic() < until:
            if stopped.wait(LOOK):
                return True
        return stopped.is_set()
