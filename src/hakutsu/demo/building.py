"""Build the demo's inspections from its data files, through the same entries as everything else."""

from __future__ import annotations

import tomllib
from collections.abc import Iterator
from datetime import datetime, timedelta
from importlib.resources import files
from typing import Any
from uuid import UUID, uuid5

from hakutsu.demo.pictures import sample_picture
from hakutsu.demo.reference import BY, REFERENCES, reference_drafts
from hakutsu.entries import Draft, kinds, parse_body
from hakutsu.entries.film import (
    CoverFelt,
    CueLookedFor,
    GaugeInUse,
    Reading,
    Shim,
    Verification,
    VerifiedWhen,
)
from hakutsu.entries.general import ForDesk, Limit, Seen, Station, Strike
from hakutsu.entries.opening import Brief, Stage, StageReached, Vehicle
from hakutsu.entries.pictures import Described, Marked, Picture
from hakutsu.entries.settings import Overrides, Settings
from hakutsu.logbook import Logbook
from hakutsu.logbook.pictures import PictureFiles
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.vehicle.library import LibraryFile, read_library
from hakutsu.vehicle.vocabulary import ReadingStatus

DEMO = UUID("5d0b2a52-9d0f-4a35-8ab0-0f3b6a2f7c10")
CARS = ("fell", "hatch", "estate")
BETWEEN_READINGS = timedelta(seconds=7)


def demo_id(car: str) -> UUID:
    """Id of a demo inspection: always the same, so that it is never added twice."""
    return uuid5(DEMO, car)


def demo_car(car: str) -> dict[str, Any]:
    """The data file of a demo vehicle."""
    return tomllib.loads((files("hakutsu.demo") / "data" / f"{car}.toml").read_text(encoding="utf-8"))


class _Pen:
    """Writes drafts one after the other, with ids that stay the same from run to run."""

    def __init__(self, car: str, begun: datetime) -> None:
        self.inspection, self.at, self.drafts = demo_id(car), begun, list[Draft]()

    def write(self, kind: str, body: Any, **envelope: Any) -> UUID:
        made = uuid5(self.inspection, str(len(self.drafts)))
        self.drafts.append(Draft.write(kind, body, self.at, id=made, **envelope))
        self.at += BETWEEN_READINGS
        return made


def _notes(pen: _Pen, said: dict[str, Any]) -> None:
    """What was noted beside the film: limits, entries of any kind, remarks."""
    for limit in said.get("limit", ()):
        pen.write("general.limit", Limit(station=Station.FILM, because=limit["because"]), place=limit["panel"])
    for other in said.get("entry", ()):
        body = parse_body(other["kind"], kinds()[other["kind"]].version, other["body"])
        pen.write(other["kind"], body, place=other.get("place"), how=other.get("how", ""))
    for remark in said.get("remark", ()):
        pen.write("general.seen", Seen(text=remark["text"]), how="arm's length, daylight")


def demo_drafts(car: str) -> list[Draft]:
    """All entries of a demo vehicle, with a mistyped reading struck where the survey is finished."""
    said = demo_car(car)
    pen = _Pen(car, said["begun"])
    pen.write("inspection.vehicle", Vehicle(vehicle=VehicleDescription(**said["vehicle"])))
    pen.write("inspection.brief", Brief(**said["brief"]))
    gauge = GaugeInUse(**said["gauge"])
    pen.write("film.gauge", gauge)
    _notes(pen, said)
    if "verified" in said:
        pen.write("film.verification", _verification(said["verified"], VerifiedWhen.START, gauge))
    if said["finished"]:
        slip = pen.write("film.reading", _reading(gauge, 0.5, 0.5, 1117), place=said["read"][0]["panel"])
        pen.write("general.strike", Strike(because="mistyped"), strikes=slip)
    for panel, spot in _spots(said):
        pen.write("film.reading", _reading(gauge, *spot), place=panel)
    for cover in said.get("cover", ()):
        felt = CoverFelt(kind=cover["kind"], thickness_um=cover.get("thickness_um"))
        pen.write("film.cover", felt, place=cover["panel"])
    for cue in said.get("cue", ()):
        looked = CueLookedFor(cue=cue["cue"], there=cue["there"], light=cue["light"], note=cue.get("note", ""))
        pen.write("film.cue", looked, place=cue["panel"])
    if said["finished"] and "verified" in said:
        pen.write("film.verification", _verification(said["verified"], VerifiedWhen.END, gauge))
    if said["finished"]:
        pen.write("inspection.stage", StageReached(stage=Stage.FINISHED))
    return pen.drafts


