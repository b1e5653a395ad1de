"""At the second side, what the first side had: said beside each form, and only what differs is asked."""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any

from hakutsu.core.film import film_um
from hakutsu.entries.envelope import Entry
from hakutsu.reckoning import Reckoning
from hakutsu.report.wording import body_words
from hakutsu.vehicle.units import show

# Forms by the kind of their entries, with the fields that may simply be the same on both sides. What is measured or
# read off (depths, dates) never is: it is shown, and measured again.
KINDS = {
    "tyre": ("corner.tyre", ("size", "cracks")),
    "brake": ("corner.brake", ("hose", "pipe", "lining")),
    "fit": ("body.fit", ("closing", "drop", "play")),
    "glass": ("body.glass", ()),
    "zone": ("under.zone", ("rust",)),
    "marks": ("body.blemish", ()),
    "gear": ("corner.gear", ()),
}
SOUND = "sound"
MOST = 6


@dataclass(frozen=True, slots=True)
class TwinSaid:
    """What the other side had: its words, fields that may be the same, and whole entries that may be said here too."""

    words: tuple[str, ...]
    same: Mapping[str, Any] = field(default_factory=dict)
    entries: tuple[Mapping[str, Any], ...] = ()

    @property
    def fields(self) -> str:
        """The fields as JSON, empty where there are none."""
        return json.dumps(self.same) if self.same else ""

    @property
    def bodies(self) -> str:
        """The entries as JSON, empty where there are none."""
        return json.dumps(self.entries) if self.entries else ""


def twin_of(key: str) -> str:
    """The same place, panel, part or zone on the other side; empty for what has no side."""
    parts = key.split("_")
    swap = {"left": "right", "right": "left"}
    return "_".join(swap.get(one, one) for one in parts) if swap.keys() & set(parts) else ""


def _said_of(entry: Entry) -> str:
    return str(entry.body.get("zone") or entry.place or "")


def twin_entries(reckoning: Reckoning, keys: Iterable[str]) -> dict[tuple[str, str], list[Entry]]:
    """What stands of the other sides of some places, by kind and by the place on this side, in order."""
    wanted = {twin_of(key): key for key in keys if twin_of(key)}
    kinds, struck = {kind for kind, _ in KINDS.values()}, reckoning.dossier.struck
    found: dict[tuple[str, str], list[Entry]] = {}
    for entry in reckoning.dossier.entries if wanted else ():
        if entry.kind in kinds and _said_of(entry) in wanted and entry.id not in struck:
            found.setdefault((entry.kind, wanted[_said_of(entry)]), []).append(entry)
    return found


def twin_said(reckoning: Reckoning, form: str, entries: list[Entry]) -> TwinSaid:
    """What a form shows of the other side; of what wears only the last look counts, of marks and parts each."""
    _, same = KINDS[form]
    several = form in ("marks", "gear")
    mine = entries if several else entries[-1:]
    words = [body_words(one.parsed(), reckoning.terms)[1] for one in mine]
    more = (f"and {len(words) - MOST} more",) if len(words) > MOST else ()
    last = mine[-1].body
    kept = {name: last[name] for name in same if last.get(name) not in (None, "", "unknown")}
    sound = tuple(
        {"part": one.body["part"], "grade": SOUND, "tested": one.body.get("tested", "")}
        for one in {one.body.get("part"): one for one in mine}.values()
        if form == "gear" and one.body.get("grade") == SOUND
    )
    return TwinSaid((*words[:MOST], *more), _as_fields(kept), sound)


def _as_fields(kept: Mapping[str, Any]) -> dict[str, Any]:
    """Yes and no as the choices of a form have them."""
    return {name: ("yes" if value else "no") if isinstance(value, bool) else value for name, value in kept.items()}


def twin_film(reckoning: Reckoning, panel: str) -> str:
    """The film of the panel on the other side in words; empty where none was read."""
    other = twin_of(panel)
    read = [film_um(one) for one in reckoning.film.observations_on(other)] if other else []
    if not read:
        return ""
    unit = reckoning.terms.film
    low, high = show(min(read), unit, with_unit=False), show(max(read), unit)
    return f"other side {low} to {high}" if len(read) > 1 else f"other side {high}"
