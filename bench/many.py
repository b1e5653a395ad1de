"""A data directory with many inspections, copied by SQL from the demo's with new ids, and what pages cost on it.

Run: .venv/bin/python -m bench.many [10000]
"""

from __future__ import annotations

import sqlite3
import sys
import tempfile
import time
import uuid
from collections.abc import Iterator
from pathlib import Path

from bench.entries import entry
from bench.http import ESTATE
from bench.serving import Server, serving, with_demo
from hakutsu.entries.envelope import FIRST_HASH, HASH_VERSION, chained

ENTRIES_EACH = 120


def chain(inspection: str, entries: list[tuple[int, str, str, str]]) -> Iterator[tuple[object, ...]]:
    """Entries of another inspection, each bound to the one before."""
    previous = FIRST_HASH
    for seq, id, by, draft in entries:
        previous = chained(HASH_VERSION, previous, inspection, seq, by, draft)
        yield inspection, seq, id, by, draft, previous, HASH_VERSION


def multiply(data: Path, wanted: int) -> None:
    """Copies of the fullest demo inspection, its first 120 entries, under new ids."""
    source = ESTATE.rpartition("/")[2]
    with sqlite3.connect(data / "hakutsu.sqlite") as database:
        database.execute("PRAGMA synchronous=OFF")
        first = "FROM entry WHERE inspection_id = ? AND seq <= ? ORDER BY seq"
        entries = database.execute(f'SELECT seq, id, "by", draft {first}', (source, ENTRIES_EACH)).fetchall()
        for start in range(0, wanted, 500):
            ids = [(str(uuid.uuid4()), start + i) for i in range(min(500, wanted - start))]
            database.executemany(
                "INSERT INTO inspection (id, opened_at) VALUES (?, ?)",
                [(one, f"2026-{1 + n % 10:02}-{1 + n % 28:02}T08:{n % 60:02}:00+00:00") for one, n in ids],
            )
            columns = '(inspection_id, seq, id, "by", draft, hash, hash_version)'
            rows = (row for one, _ in ids for row in chain(one, entries))
            database.executemany(f"INSERT INTO entry {columns} VALUES (?, ?, ?, ?, ?, ?, ?)", rows)
    database.close()


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
            wait = time.monotonic()
            while time.monotonic() - wait < 240 and _busy(server):
                time.sleep(2)
            print(f"in the background for {time.monotonic() - wait:.0f} s; memory {server.memory():.0f} MB", flush=True)
            report("day page", server, lambda _: server.ask("GET", "/"))
            report("day page, the last", server, lambda _: server.ask("GET", f"/?start={wanted - 20}"))
            report("film page after a reading", server, _film(server))
            report("append", server, _append(server))
            report("search with hits", server, lambda _: server.ask("GET", "/search?q=kerb"))
            report("search without", server, lambda _: server.ask("GET", "/search?q=zeppelin"))
            print(f"memory {server.memory():.0f} MB")


def _busy(server: Server) -> bool:
    before = server.processor()
    time.sleep(1.0)
    return server.processor() - before > 30


def _append(server: Server):
    return lambda number: server.ask("POST", f"{ESTATE}/entries", {"entries": [entry("cabin", number)]})


def _film(server: Server):
    def work(number: int) -> None:
        server.ask("POST", f"{ESTATE}/entries", {"entries": [entry("film", number)]})
        server.ask("GET", f"{ESTATE}/film")

    return work


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 10_000)
