"""Findings of all stations, as the rules of one story see them."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import TYPE_CHECKING, Any

from hakutsu.core.engine.idle import Idling
from hakutsu.core.engine.start import start_table
from hakutsu.core.engine.warm_up import Warming
from hakutsu.core.functions import Status
from hakutsu.core.stories import Finding, Story, stories
from hakutsu.dossier.body import Seen

if TYPE_CHECKING:
    from hakutsu.reckoning import Reckoning

ALTERED_FROM = 0.7
FAULTY = (Status.FAILS, Status.PARTLY, Status.BUT, Status.INTERMITTENT)


def told_once(reckoning: Reckoning) -> list[Story]:
    """Pairs of findings that explain each other, over all stations."""
    found = [
        *_outside(reckoning), *_remarks(reckoning), *_film(reckoning), *_below(reckoning), *_bay(reckoning),
        *_inside(reckoning), *_corners(reckoning),
    ]  # fmt: skip
    return stories(found)


def _said(body: Any) -> str:
    """Everything an entry says, as words to match; what it leaves at its default says nothing."""
    told = body.model_dump(mode="json", exclude_defaults=True).values()
    flat = [str(one) for value in told for one in (value if isinstance(value, list) else [value]) if value]
    return " ".join(flat)


def _one(seen: Seen[Any], place: str | None = None, more: str = "") -> Finding:
    words = f"{_said(seen.body)} {more}".strip()
    return Finding(seen.entry.kind, seen.place if place is None else place, words, seen.entry.id)


def _outside(reckoning: Reckoning) -> Iterator[Finding]:
    body, outside = reckoning.dossier.body, reckoning.outside
    seen: tuple[Seen[Any], ...] = (*body.glass, *body.rust, *body.trim, *body.blemishes.values())
    for one in seen:
        more = "along_travel" if getattr(one.body, "along_travel", False) else ""
        yield _one(one, more=f"{more} odd_mark" if one.place in outside.odd_marks else more)
    for panel, fit in outside.fits.items():
        words = f"{'; '.join(fit.words)}{' out_of_line' if fit.cue else ''}"
        yield Finding("body.fit", panel, words, body.fits[panel].entry.id)


def _remarks(reckoning: Reckoning) -> Iterator[Finding]:
    for entry, body in reckoning.dossier.follow_ups.remarks:
        said = [str(value) for value in body.model_dump(mode="json").values() if isinstance(value, str)]
        yield Finding(entry.kind, entry.place or "", " ".join(said), entry.id)


def _film(reckoning: Reckoning) -> Iterator[Finding]:
    for result in reckoning.film.panels:
        if result.readings and result.altered > ALTERED_FROM:
            yield Finding("film.altered", result.panel, result.words)


def _below(reckoning: Reckoning) -> Iterator[Finding]:
    under = reckoning.dossier.under
    for key, zone in under.zones.items():
        yield _one(zone, key)
    for looks in under.leaks.values():
        if not looks[-1].entry.own_doing:
            yield _one(looks[-1], looks[-1].body.zone or "")


def _bay(reckoning: Reckoning) -> Iterator[Finding]:
    seen, found = reckoning.dossier.engine, reckoning.engine
    if seen.start is not None:
        cranked = seen.start.body.cranking_s
        yield _one(
            seen.start, "bay", "cranked long" if cranked and cranked >= start_table()["start"]["cranked_s"] else ""
        )
    if seen.bay is not None:
        side = seen.bay.body.side
        yield _one(seen.bay, f"front_corner_{side}" if side else "bay")
    looked: tuple[Seen[Any], ...] = (*seen.looks, *seen.fluids.values())
    for one in looked:
        yield _one(one, "bay")
    if seen.idles and found.idle is not None and found.idle.idling in (Idling.ROUGH, Idling.HUNTING):
        yield Finding("engine.idle", "bay", str(found.idle.idling), seen.idles[-1].entry.id)
    if seen.samples and found.verdict.warming in (Warming.COLD, Warming.HOT, Warming.STOP):
        yield Finding("engine.warming", "bay", str(found.verdict.warming), seen.samples[-1].entry.id)
    if seen.battery is not None:
        for said in found.battery:
            yield Finding("engine.battery", "bay", f"{said.level}: {said.words}", seen.battery.entry.id)


def _inside(reckoning: Reckoning) -> Iterator[Finding]:
    dossier = reckoning.dossier
    for one in dossier.cabin.looks:
        yield _one(one, "inside_front")
    for item, status in reckoning.functions.statuses:
        if status.status in FAULTY:
            tried = dossier.functions.tried[item.key][-1]
            yield Finding("function.tried", item.key, f"{item.name} {status.status} {status.words}", tried.entry.id)
    for lamp in dossier.functions.lamps:
        yield _one(lamp, "inside_front")


def _corners(reckoning: Reckoning) -> Iterator[Finding]:
    corners = reckoning.dossier.corners
    tables: tuple[Mapping[str, Seen[Any]], ...] = (corners.tyres, corners.brakes, corners.wheels, corners.gear)
    for table in tables:
        for one in table.values():
            yield _one(one)
    if corners.pedal is not None:
        yield _one(corners.pedal)
    for found in reckoning.corners.every:
        if found.where:
            yield Finding("corner.found", found.where, found.words)
