"""What pages and entries cost a real server, in processor time, beside a bare one that answers the same bytes.

Run: .venv/bin/python -m bench.http [pages] [entries] [growth] [load]
"""

from __future__ import annotations

import gzip
import sys
import tempfile
from collections.abc import Callable
from functools import partial
from pathlib import Path
from statistics import median

from bench.entries import ENTRIES, ESTATE, cost_after, follow, posted
from bench.growth import growth
from bench.load import load
from bench.serving import Server, bare, serving, with_demo

PAGES = (
    "/round", "/place/bay", "/film", "/film?drawing=sheet", "/outside/blemishes", "/outside/rust", "/corners",
    "/under", "/engine/run", "/engine/bay", "/engine/fluids", "/functions", "/cabin", "/scan", "/road/noticed",
    "/road/measured", "/papers/identity", "/papers/dates", "/papers/distance", "/service/plan",
    "/service/tests", "/variant",
    "/life/calendar", "/life/money", "/life/sheet", "/life/condition", "/pictures", "/logbook",
    "/runsheet", "/report",
)  # fmt: skip


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
            after = cost_after(server, ESTATE, "place", path)
            size = len(bodies[f"/{i}"])
            print(f"{path:22} {size:8} {plain / 20:7.2f} {same / 20:10.2f} {same / plain:6.1f} {after:15.1f}")


def entries(server: Server) -> None:
    """Acknowledgement of an entry and the fragments that follow, view by view."""
    print(f"{'view':12} {'acknowledged':>13} {'fragments':>10}   [ms of processor]")
    for view in ENTRIES:
        server.ask("GET", ESTATE + follow(view))
        acknowledged, fragments = [], []
        for number in range(9):
            acknowledged.append(server.used(partial(posted, server, ESTATE, view, number)))
            fragments.append(server.used(partial(server.ask, "GET", ESTATE + follow(view))))
        print(f"{view:12} {median(acknowledged):13.1f} {median(fragments):10.1f}")


def served(measure: Callable[[Server], None]) -> Callable[[Path], None]:
    """A part that needs nothing but a server on the demo's inspections."""

    def part(directory: Path) -> None:
        with serving(directory) as server:
            measure(server)

    return part


PARTS = {"pages": served(pages), "entries": served(entries), "growth": growth, "load": load}


def main(names: list[str]) -> None:
    """Measure the named parts, or all."""
    for name in names or PARTS:
        with tempfile.TemporaryDirectory() as directory:
            PARTS[name](with_demo(directory))


if __name__ == "__main__":
    main(sys.argv[1:])
