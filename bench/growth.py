"""What one long inspection costs: the film page after a reading, its logbook and its pictures."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from pathlib import Path
from random import Random
from uuid import UUID, uuid5

from bench.entries import cost_after
from bench.serving import serving
from hakutsu.demo.building import demo_drafts
from hakutsu.entries import Draft
from hakutsu.entries.film import Reading
from hakutsu.entries.general import Seen
from hakutsu.entries.pictures import Picture, PictureKind
from hakutsu.logbook import DataDirectory, Logbook
from hakutsu.vehicle.panels import panels

GROWN = UUID("0d6f5b0e-31f6-4d2c-9b0f-6a7f0c0e5a10")
READINGS, PICTURES = 0.2, 0.2  # of all entries; the others are remarks
PLACES = ("front", "rear", "bay", "driver_seat", "wheel_front_left")


def grown(data: Path, wanted: int) -> str:
    """The fullest demo inspection, gone on until it has so many entries; its address."""
    directory = DataDirectory(data)
    directory.hold()
    logbook = Logbook(directory.engine())
    id = uuid5(GROWN, str(wanted))
    rng, at = Random(wanted), datetime(2026, 11, 2, 9, tzinfo=UTC)
    mine = [p for p in panels() if not p.startswith("sill")][:14]
    drafts = [draft.model_copy(update={"id": uuid5(id, str(draft.id))}) for draft in _plain(demo_drafts("estate"))]
    for number in range(wanted - len(drafts)):
        at += timedelta(seconds=5)
        drafts.append(_one(id, number, rng, at, mine))
    logbook.open_inspection(id, at)
    for start in range(0, len(drafts), 500):
        logbook.append(id, drafts[start : start + 500], "Bench")
    logbook.engine.dispose()
    directory.release()
    return f"/inspections/{id}"


def _plain(drafts: list[Draft]) -> list[Draft]:
    """Those that name no other entry, so that they stand under new ids."""
    named = {str(draft.id) for draft in drafts}
    return [
        one
        for one in drafts
        if one.strikes is None and not any(id in one.model_dump_json() for id in named - {str(one.id)})
    ]


def _one(id: UUID, number: int, rng: Random, at: datetime, mine: list[str]) -> Draft:
    draw, name = rng.random(), uuid5(id, f"more {number}")
    if draw < READINGS:
        body = Reading(value_um=round(rng.gauss(118, 6)), step_um=1.0, limit_um=1500.0)
        return Draft.write("film.reading", body, at, id=name, place=rng.choice(mine))
    if draw < READINGS + PICTURES:
        body = Picture(
            sha256=f"{number:064x}", name=f"{number}.jpg", kind=PictureKind.STILL, mime="image/jpeg", size=1000,
            width=1600, height=1200,
        )  # fmt: skip
        return Draft.write("picture.taken", body, at, id=name, place=rng.choice(PLACES))
    return Draft.write(
        "general.seen", Seen(text=f"looked at again, no {number}"), at, id=name, place=rng.choice(PLACES)
    )


def growth(directory: Path) -> None:
    """One inspection of 300, 1,000, 2,500 and 5,000 entries."""
    sizes = (300, 1000, 2500, 5000)
    here = {size: grown(directory, size) for size in sizes}
    names = ("entries", "film", "fragments", "logbook", "pictures", "report")
    print("".join(f"{name:>11}" for name in names) + "   [ms of processor after an entry]")
    with serving(directory) as server:
        for size in sizes:
            paths = (("film", "/film"), ("film", "/fragments?view=film&panel=roof"), ("place", "/logbook"),
                     ("place", "/pictures"), ("place", "/report"))  # fmt: skip
            costs = [cost_after(server, here[size], view, path) for view, path in paths]
            print(f"{size:11}" + "".join(f"{one:11.0f}" for one in costs), flush=True)
