"""Server time of the blemish page with 150 readings, 60 blemishes and 20 gaps, and of a page of 300 pictures, as ratios
to bare routes that return the same bytes.

Run: .venv/bin/python -m bench.outside
"""

from __future__ import annotations

import random
import tempfile
from pathlib import Path
from uuid import uuid4

from fastapi import FastAPI
from fastapi.responses import HTMLResponse
from fastapi.testclient import TestClient
from tests.builders import NOON, logbook_in, opened

from bench.film_station import drafts, milliseconds
from hakutsu.demo.pictures import sample_picture
from hakutsu.entries import Draft
from hakutsu.entries.body import Blemish, Fit
from hakutsu.entries.pictures import Picture
from hakutsu.vehicle.panels import walk_order
from hakutsu.web.app import create_app

BLEMISHES, GAPS, PICTURES = 60, 20, 300
KINDS = ("scratch", "chip", "dent", "scuff", "stain", "crease")


def outside(chance: random.Random) -> list[Draft]:
    """Blemishes and gaps over a hatchback."""
    panels = walk_order("hatch", 5)
    made = []
    for i in range(BLEMISHES):
        u, v = chance.random() * 0.8, chance.random()
        body = Blemish(kind=KINDS[i % len(KINDS)], depth="clear", length_mm=80, path=((u, v), (u + 0.2, v)))
        made.append(Draft.write("body.blemish", body, NOON, place=panels[i % len(panels)]))
    for i in range(GAPS):
        body = Fit(front_mm=round(chance.gauss(4, 0.6), 1), rear_mm=4.0)
        made.append(Draft.write("body.fit", body, NOON, place=panels[i % len(panels)]))
    return made


def compared(name: str, client: TestClient, path: str) -> None:
    """Print the time of a page beside that of a bare route with its bytes."""
    page = client.get(path).text
    bare = FastAPI()
    bare.get("/same", response_class=HTMLResponse)(lambda: page)
    bare_client = TestClient(bare)
    same, took = milliseconds(lambda: bare_client.get("/same")), milliseconds(lambda: client.get(path))
    print(f"{name:44} {len(page):9,} characters  bare {same:6.2f} ms  1.0  page {took:7.2f} ms  {took / same:.1f}")


def main() -> None:
    """Measure and print."""
    chance = random.Random(1)
    with tempfile.TemporaryDirectory() as directory:
        logbook = logbook_in(directory)
        inspection = opened(logbook)
        logbook.append(inspection, [*drafts(chance), *outside(chance)], "bench")
        client = TestClient(create_app(logbook, Path(directory)), base_url="http://127.0.0.1")
        here = f"/inspections/{inspection}"
        compared("sheet: 150 readings, 60 blemishes, 20 gaps", client, f"{here}/outside/blemishes")
        compared("film station with the same", client, f"{here}/film?drawing=sheet")
        kept = client.put(f"{here}/pictures/{uuid4()}", content=sample_picture(size=(320, 240))).json()
        first = next(iter(client.app.state.desk.reckoning(inspection).dossier.pictures.taken.values())).body
        assert kept["entry"]
        more = [
            Draft.write("picture.taken", Picture(**first.model_dump() | {"size": 5_000_000}), NOON, place="front")
            for _ in range(PICTURES - 1)
        ]
        logbook.append(inspection, more, "bench")
        for name, path in (("300 pictures", "pictures"), ("round beside 300 pictures", "round")):
            compared(name, client, f"{here}/{path}")
        client.app.state.desk.pictures.close()


if __name__ == "__main__":
    main()
