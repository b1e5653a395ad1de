"""Work in the background: whatever ends it is kept, so that its page can say so."""

from __future__ import annotations

import logging
from collections.abc import Callable
from threading import Thread

_log = logging.getLogger("hakutsu.background")


class Background:
    """Threads by name; `ended` says of each that died what ended it."""

    def __init__(self) -> None:
        self.ended: dict[str, str] = {}

    def start(self, name: str, work: Callable[[], object]) -> Thread:
        """Begin work in a thread of its own."""
        self.ended.pop(name, None)
        thread = Thread(target=self._watched, args=(name, work), name=name, daemon=True)
        thread.start()
        return thread

    def _watched(self, name: str, work: Callable[[], object]) -> None:
        try:
            work()
        except Exception as error:
            _log.exception("%s ended", name)
            self.ended[name] = f"{type(error).__name__}: {error}"[:300]
