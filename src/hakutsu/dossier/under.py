"""Fold of the underside and of leaks."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from hakutsu.dossier.body import Seen
from hakutsu.dossier.coverage import Wanted, expects
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.under import Leak, UnderZone
from hakutsu.vehicle.quick import quick
from hakutsu.vehicle.under import fitted_zones
from hakutsu.vehicle.vocabulary import Protocol

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier


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
    key = f"{body.fluid.value}: {body.origin.casefold()}"
    gathering.station(UnderDossier).leaks.setdefault(key, []).append(Seen(entry, body))


@expects("under", "Underside")
def _zones(dossier: Dossier) -> Iterator[Wanted]:
    """Every zone of the underside; quick what its form asks for."""
    brief = dossier.opening.brief
    asked = quick(brief.quick).under if brief.protocol is Protocol.QUICK else None
    for key, zone in fitted_zones(separate_frame=dossier.mechanics.separate_frame).items():
        if asked is not None and key not in asked:
            continue
        look = dossier.under.zones.get(key)
        hidden = look is not None and bool(look.body.not_visible) and not look.body.looked
        yield Wanted(zone.place, key, look is not None and (look.body.looked or hidden), hidden)
