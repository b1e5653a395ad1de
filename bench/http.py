"""What pages and entries cost a real server, in processor time, beside a bare one that answers the same bytes.

Run: .venv/bin/python -m bench.http [pages] [entries]
"""

from __future__ import annotations

import gzip
import json
import sys
import tempfile
from datetime import UTC, datetime
from pathlib import Path
from uuid import uuid4

from bench.serving import Server, bare, serving
from hakutsu.demo import add_demo
from hakutsu.demo.building import demo_id
from hakutsu.logbook import DataDirectory, Logbook
from hakutsu.logbook.pictures import PictureFiles

ESTATE = f"/inspections/{demo_id('estate')}"
PAGES = (
    "/round", "/place/bay", "/film", "/film?drawing=sheet", "/outside/blemishes", "/outside/rust", "/corners", "/under",
    "/engine/run", "/engine/bay", "/engine/fluids", "/functions", "/cabin", "/life/calendar", "/life/money",
    "/life/sheet", "/life/condition", "/pictures", "/logbook", "/runsheet", "/report",
)  # fmt: skip
ENTRIES = {
    "place": ("general.seen", 1, {"station": "general", "text": "seen again"}, "bay", {"place": "bay"}),
    "corners": ("corner.gear", 1, {"part": "damper", "grade": "worn"}, "wheel_front_left", {}),
    "engine": ("engine.sample", 1, {"minute": 3.0, "coolant_c": 41.0}, None, {"room": "run"}),
    "functions": ("function.tried", 2, {"item": "horn", "result": "works"}, None, {}),
    "cabin": ("cabin.wear", 2, {"part": "rim", "wear": "clear"}, None, {}),
    "film": ("film.reading", 1, {"status": "ok", "value_um": 118.0, "unit": "um", "step_um": 1.0, "limit_um": 1500.0,
             "edge": False}, "roof", {"panel": "roof"}),
}  # fmt: skip


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


def entry(view: str, number: int = 0) -> dict[str, object]:
    """An entry that a view sends."""
    kind, version, body, place, _ = ENTRIES[view]
    at = datetime.now(UTC).isoformat()
    made = {"id": str(uuid4()), "at": at, "kind": kind, "version": version, "body": dict(body), "place": place}
    if view == "film":
        made["body"]["value_um"] = 112.0 + number % 13  # type: ignore[index]
    return made


def body_of(server: Server, path: str) -> bytes:
    """The page as it is sent, not compressed."""
    status, sent = server.ask("GET", path)
    assert status == 200, (path, status)
    return gzip.decompress(sent) if sent[:2] == b"\x1f\x8b" else sent


def pages(server: Server) -> None:
    """Every page unchanged, as a ratio to a bare route, and after an entry."""
    bodies = {f"/{i}": body_of(server, ESTATE + path) for i, path in enumerate(PAGES)}
    print(f"{'page':22} {'bytes':>8} {'bare':>7} {'unchanged':>10} {'ratio':>6} {'after an entry':>15}")
    with bare(bodies) as beside:
        for i, path in enumerate(PAGES):
            plain, _ = beside.cost(lambda _, i=i: [beside.ask("GET", f"/{i}") for _ in range(20)], 9)
            same, _ = server.cost(lambda _, path=path: [server.ask("GET", ESTATE + path) for _ in range(20)], 9)

            def changed(number: int, path: str = path) -> None:
                server.ask("GET", ESTATE + path)

            used = []
            for number in range(7):
                server.ask("POST", f"{ESTATE}/entries", {"entries": [entry("place", number)]})
                server._settle()
                before = server.processor()
                changed(number)
                server._settle()
                used.append(server.processor() - before)
            after = sorted(used)[3]
            size = len(bodies[f"/{i}"])
            print(f"{path:22} {size:8} {plain / 20:7.2f} {same / 20:10.2f} {same / plain:6.1f} {after:15.1f}")


def follow(view: str) -> str:
    """Where the moving parts of a view are asked for."""
    more = "".join(f"&{key}={value}" for key, value in ENTRIES[view][4].items())
    return f"{ESTATE}/fragments?view={view}{more}"


def entries(server: Server) -> None:
    """Acknowledgement of an entry and the fragments that follow, view by view."""
    print(f"{'view':12} {'acknowledged':>13} {'fragments':>10}   [ms of processor]")
    for view in ENTRIES:
        server.ask("GET", follow(view))
        acknowledged, fragments = [], []
        for number in range(9):
            at = [server.processor()]
            status, said = server.ask("POST", f"{ESTATE}/entries", {"entries": [entry(view, number)]})
            assert status == 200 and not json.loads(said)["refused"], said
            server._settle()
            at.append(server.processor())
            status, _ = server.ask("GET", follow(view))
            assert status == 200, status
            server._settle()
            at.append(server.processor())
            acknowledged.append(at[1] - at[0])
            fragments.append(at[2] - at[1])
        print(f"{view:12} {sorted(acknowledged)[4]:13.1f} {sorted(fragments)[4]:10.1f}")


PARTS = {"pages": pages, "entries": entries}


def main(names: list[str]) -> None:
    """Measure the named parts, or all."""
    with tempfile.TemporaryDirectory() as directory, serving(with_demo(directory)) as server:
        for name in names or PARTS:
            PARTS[name](server)


if __name__ == "__main__":
    main(sys.argv[1:])
