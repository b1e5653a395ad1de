"""Search over a season of inspections: the first one after a start, and one of a logbook that has not changed, as a
ratio to reading every entry back.

Run: .venv/bin/python -m bench.search [inspections]
"""

from __future__ import annotations

import sys
import tempfile
import time
from pathlib import Path
from statistics import median
from uuid import uuid4

from fastapi.testclient import TestClient
from tests.builders import logbook_in

from hakutsu.demo.building import CARS, demo_drafts
from hakutsu.logbook import Logbook
from hakutsu.web.app import create_app

ROUNDS = 5


def fill(logbook: Logbook, count: int) -> None:
    """Inspections as full as the demo's, with ids of their own."""
    cars = [demo_drafts(car) for car in CARS]
    for i in range(count):
        drafts, inspection = cars[i % len(cars)], uuid4()
        ids = {draft.id: uuid4() for draft in drafts}
        logbook.open_inspection(inspection, drafts[0].at)
        fresh = [
            draft.model_copy(update={"id": ids[draft.id], "strikes": draft.strikes and ids[draft.strikes]})
            for draft in drafts
        ]
        logbook.append(inspection, fresh, "bench")


def seconds(work) -> float:
    """Time of one call [s]."""
    start = time.perf_counter()
    work()
    return time.perf_counter() - start


def main(count: int = 120) -> None:
    """Measure and print."""
    with tempfile.TemporaryDirectory() as directory:
        logbook = logbook_in(directory)
        fill(logbook, count)
        client = TestClient(create_app(logbook, Path(directory)), base_url="http://127.0.0.1")
        read = median(seconds(lambda: [logbook.entries(one) for one in logbook.inspections()]) for _ in range(3))
        ask = lambda: client.get("/search", params={"q": "sill rust"})  # noqa: E731
        first = seconds(ask)
        again = median(seconds(ask) for _ in range(ROUNDS))
        print(f"{count} inspections, {logbook.count()} entries read back  {1000 * read:8.0f} ms  1.00")
        print(f"first search after a start            {1000 * first:8.0f} ms  {first / read:.2f}")
        print(f"search again                          {1000 * again:8.0f} ms  {again / read:.2f}")


if __name__ == "__main__":
    main(*(int(one) for one in sys.argv[1:]))
