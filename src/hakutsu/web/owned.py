"""Links that the server holds for inspections, and stand-ins it starts as processes of their own and ends again."""

from __future__ import annotations

import subprocess
import sys
from collections.abc import Callable
from threading import RLock
from typing import Generic, Protocol, TypeVar
from uuid import UUID

SCHEME = "socket://"


class DidNotStart(RuntimeError):
    """The process said nothing an address could be read from."""


class OwnedStandIn:
    """A stand-in under way: `url` is where it listens. It ends by itself when this process goes away."""

    def __init__(self, *words: str) -> None:
        """Start `hakutsu` with these words and wait until it says where it listens.

        Raises
        ------
        DidNotStart
            If it does not.
        """
        command = [sys.executable, "-m", "hakutsu", *words, "--until-stdin-closes", "--port", "0"]
        self._process = subprocess.Popen(
            command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True
        )
        said = self._process.stdout.readline() if self._process.stdout else ""
        if SCHEME not in said:
            self.end()
            raise DidNotStart("the stand-in did not start")
        self.url = said.split()[-1]

    @property
    def ended(self) -> bool:
        """Whether it is gone."""
        return self._process.poll() is not None

    def end(self) -> None:
        """End it and wait for that."""
        self._process.terminate()
        self._process.wait(timeout=5)
        for pipe in (self._process.stdin, self._process.stdout):
            if pipe is not None:
                pipe.close()


class Closable(Protocol):
    """A link that can be closed."""

    def close(self) -> None:
        """Let go of it."""


SessionT = TypeVar("SessionT", bound=Closable)


class Sessions(Generic[SessionT]):
    """The links of all inspections, at most one each."""

    def __init__(self, make: Callable[[UUID], SessionT]) -> None:
        self._make = make
        self._sessions: dict[UUID, SessionT] = {}
        self._lock = RLock()

    def of(self, inspection: UUID) -> SessionT:
        """The session of an inspection, made when first asked for."""
        with self._lock:
            if inspection not in self._sessions:
                self._sessions[inspection] = self._make(inspection)
            return self._sessions[inspection]

    def close(self) -> None:
        """Close every link and end every stand-in."""
        with self._lock:
            sessions = list(self._sessions.values())
        for session in sessions:
            session.close()
