"""Entering the reference inspection of the work van at its places: page changes, keys and taps for each entry.

The forms of every place sheet are read from its page. An entry counts as entered there if every field it has is among
them; else its station's page has to be opened, and is counted. Keys: the letter of the line, a Tab for each field on
the way, what is typed or chosen, Enter. Taps: the line, each field, two for a choice, each character, the button.

Run: .venv/bin/python -m bench.places
"""

from __future__ import annotations

import tempfile
from collections import Counter
from dataclasses import dataclass, field
from html.parser import HTMLParser
from pathlib import Path

from starlette.testclient import TestClient

from hakutsu.demo.reference import reference_drafts
from hakutsu.entries import Draft
from hakutsu.logbook import DataDirectory, Logbook
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.equipment import equipment
from hakutsu.vehicle.places import places
from hakutsu.vehicle.under import zones
from hakutsu.web.app import create_app

BEFORE = ("inspection.", "vehicle.", "claim.", "day.", "step.", "life.", "film.gauge", "general.settled")
WHOLE = {"axle_front": "front_corner_left", "axle_rear": "rear_corner_left", "wheels": "front_corner_left"}


@dataclass
class Form:
    """A form of a place sheet: what kind of entry it makes, for what, and its fields in order."""

    kind: str
    place: str
    names: list[str] = field(default_factory=list)
    choices: set[str] = field(default_factory=set)
    hidden: dict[str, str] = field(default_factory=dict)


class Forms(HTMLParser):
    """The forms of a page that make entries."""

    def __init__(self, text: str) -> None:
        super().__init__()
        self.made: list[Form] = []
        self.items: set[str] = set()
        self._now: Form | None = None
        self.feed(text)

    def handle_starttag(self, tag: str, attributes: list[tuple[str, str | None]]) -> None:
        said = {key: value or "" for key, value in attributes}
        if tag == "form":
            kind = said.get("data-entry", "general." if "data-remark" in said or "data-limit" in said else "")
            self._now = Form(kind, said.get("data-place", said.get("data-zone", "")))
            if kind:
                self.made.append(self._now)
        if "data-item" in said:
            self.items.add(said["data-item"])
        name = said.get("data-into") or said.get("name", "")
        if self._now is None or not name:
            return
        if said.get("type") == "hidden":
            self._now.hidden[name] = said.get("value", "")
        self._now.names.append(name)
        if tag == "select" or said.get("type") in ("checkbox", "radio"):
            self._now.choices.add(name)

    def handle_endtag(self, tag: str) -> None:
        if tag == "form":
            self._now = None


def home_of(draft: Draft, reckoning: Reckoning) -> str:
    """The place one stands at for an entry; empty for what belongs to a run, a link or the whole vehicle."""
    body = draft.body
    if draft.kind.startswith(("engine.", "scan.", "corner.pedal", "corner.fluid")) and draft.kind != "engine.bay":
        return ""
    if draft.kind == "function.tried":
        item = str(body["item"])
        return equipment()[item].place if item in equipment() else "inside_front"
    if draft.kind == "cabin.wear":
        return cabin_parts()[str(body["part"])].place
    if draft.kind == "under.zone":
        return zones()[str(body["zone"])].place
    place = draft.place or ""
    if place in places() or not place:
        return place or ("bay" if draft.kind == "corner.gear" else "")
    for one in reckoning.dossier.place_coverage():
        if place in places()[one.place].panels or place in {part.part for part in one.parts}:
            return one.place
    return WHOLE.get(place, place.replace("rear_arch", "rear_corner"))


def fields_of(draft: Draft) -> dict[str, object]:
    """What somebody has to enter: everything but what is false or empty."""
    return {key: value for key, value in draft.body.items() if value not in (None, "", [], (), False, "unknown")}


def keyed(draft: Draft, forms: Forms) -> tuple[list[str], int, int]:
    """Fields that the place sheet lacks, keys and taps of what it has."""
    body = fields_of(draft)
    if draft.kind == "film.reading":
        return [], len(str(body.get("value_um", ""))) + 1, len(str(body.get("value_um", ""))) + 1
    if draft.kind == "function.tried":
        missing = [] if body["item"] in forms.items | {"own"} else [str(body["item"])]
        return missing, 2, 1 if body["result"] != "but" else 3 + len(str(body.get("but", "")))
    if draft.kind.startswith("general."):
        typed = sum(len(str(one)) for one in body.values())
        return [], typed + 2, typed + 2
    if draft.kind == "cabin.wear":
        return [], 2, 2
    fitting = [one for one in forms.made if one.kind == draft.kind]
    named = body.get("zone") or body.get("fluid") or draft.place
    exact = [one for one in fitting if named in (one.place, *one.hidden.values())]
    if not fitting:
        return sorted(body), 0, 0
    form = (exact or fitting)[0]
    keys, taps, at = 1, 1, 0
    missing = [name for name in body if name not in form.names and name not in ("gaps", "clear", "rust_untold")]
    for name in (one for one in form.names if one in body and one not in form.hidden):
        values = body[name] if isinstance(body[name], list) else [body[name]]
        index = form.names.index(name)
        keys += max(1, index - at)
        at = index
        for value in values:
            typed = 1 if name in form.choices else len(str(value))
            keys += typed
            taps += 2 if name in form.choices else 1 + typed
    return missing, keys + 1, taps + 1


def main() -> None:
    """Count and print."""
    drafts = reference_drafts("carry")
    with tempfile.TemporaryDirectory() as directory:
        logbook = Logbook(DataDirectory(Path(directory)).engine())
        app = create_app(logbook, Path(directory) / "uploads")
        client = TestClient(app, base_url="http://127.0.0.1")
        inspection = drafts[0].id
        logbook.open_inspection(inspection, drafts[0].at)
        first = [one for one in drafts if one.kind.startswith(BEFORE)]
        logbook.append(inspection, first, "Bench")
        reckoning = app.state.desk.reckoning(inspection)
        pages = {key: Forms(client.get(f"/inspections/{inspection}/place/{key}").text) for key in places()}
        rest = [one for one in drafts if not one.kind.startswith(BEFORE)]
        told(rest, pages, reckoning)


def told(rest: list[Draft], pages: dict[str, Forms], reckoning: Reckoning) -> None:
    """Print the figures of entries made at the vehicle."""
    whole, partly, away = 0, Counter[str](), Counter[str]()
    keys = taps = 0
    visited, stations = set[str](), set[tuple[str, str]]()
    for draft in rest:
        home = home_of(draft, reckoning)
        if not home or home not in pages:
            away[draft.kind] += 1
            stations.add(("", draft.kind.split(".")[0]))
            continue
        visited.add(home)
        stations.add((home, draft.kind.split(".")[0]))
        missing, k, t = keyed(draft, pages[home])
        keys, taps = keys + k, taps + t
        if missing:
            partly[f"{draft.kind}: {', '.join(missing)}"] += 1
        else:
            whole += 1
    here = whole + sum(partly.values())
    print(f"entries at the vehicle: {len(rest)}; of a place: {here}; of a run or the whole: {sum(away.values())}")
    print(f"entered at its place whole: {whole}; with more on the station's page: {sum(partly.values())}")
    for words, count in sorted(partly.items()):
        print(f"  {count} {words}")
    print(f"places: {len(visited)}; page changes by place: {len(visited)} + {sum(partly.values())} there and back")
    print(f"page changes by station, walking round: {len(stations)}")
    print(f"keys for each entry: {keys / here:.1f}; taps: {taps / here:.1f}")
    print("not of a place:", dict(away))


if __name__ == "__main__":
    main()