def _verification(said: dict[str, Any], when: VerifiedWhen, gauge: GaugeInUse) -> Verification:
    checks = tuple(Shim(reference_um=reference, shown_um=shown) for reference, shown in said[when.value])
    return Verification(when=when, gauge=gauge.name, checks=checks)


def _spots(said: dict[str, Any]) -> Iterator[tuple[str, list[Any]]]:
    for block in said["read"]:
        for spot in block["spots"]:
            yield block["panel"], spot


def _reading(gauge: GaugeInUse, u: float, v: float, shown: float | str) -> Reading:
    over = shown == "over"
    return Reading(
        value_um=None if over else float(shown),
        status=ReadingStatus.OVER if over else ReadingStatus.OK,
        u=u,
        v=v,
        unit=gauge.unit,
        step_um=gauge.step_um,
        limit_um=gauge.limit_um,
    )


def add_pictures(logbook: Logbook, store: PictureFiles, car: str) -> None:
    """Draw and keep the sample pictures of a demo vehicle, each for its place with its tag and words."""
    said = demo_car(car)
    pen = _Pen(f"{car}/pictures", said["begun"])
    for i, row in enumerate(said.get("picture", ())):
        with store.receive() as incoming:
            incoming.write(sample_picture(car, row["mark"], seed=i))
            kept = incoming.keep(row["name"])
        body = Picture(sha256=kept.sha256, name=row["name"], mime=kept.mime, size=kept.size, width=kept.width,
                       height=kept.height, tags=tuple(row.get("tags", ())))  # fmt: skip
        taken = pen.write("picture.taken", body, place=row["place"])
        if "words" in row:
            pen.write("picture.described", Described(of=taken, words=row["words"], tags=body.tags))
        if "marks" in row:
            pen.write("picture.annotated", Marked(of=taken, marks=row["marks"]))
        if "desk" in row:
            pen.write("general.for_desk", ForDesk(question=row["desk"], shows=taken), place=row["place"])
        store.want(kept.sha256)
    logbook.append(demo_id(car), pen.drafts, said["by"])


EXAMPLE = "hatch"  # half done: it shows what an inspection looks like on the way
ISLES = Settings(rules="orrin")


def add_example(logbook: Logbook, store: PictureFiles | None = None) -> UUID:
    """Add the half-done example, if it is not there yet; returns its id. Its rules are those of the isles."""
    if not logbook.holds(demo_id(EXAMPLE)):
        _add(logbook, EXAMPLE, store)
        rules = Overrides(rules=ISLES.rules)
        logbook.append(demo_id(EXAMPLE), [Draft.write("inspection.settings", rules, demo_drafts(EXAMPLE)[-1].at)], BY)
    return demo_id(EXAMPLE)


def _add(logbook: Logbook, car: str, store: PictureFiles | None) -> None:
    said = demo_car(car)
    logbook.library.keep_gauge(GaugeInUse(**said["gauge"]))
    logbook.open_inspection(demo_id(car), said["begun"])
    logbook.append(demo_id(car), demo_drafts(car), said["by"])
    if store is not None:
        add_pictures(logbook, store, car)


def demo_library() -> LibraryFile:
    """The invented library that ships with the demo."""
    return read_library((files("hakutsu.demo") / "data" / "library.json").read_bytes())


def add_demo(logbook: Logbook, store: PictureFiles | None = None) -> None:
    """Add the demo's inspections that are not there yet; the account is that of the isles where it has none."""
    if not logbook.library.asked:
        logbook.library.settings = ISLES
    if not logbook.library.known.variants:
        logbook.library.known = demo_library()
    for car in CARS:
        if logbook.holds(demo_id(car)):
            continue
        if not logbook.account:
            logbook.account = demo_car(car)["by"]
        _add(logbook, car, store)
    for name in REFERENCES:
        drafts = reference_drafts(name)
        if not logbook.holds(demo_id(name)):
            logbook.open_inspection(demo_id(name), drafts[0].at)
            logbook.append(demo_id(name), drafts, BY)
