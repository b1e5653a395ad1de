"""Mutated bodies of every kind of entry, and every form with mutated fields, sent to the application: what fails.

Run: .venv/bin/python -W ignore -m bench.mutations [bodies a kind] [tries a form]
"""

from __future__ import annotations

import json
import logging
import random
import sys
import tempfile
from collections import Counter
from html.parser import HTMLParser
from pathlib import Path
from urllib.parse import urljoin
from uuid import uuid4

from fastapi.testclient import TestClient
from tests.builders import NOON, logbook_in, opened
from tests.entries.test_entries import SAMPLES
from tests.web.addresses import ROOMS

from hakutsu.entries import kinds
from hakutsu.entries.registry import anywhere
from hakutsu.vehicle.places import places
from hakutsu.web.app import create_app

ODD = (
    *(None, True, False, 0, -1, 1, 0.5, 1e308, -1e308, 10**18, 10**400, 2**63, [], {}, [[]], [None], ["x"] * 5000),
    *("", " ", "x" * 61, "x" * 5000, "\x00", "\ud800", "<script>", "'; DROP TABLE entry; --", "{left}", "{0}", "½"),
    *("0000-00", "9999-12-31", "nan", "1e400", str(uuid4()), "2026-11-20T12:00:00Z", {"a": {"b": {"c": {}}}}),
)
ACCEPT = {"accept": "application/json", "content-type": "application/json"}


def mutated(body: dict, luck: random.Random) -> dict:
    """A body with one to three things changed, left out or put in."""
    found = dict(body)
    for _ in range(luck.randint(1, 3)):
        key = luck.choice([*found, "extra"])
        match luck.randrange(4):
            case 0:
                found.pop(key, None)
            case 1:
                found[key] = luck.choice(ODD)
            case 2 if isinstance(found.get(key), list) and found[key]:
                found[key] = [*found[key], luck.choice(ODD)]
            case 2 if isinstance(found.get(key), float):
                found[key] = found[key] * luck.choice((-1, 0, 10, 1e6, 1e300))
            case _:
                found[luck.choice([*found, "extra"])] = luck.choice([*found.values(), *ODD])
    return found


def entries(client: TestClient, here: str, each: int, luck: random.Random) -> Counter:
    """Send mutated entries, twenty at once; then open every page of the inspection."""
    found: Counter = Counter()
    where = [None, *sorted(anywhere()), "keel", 7, "", "x" * 61]
    for kind in kinds().values():
        sample = SAMPLES[f"{kind.name}/{kind.version}"]
        for _ in range(each // 20):
            drafts = []
            for _ in range(20):
                draft = {"id": str(uuid4()), "at": NOON.isoformat(), "kind": kind.name, "body": mutated(sample, luck)}
                draft["place"] = luck.choice(where) if luck.random() < 0.7 else None
                drafts.append(mutated(draft, luck) | {"id": draft["id"]} if luck.random() < 0.3 else draft)
            answer = client.post(f"{here}/entries", content=json.dumps({"entries": drafts}), headers=ACCEPT)
            found[answer.status_code] += 1
            if answer.status_code == 200:
                found["stored"] += len(answer.json()["acknowledged"])
                found["refused"] += len(answer.json()["refused"])
            elif answer.status_code >= 500:
                print("5xx", kind.name, answer.text[:200])
    return found


class Forms(HTMLParser):
    """Forms of a page that are sent: where they go, and the names of their fields."""

    def __init__(self) -> None:
        super().__init__()
        self.found: list[tuple[str, list[str]]] = []
        self._open: tuple[str, list[str]] | None = None

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        """Take a form's address and its fields' names."""
        said = dict(attrs)
        if tag == "form" and said.get("method") == "post":
            self._open = (said.get("action") or "", [])
            self.found.append(self._open)
        elif tag in ("input", "select", "textarea", "button") and self._open and said.get("name"):
            self._open[1].append(str(said["name"]))

    def handle_endtag(self, tag: str) -> None:
        """A form ends."""
        if tag == "form":
            self._open = None


def forms(client: TestClient, here: str, each: int, luck: random.Random) -> Counter:
    """Send every form that any page shows, with mutated fields."""
    known: dict[str, set[str]] = {}
    for path in (
        *("/", "/account", "/settings", "/inspections/new", "/gauges"),
        *(here + one for one in addresses(client)),
    ):
        parser = Forms()
        parser.feed(client.get(path).text)
        for action, fields in parser.found:
            known.setdefault(urljoin(path, action) if action else path, set()).update(fields)
    found: Counter = Counter(forms=len(known))
    for address, fields in sorted(known.items()):
        for _ in range(each):
            data = {name: str(luck.choice(ODD)) for name in sorted(fields) if luck.random() < 0.8}
            data = {key: value.encode("utf-8", "replace").decode() for key, value in data.items()}
            answer = client.post(address, data=data, follow_redirects=False)
            found[answer.status_code] += 1
            if answer.status_code >= 500:
                print("5xx", address, data)
    return found


def addresses(client: TestClient) -> list[str]:
    """Every page of an inspection, below its address."""
    found = []
    for path, verbs in client.app.openapi()["paths"].items():
        rest = path.removeprefix("/inspections/{inspection}")
        if rest == path or "get" not in verbs or "news" in rest or any(one in rest for one in ("{entry}", "{digest}")):
            continue
        if "{room}" in rest:
            found += [rest.replace("{room}", room) for room in ROOMS[rest.split("/")[1]]]
        else:
            found += [rest.replace("{place}", key) for key in places()] if "{place}" in rest else [rest]
    return found


def pages(client: TestClient, here: str) -> Counter:
    """Open every page of the inspection, whatever stands in its logbook now."""
    found: Counter = Counter()
    for rest in addresses(client):
        answer = client.get(here + rest)
        found[answer.status_code] += 1
        if answer.status_code >= 500:
            print("5xx", rest)
    return found


def main(each: int, tries: int) -> None:
    """Send, open, count."""
    logging.disable(logging.CRITICAL)
    luck = random.Random(13)
    with tempfile.TemporaryDirectory() as directory:
        logbook = logbook_in(directory)
        here, other = (f"/inspections/{opened(logbook)}" for _ in range(2))
        client = TestClient(
            create_app(logbook, Path(directory)), base_url="http://127.0.0.1", raise_server_exceptions=False
        )
        print("entries", dict(entries(client, here, each, luck)))
        print("pages after them", dict(pages(client, here)))
        print("forms", dict(forms(client, other, tries, luck)))
        print("pages after those", dict(pages(client, other)), "day page", client.get("/").status_code)


if __name__ == "__main__":
    main(*(int(one) for one in sys.argv[1:3])) if len(sys.argv) > 2 else main(400, 30)
