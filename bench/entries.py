"""Entries as each view sends them."""

from __future__ import annotations

import json
from datetime import UTC, datetime
from functools import partial
from statistics import median
from uuid import uuid4

from bench.serving import Server
from hakutsu.demo.building import demo_id

ESTATE = f"/inspections/{demo_id('estate')}"
ENTRIES = {
    "place": ("general.seen", 1, {"station": "general", "text": "seen again"}, "bay", {"place": "bay"}),
    "corners": ("corner.gear", 1, {"part": "damper", "grade": "worn"}, "wheel_front_left", {}),
    "engine": ("engine.sample", 1, {"minute": 3.0, "coolant_c": 41.0}, None, {"room": "run"}),
    "functions": ("function.tried", 2, {"item": "horn", "result": "works"}, None, {}),
    "cabin": ("cabin.wear", 2, {"part": "rim", "wear": "clear"}, None, {}),
    "film": ("film.reading", 1, {"status": "ok", "value_um": 118.0, "unit": "um", "step_um": 1.0, "limit_um": 1500.0,
             "edge": False}, "roof", {"panel": "roof"}),
}  # fmt: skip


def entry(view: str, number: int = 0) -> dict[str, object]:
    """An entry that a view sends."""
    kind, version, body, place, _ = ENTRIES[view]
    at = datetime.now(UTC).isoformat()
    made = {"id": str(uuid4()), "at": at, "kind": kind, "version": version, "body": dict(body), "place": place}
    if view == "film":
        made["body"]["value_um"] = 112.0 + number % 13  # type: ignore[index]
    return made


def posted(server: Server, here: str, view: str, number: int) -> None:
    """An entry of a view, taken in."""
    status, said = server.ask("POST", f"{here}/entries", {"entries": [entry(view, number)]})
    assert status == 200 and not json.loads(said)["refused"], said


def follow(view: str) -> str:
    """Where the moving parts of a view are asked for, below the inspection's address."""
    more = "".join(f"&{key}={value}" for key, value in ENTRIES[view][4].items())
    return f"/fragments?view={view}{more}"


def cost_after(server: Server, here: str, view: str, path: str, times: int = 7) -> float:
    """Processor time of a page after an entry [ms]."""
    used = []
    for number in range(times):
        posted(server, here, view, number)
        used.append(server.used(partial(server.ask, "GET", here + path)))
    return median(used)
