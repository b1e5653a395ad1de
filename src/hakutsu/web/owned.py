"""A stand-in the server starts as a process of its own and ends again."""

from __future__ import annotations

import subprocess
import sys

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
