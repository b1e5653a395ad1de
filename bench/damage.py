"""Database files damaged in many ways: what opening, listing and reading each said; a traceback is a failure.

Run: .venv/bin/python -m bench.damage [files]
"""

from __future__ import annotations

import random
import shutil
import sqlite3
import sys
import tempfile
from collections import Counter
from datetime import UTC, datetime
from pathlib import Path

from sqlalchemy.exc import DBAPIError

from hakutsu.demo import add_demo
from hakutsu.logbook import DataDirectory, DataTrouble, Integrity, Logbook
from hakutsu.logbook.trouble import words


def sample(directory: Path) -> bytes:
    """The demo's database, all of it in one file."""
    engine = DataDirectory(directory).engine()
    add_demo(Logbook(engine))
    engine.dispose()
    with sqlite3.connect(directory / "hakutsu.sqlite") as database:
        database.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    database.close()
    return (directory / "hakutsu.sqlite").read_bytes()


def damaged(whole: bytes, luck: random.Random) -> tuple[str, bytes]:
    """One way to damage it."""
    data, way = bytearray(whole), luck.choice(("cut", "page", "bytes", "header", "zeros", "bits", "text", "empty"))
    at = luck.randrange(len(data))
    if way == "cut":
        return way, bytes(data[:at])
    if way == "page":
        data[at // 4096 * 4096 : at // 4096 * 4096 + 4096] = luck.randbytes(4096)
    elif way == "bytes":
        data[at : at + 64] = luck.randbytes(64)
    elif way == "header":
        data[luck.randrange(100)] = luck.randrange(256)
    elif way == "zeros":
        data[at : at + 20_000] = bytes(len(data[at : at + 20_000]))
    elif way == "bits":
        for _ in range(50):
            data[luck.randrange(len(data))] ^= 1 << luck.randrange(8)
    elif way == "text":
        return way, b"this is a text " * 1000
    else:
        return way, b""
    return way, bytes(data)


def said_of(directory: Path) -> str:
    """What a server would say of it, in short."""
    try:
        logbook = Logbook(DataDirectory(directory).engine())
    except DataTrouble as error:
        return f"not opened: {str(error).partition('hakutsu.sqlite ')[2][:60]}"
    try:
        inspections = logbook.inspections()
    except DBAPIError as error:
        return f"opened, not listed: {words(error)[:50]}"
    read = 0
    for one in inspections:
        try:
            entries, unread = logbook.read(one)
        except DBAPIError:
            continue
        read += bool(entries) and not unread
    faults = [one for _, one in Integrity(logbook).check_all(lambda: datetime.now(UTC), whole=True) if one.fault]
    logbook.engine.dispose()
    return f"opened: {read} of {len(inspections)} inspections read whole, {len(faults)} found not to hold"


def main(count: int) -> None:
    """Damage, open, count."""
    luck, found = random.Random(7), Counter()
    with tempfile.TemporaryDirectory() as directory:
        whole = sample(Path(directory) / "whole")
        for i in range(count):
            place = Path(directory) / f"d{i}"
            place.mkdir()
            way, data = damaged(whole, luck)
            (place / "hakutsu.sqlite").write_bytes(data)
            found[way, said_of(place)] += 1
            shutil.rmtree(place)
    for (way, said), times in sorted(found.items()):
        print(f"{times:4} {way:7} {said}")
    print(f"{count} files, none ended in a traceback")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 300)
