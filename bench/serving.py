"""A real server of its own, its processor time and memory, and a bare one that answers the same bytes beside it."""

from __future__ import annotations

import http.client
import json
import multiprocessing
import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path
from statistics import median
from typing import Any

import uvicorn

from hakutsu.demo import add_demo
from hakutsu.logbook import DataDirectory, Logbook
from hakutsu.logbook.pictures import PictureFiles

HAKUTSU = Path(sys.executable).with_name("hakutsu")
ACCEPT = {"Accept": "text/html,application/json", "Accept-Encoding": "gzip"}


@dataclass
class Server:
    """A server at a port; its processor time is that of all its processes and threads."""

    pid: int
    port: int
    _line: http.client.HTTPConnection | None = field(default=None, repr=False)

    def ask(self, method: str, path: str, body: Any = None) -> tuple[int, bytes]:
        """Status and body of an answer, over a connection that stays open."""
        sent = None if body is None else json.dumps(body).encode()
        headers = ACCEPT | ({"Content-Type": "application/json"} if sent else {})
        for last in (False, True):  # one that lay idle may have been closed
            if self._line is None:
                self._line = http.client.HTTPConnection("127.0.0.1", self.port, timeout=600)
            try:
                self._line.request(method, path, sent, headers)
                answer = self._line.getresponse()
                return answer.status, answer.read()
            except (http.client.HTTPException, OSError):
                self._line = None
                if last:
                    raise
        raise AssertionError

    def processor(self) -> float:
        """Processor time so far [ms]."""
        tasks = [task for pid in family(self.pid) for task in Path(f"/proc/{pid}/task").glob("*/schedstat")]
        return sum(map(_task, tasks)) / 1e6

    def memory(self) -> float:
        """Proportional set size of all its processes [MB]."""
        return sum(_pss(pid) for pid in family(self.pid)) / 1024

    def cost(self, work: Any, times: int = 15) -> tuple[float, float]:
        """Processor time and wall time of a piece of work, medians [ms]."""
        used, taken = [], []
        for number in range(times):
            before, start = self.processor(), time.perf_counter()
            work(number)
            taken.append(1000 * (time.perf_counter() - start))
            self._settle()
            used.append(self.processor() - before)
        return median(used), median(taken)

    def used(self, work: Callable[[], object]) -> float:
        """Processor time of one piece of work [ms]."""
        before = self.processor()
        work()
        self._settle()
        return self.processor() - before

    def _settle(self) -> None:
        """What an answer left to be done in the background counts as well, up to a tenth of a second."""
        last, until = self.processor(), time.monotonic() + 0.1
        while time.monotonic() < until:
            time.sleep(0.004)
            now = self.processor()
            if now - last < 0.05:
                return
            last = now


def _task(path: Path) -> int:
    try:
        return int(path.read_text().split()[0])
    except (OSError, ValueError, IndexError):
        return 0


def _pss(pid: int) -> int:
    try:
        lines = Path(f"/proc/{pid}/smaps_rollup").read_text().splitlines()
    except OSError:
        return 0
    return next((int(line.split()[1]) for line in lines if line.startswith("Pss:")), 0)


def family(pid: int) -> list[int]:
    """A process and all that it started."""
    found = [pid]
    for one in Path(f"/proc/{pid}/task").glob("*/children"):
        try:
            found += [child for mine in one.read_text().split() for child in family(int(mine))]
        except OSError:
            continue
    return found


@contextmanager
def serving(data: Path, *, cores: set[int] | None = None) -> Iterator[Server]:
    """Hakutsu on a data directory, on some cores."""
    pin = (lambda: os.sched_setaffinity(0, cores)) if cores else None
    process = subprocess.Popen(
        [HAKUTSU, "serve", "--data", data, "--port", "0"], stdout=subprocess.PIPE, text=True, preexec_fn=pin
    )
    try:
        assert process.stdout is not None
        said = process.stdout.readline()
        port = int(said.split("127.0.0.1:")[1].split("/")[0])
        yield Server(process.pid, port)
    finally:
        process.send_signal(signal.SIGTERM)
        process.wait(20)


def with_demo(directory: str) -> Path:
    """A data directory with the demo's inspections."""
    data = DataDirectory(Path(directory))
    data.hold()
    logbook = Logbook(data.engine())
    files = PictureFiles(data.path / "pictures")
    add_demo(logbook, files)
    files.close()
    logbook.engine.dispose()
    data.release()
    return Path(directory)


async def _bare(scope: Any, receive: Any, send: Any) -> None:
    body = _BODIES[scope["path"]]
    headers = [(b"content-type", b"text/html; charset=utf-8"), (b"content-length", str(len(body)).encode())]
    await send({"type": "http.response.start", "status": 200, "headers": headers})
    await send({"type": "http.response.body", "body": body})


_BODIES: dict[str, bytes] = {}


def _serve_bare(bodies: dict[str, bytes], port: Any) -> None:
    import socket

    _BODIES.update(bodies)
    listening = socket.socket()
    listening.bind(("127.0.0.1", 0))
    listening.listen(64)
    port.value = listening.getsockname()[1]
    config = uvicorn.Config(_bare, log_level="warning", access_log=False, lifespan="off")
    uvicorn.Server(config).run(sockets=[listening])


@contextmanager
def bare(bodies: dict[str, bytes]) -> Iterator[Server]:
    """A uvicorn that answers these bytes at these paths, and does nothing else."""
    context = multiprocessing.get_context("spawn")
    port = context.Value("i", 0)
    process = context.Process(target=_serve_bare, args=(bodies, port), daemon=True)
    process.start()
    while not port.value:
        time.sleep(0.02)
    assert process.pid is not None
    try:
        yield Server(process.pid, port.value)
    finally:
        process.terminate()
        process.join(10)
