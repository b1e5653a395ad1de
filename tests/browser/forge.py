"""Starts servers quickly: a process that has everything imported, and forks one for each line it is sent.

`python -m tests.browser.forge` reads lines of JSON {"with_demo", "data", "port"} and answers with the process number
and what it said. The servers are those of `hakutsu serve` and `hakutsu demo`; only the imports are done beforehand.
"""

from __future__ import annotations

import ctypes
import json
import os
import signal
import sys
from pathlib import Path

from hakutsu.cli.common import LOOPBACK
from hakutsu.logbook import DataTrouble
from hakutsu.web.serving import AddressTaken, serve_on

PARENT_DEATH_SIGNAL = 1  # of prctl(2)


def serve(asked: dict[str, object], said: int) -> None:
    """Serve in a forked process; what it says goes to `said`."""
    ctypes.CDLL(None).prctl(PARENT_DEATH_SIGNAL, signal.SIGKILL)  # whatever becomes of the tests, no server is left
    os.dup2(said, 1)
    signal.signal(signal.SIGCHLD, signal.SIG_DFL)  # its own stand-ins are waited for
    os.dup2(os.open(os.devnull, os.O_RDONLY), 0)
    sys.stdout = os.fdopen(1, "w", buffering=1)
    try:
        serve_on(Path(str(asked["data"])), LOOPBACK, int(str(asked["port"])), with_demo=bool(asked["with_demo"]))
    except (DataTrouble, AddressTaken) as error:
        print(f"hakutsu: {error}", flush=True)
    os._exit(0)


def main() -> None:
    """Fork until standard input ends."""
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)  # killed servers leave nothing behind
    answers = os.fdopen(os.dup(1), "w", buffering=1)
    for line in sys.stdin:
        reading, writing = os.pipe()
        number = os.fork()
        if number == 0:
            os.close(reading)
            serve(json.loads(line), writing)
        os.close(writing)
        with os.fdopen(reading) as said:
            first = said.readline()
        print(json.dumps([number, first]), file=answers, flush=True)


if __name__ == "__main__":
    main()
