"""Fold of the underside and of leaks."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.body import Seen
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.under import Leak, UnderZone


@dataclass(slots=True)
class UnderDossier:
    """The newest look at every zone; every look at every leak, by fluid and origin."""

    zones: dict[str, Seen[UnderZone]] = field(default_factory=dict)
    leaks: dict[str, list[Seen[Leak]]] = field(default_factory=dict)


@fold("under.zone")
def _zone(gathering: Gathering, entry: Entry, body: UnderZone) -> None:
    gathering.station(UnderDossier).zones[body.zone] = Seen(entry, body)


@fold("leak.seen")
def _leak(gathering: Gathering, entry: Entry, body: Leak) -> None:
    key = f"{body.fluid}: {body.origin.casefold()}"
    gathering.station(UnderDossier).leaks.setdefault(key, []).append(Seen(entry, body))
