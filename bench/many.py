"""A data directory with many inspections, copied by SQL from the demo's with new ids, and what pages cost on it.

Run: .venv/bin/python -m bench.many [10000]
"""

from __future__ import annotations

import sys
import tempfile
import time

from bench.copies import multiply
from bench.entries import ESTATE, entry
from bench.serving import Server, serving, with_demo


def report(name: str, server: Server, work, times: int = 9) -> None:
    """Print what a piece of work costs."""
    used, taken = server.cost(work, times)
    print(f"{name:44} {used:8.1f} ms of processor, {taken:8.1f} ms until it is there", flush=True)


def main(wanted: int) -> None:
    """Measure and print."""
    with tempfile.TemporaryDirectory() as directory:
        data = with_demo(directory)
        began = time.monotonic()
        multiply(data, wanted)
        print(f"{wanted} inspections made in {time.monotonic() - began:.0f} s", flush=True)
        began = time.monotonic()
        with serving(data) as server:
            started = time.monotonic() - began
            first = time.monotonic()
            server.ask("GET", "/")
            print(f"start {started:.2f} s, first page {time.monotonic() - first:.2f} s", flush=True)
            report("day page, while summaries are made", server, lambda _: server.ask("GET", "/"))
            time.sleep(20)  # the background begins after three seconds, and goes on for hours when nobody asks
            report("day page", server, lambda _: server.ask("GET", "/"))
            report("day page, the last", server, lambda _: server.ask("GET", f"/?start={wanted - 20}"))
            report("film page after a reading", server, _film(server))
            report("append", server, _append(server))
            report("search with hits", server, lambda _: server.ask("GET", "/search?q=kerb"))
            report("search without", server, lambda _: server.ask("GET", "/search?q=zeppelin"))
            print(f"memory {server.memory():.0f} MB")


def _append(server: Server):
    return lambda number: server.ask("POST", f"{ESTATE}/entries", {"entries": [entry("cabin", number)]})


def _film(server: Server):
    def work(number: int) -> None:
        server.ask("POST", f"{ESTATE}/entries", {"entries": [entry("film", number)]})
        server.ask("GET", f"{ESTATE}/film")

    return work


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 10_000)
