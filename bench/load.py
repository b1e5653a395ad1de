"""Twenty inspectors at once, each with an inspection of their own."""

from __future__ import annotations

import http.client
import json
import os
import random
import threading
import time
from collections import defaultdict
from collections.abc import Iterator
from pathlib import Path
from statistics import quantiles
from uuid import UUID

from bench.copies import multiply
from bench.entries import ENTRIES, entry, follow
from bench.serving import ACCEPT, serving

INSPECTORS, SECONDS = 20, 60.0
ENTRY_EVERY, PAGE_EVERY = 2.0, 4.0
PAGES = (
    "/film", "/round", "/corners", "/engine/run", "/functions", "/cabin", "/outside/blemishes", "/under", "/life/sheet",
    "/life/calendar", "/report", "/logbook", "/pictures",
)  # fmt: skip
Taken = dict[str, list[float]]


class Inspector:
    """One inspector: an entry every two seconds, its parts after it, a page every four."""

    def __init__(self, number: int, inspection: UUID, port: int) -> None:
        self.chance = random.Random(number)
        self.here, self.port, self.until = f"/inspections/{inspection}", port, 0.0
        self.line = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
        self.taken: Taken = defaultdict(list)
        self.failed: list[str] = []

    def timed(self, kind: str, method: str, path: str, body: object = None) -> None:
        """One request, and how long it took [ms]."""
        sent = None if body is None else json.dumps(body).encode()
        headers = ACCEPT | ({"Content-Type": "application/json"} if sent else {})
        began = time.perf_counter()
        try:
            self.line.request(method, path, sent, headers)
            answer = self.line.getresponse()
            said = answer.read()
        except (http.client.HTTPException, OSError) as error:
            self.failed.append(f"{kind} {path}: {error!r}")
            self.line = http.client.HTTPConnection("127.0.0.1", self.port, timeout=60)
            return
        self.taken[kind].append(1000 * (time.perf_counter() - began))
        if answer.status != 200 or (kind == "entries" and json.loads(said)["refused"]):
            self.failed.append(f"{kind} {path}: {answer.status}")

    def arrive(self) -> float:
        """Open the inspection's first page; how long that took [ms]."""
        self.timed("arriving", "GET", self.here + "/film")
        return self.taken["arriving"][0]

    def work(self) -> None:
        """Work until the time is up; what is due while an answer is waited for is done after it."""
        for kind in self._due():
            if kind == "page":
                self.timed("pages", "GET", self.here + self.chance.choice(PAGES))
            else:
                view = self.chance.choice([*ENTRIES, "film", "film"])
                self.timed("entries", "POST", f"{self.here}/entries", {"entries": [entry(view, len(self.taken))]})
                self.timed("fragments", "GET", self.here + follow(view))

    def _due(self) -> Iterator[str]:
        now = time.monotonic()
        when = {"entry": now + ENTRY_EVERY * self.chance.random(), "page": now + PAGE_EVERY * self.chance.random()}
        while min(when.values()) < self.until:
            kind = min(when, key=lambda one: when[one])
            time.sleep(max(0.0, when[kind] - time.monotonic()))
            yield kind
            when[kind] += ENTRY_EVERY if kind == "entry" else PAGE_EVERY


def load(directory: Path) -> None:
    """Twenty inspectors for a minute; the generator works on one core, the server on whichever it gets."""
    inspections = multiply(directory, INSPECTORS, entries=10**6, varied=True)
    with serving(directory) as server:
        os.sched_setaffinity(0, {min(os.sched_getaffinity(0))})
        time.sleep(5)
        every = [Inspector(i, UUID(one), server.port) for i, one in enumerate(inspections)]
        opened = [one.arrive() for one in every]
        print(f"arriving, one after the other: a first page in {max(opened):.0f} ms at most")
        before = server.processor()
        for one in every:
            one.until = time.monotonic() + SECONDS
        threads = [threading.Thread(target=one.work) for one in every]
        for one in threads:
            one.start()
        for one in threads:
            one.join()
        used = (server.processor() - before) / (1000 * SECONDS)
        wanted = INSPECTORS * SECONDS / ENTRY_EVERY, INSPECTORS * SECONDS / PAGE_EVERY
        for kind in ("entries", "fragments", "pages"):
            taken = [ms for one in every for ms in one.taken[kind]]
            cuts = quantiles(taken, n=100)
            times = f"median {cuts[49]:6.0f} ms, p95 {cuts[94]:6.0f} ms, most {max(taken):6.0f} ms"
            print(f"{kind:10} {len(taken):5} answered, {times}")
        failed = [one for inspector in every for one in inspector.failed]
        print(f"due about {wanted[0]:.0f} entries and {wanted[1]:.0f} pages; failed {len(failed)} {failed[:3]}")
        print(f"{used:.2f} of a core used; memory {server.memory():.0f} MB", flush=True)
