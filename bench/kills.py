"""A server killed (SIGKILL) again and again while three clients write, one of them pictures: what was lost.

Run: .venv/bin/python -m bench.kills [kills]
"""

from __future__ import annotations

import hashlib
import json
import random
import sys
import tempfile
import threading
import time
import urllib.request
from datetime import UTC, datetime
from http.client import HTTPException
from pathlib import Path
from uuid import UUID, uuid4

from tests.browser.driving import RunningServer
from tests.builders import logbook_in, opened

from hakutsu.demo.pictures import sample_picture
from hakutsu.logbook import Integrity

LONGEST_SECONDS = 1.2


class Client(threading.Thread):
    """Writes until the server is gone; keeps what was acknowledged."""

    def __init__(self, server: RunningServer, inspection: UUID, *, pictures: bool) -> None:
        super().__init__(daemon=True)
        self.address, self.inspection, self.pictures = server.address, inspection, pictures
        self.acknowledged: list[str] = []

    def run(self) -> None:
        """Write."""
        while True:
            try:
                self.acknowledged += self.picture() if self.pictures else self.entries()
            except (OSError, HTTPException, ValueError):
                return

    def send(self, method: str, path: str, body: bytes) -> dict[str, object]:
        """One request."""
        headers = {"Content-Type": "application/json", "Accept": "application/json"}
        request = urllib.request.Request(f"{self.address}{path}", body, headers, method=method)
        with urllib.request.urlopen(request, timeout=5) as answer:
            return json.load(answer)

    def entries(self) -> list[str]:
        """A batch of one to five readings."""
        at = datetime.now(UTC).isoformat()
        drafts = [
            {"id": str(uuid4()), "at": at, "kind": "film.reading", "place": "roof", "body": {"value_um": 100 + i}}
            for i in range(random.randint(1, 5))
        ]
        said = self.send("POST", f"/inspections/{self.inspection}/entries", json.dumps({"entries": drafts}).encode())
        return list(said["acknowledged"])

    def picture(self) -> list[str]:
        """A picture nobody sent before."""
        entry = str(uuid4())
        data = sample_picture(size=(160, 120)) + entry.encode()
        self.send("PUT", f"/inspections/{self.inspection}/pictures/{entry}?name=a.jpg", data)
        return [entry]


def killed_once(server: RunningServer, inspection: UUID) -> list[list[str]]:
    """Start, let three write, kill; what each had acknowledged."""
    server.start()
    clients = [Client(server, inspection, pictures=pictures) for pictures in (False, False, True)]
    for one in clients:
        one.start()
    time.sleep(random.uniform(0.02, LONGEST_SECONDS))
    server.kill()
    for one in clients:
        one.join(10)
    return [one.acknowledged for one in clients]


def main(kills: int) -> None:
    """Kill, then look."""
    with tempfile.TemporaryDirectory() as directory:
        inspection = opened(logbook_in(directory))
        server = RunningServer(data=Path(directory))
        entries, pictures = [], []
        for done in range(kills):
            first, second, third = killed_once(server, inspection)
            entries, pictures = entries + first + second, pictures + third
            if done % 50 == 49:
                print(f"· {done + 1} kills", flush=True)
        server.start()
        urllib.request.urlopen(server.address, timeout=30).close()  # by then what was half done is cleared
        server.kill()
        logbook = logbook_in(directory)
        kept = {str(entry.id): entry for entry in logbook.entries(inspection)}
        root = Path(directory) / "pictures"
        hashes = [str(kept[one].body["sha256"]) for one in pictures if one in kept]
        whole = sum(hashlib.sha256((root / "originals" / h[:2] / h).read_bytes()).hexdigest() == h for h in hashes)
        fault = Integrity(logbook).check(inspection, datetime.now(UTC), whole=True).fault_seq
        half = len(list((root / "incoming").iterdir())) + len(list(root.glob("copies/*/*.part")))
    lost = len({*entries, *pictures} - set(kept))
    print(f"{kills} kills: {len(entries):,} entries and {len(pictures):,} pictures acknowledged, {lost} lost; "
          f"{whole} of {len(pictures)} originals whole; chain {'unbroken' if fault is None else f'broken at {fault}'}; "
          f"{half} half files")  # fmt: skip


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 200)
