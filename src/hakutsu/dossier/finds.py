"""A later find takes back an earlier "nothing found" of the same place, part or subject, in every list."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from hakutsu.dossier.body import BodyDossier
from hakutsu.dossier.folding import Gathering, fold_every
from hakutsu.dossier.general import General
from hakutsu.entries.body import Addition, Blemish, Fit, Glass, GlassFault, Rust, Trim, TrimState
from hakutsu.entries.cabin import CabinLooked
from hakutsu.entries.corners import Gear, Grade
from hakutsu.entries.envelope import Entry
from hakutsu.entries.functions import Result, Tried
from hakutsu.entries.registry import Body
from hakutsu.entries.under import Leak, Stage, UnderZone
from hakutsu.vehicle.standing import stood_at, tried_at

# What each subject is called where nothing of it was found outside.
SUBJECTS: dict[type[Body], str] = {Rust: "rust", Trim: "worn or missing trim", Addition: "additions"}
FINDS: dict[type[Body], Callable[[Any], bool]] = {
    Blemish: lambda body: True,
    Rust: lambda body: True,
    Addition: lambda body: True,
    Glass: lambda body: body.fault not in (GlassFault.UNKNOWN, GlassFault.NONE),
    Trim: lambda body: body.state is not TrimState.GOOD,
    Fit: lambda body: bool(body.drop or body.play or body.rubs or body.stands_off or body.faults),
    Gear: lambda body: body.grade not in (Grade.FRESH, Grade.SOUND),
    Tried: lambda body: body.result in (Result.FAILS, Result.PARTLY),
    Leak: lambda body: body.stage is not Stage.NONE,
    UnderZone: lambda body: bool(body.rust or body.rust_untold or body.damage or body.repair or body.missing),
    CabinLooked: lambda body: bool(body.smells or body.moist or body.signs),
}


def _where(entry: Entry, body: Body) -> set[str]:
    """Every key that what was found lies at: its own, the place one stands at to see it, and what it runs over."""
    if isinstance(body, Tried):
        return {f"function_{body.item}", tried_at(body.item)}
    own = {key for key in (entry.place, getattr(body, "zone", "")) if key} | set(getattr(body, "also_on", ()))
    return own | {place for key in own if (place := stood_at(key))}


@fold_every
def _later_find(gathering: Gathering, entry: Entry, body: Body) -> None:
    finds = FINDS.get(type(body))
    if finds is None or not finds(body):
        return
    where, general, outside = _where(entry, body), gathering.part(General), gathering.part(BodyDossier)
    struck = where & general.nothing.keys()
    if struck or any(one.entry.place in where for one in general.stated):
        mine = gathering.station(General)
        for key in struck:
            del mine.nothing[key]
        mine.stated[:] = [one for one in mine.stated if one.entry.place not in where]
    subject = SUBJECTS.get(type(body), "")
    if any(one.place in where and one.body.text in ("", subject) for one in outside.none):
        none = gathering.station(BodyDossier).none
        none[:] = [one for one in none if one.place not in where or one.body.text not in ("", subject)]
