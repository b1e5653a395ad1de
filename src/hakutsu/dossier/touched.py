"""Places from which something was observed: what was entered there says that somebody stood there and looked."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.folding import Gathering, fold_every
from hakutsu.entries.envelope import Entry
from hakutsu.entries.functions import Result, Tried
from hakutsu.entries.registry import Body
from hakutsu.entries.under import UnderZone
from hakutsu.vehicle.places import CORNERS_OF
from hakutsu.vehicle.standing import stood_at, tried_at

OBSERVED = ("body.", "corner.", "under.", "leak.", "engine.", "fluid.", "function.tried", "cabin.", "film.reading",
            "film.magnet", "film.cue", "film.cover", "film.reflection", "film.mapped")  # fmt: skip
BAY, SEAT = ("engine.bay", "fluid."), ("engine.", "cabin.looked", "cabin.control")


@dataclass(slots=True)
class Touched:
    """Places by their keys from which something was observed."""

    places: set[str] = field(default_factory=set)


@fold_every
def _touch(gathering: Gathering, entry: Entry, body: Body) -> None:
    if not entry.kind.startswith(OBSERVED) or _unseen(body):
        return
    tried = tried_at(body.item) if isinstance(body, Tried) else ""
    stood = {one for one in (tried, *map(stood_at, _keys(entry, body))) if one}
    if not stood:
        stood = {"bay"} if entry.kind.startswith(BAY) else {"inside_front"} if entry.kind.startswith(SEAT) else set()
    if stood - gathering.part(Touched).places:
        gathering.station(Touched).places |= stood


def _unseen(body: Body) -> bool:
    """What says only that something could not be seen or tried."""
    if isinstance(body, UnderZone):
        return not body.looked
    return isinstance(body, Tried) and body.result is Result.NOT_TESTED


def _keys(entry: Entry, body: Body) -> list[str]:
    named = (getattr(body, name, "") for name in ("zone", "part"))
    here = CORNERS_OF.get(entry.place or "", (entry.place,) if entry.place else ())
    return [key for key in (*here, *named) if isinstance(key, str) and key]
