"""Server time of the film station with 150 readings, as a ratio to a bare route that returns the same bytes.

Run: .venv/bin/python -m bench.film_station
"""

from __future__ import annotations

import random
import tempfile
import time
from pathlib import Path
from statistics import median

from fastapi import FastAPI
from fastapi.responses import HTMLResponse
from fastapi.testclient import TestClient
from tests.builders import logbook_in, opened, reading

from hakutsu.entries import Draft
from hakutsu.vehicle.panels import walk_order
from hakutsu.web.app import create_app

READINGS = 150
ROUNDS = 30


def milliseconds(work) -> float:
    """Median time of a call [ms]."""
    taken = []
    for _ in range(ROUNDS):
        start = time.perf_counter()
        work()
        taken.append(1000 * (time.perf_counter() - start))
    return median(taken)


def drafts(chance: random.Random) -> list[Draft]:
    """A survey of 150 readings over a hatchback's metal panels."""
    panels = [key for key in walk_order("hatch", 5) if "bumper" not in key]
    return [reading(panels[i % len(panels)], round(chance.gauss(118, 5)), after=i) for i in range(READINGS)]


def main() -> None:
    """Measure and print."""
    chance = random.Random(1)
    with tempfile.TemporaryDirectory() as directory:
        logbook = logbook_in(directory)
        inspection = opened(logbook)
        logbook.append(inspection, drafts(chance), "bench")
        client = TestClient(create_app(logbook, Path(directory)), base_url="http://127.0.0.1")
        path = f"/inspections/{inspection}/film"
        page = client.get(path).text

        bare = FastAPI()
        bare.get("/same", response_class=HTMLResponse)(lambda: page)
        bare_client = TestClient(bare)

        def one_more() -> None:
            body = {"entries": [reading("roof", 118).model_dump(mode="json")], "view": "film", "panel": "roof"}
            assert client.post(f"/inspections/{inspection}/entries", json=body).status_code == 200

        same = milliseconds(lambda: bare_client.get("/same"))
        again = milliseconds(lambda: client.get(path))
        appended = milliseconds(one_more)
    print(f"page of {len(page):,} characters, {READINGS} readings, {ROUNDS} rounds, medians")
    print(f"bare route, same bytes       {same:7.2f} ms  1.0")
    print(f"film station, unchanged      {again:7.2f} ms  {again / same:.1f}")
    print(f"one reading in, parts back   {appended:7.2f} ms  {appended / same:.1f}")


if __name__ == "__main__":
    main()
