"""Fold of the underside and of leaks."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from hakutsu.dossier.body import Seen
from hakutsu.dossier.coverage import Wanted, expects
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.under import Leak, UnderZone, ZoneClear
from hakutsu.vehicle.quick import quick
from hakutsu.vehicle.under import fitted_zones
from hakutsu.vehicle.vocabulary import Protocol

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier


@dataclass(slots=True)
class UnderDossier:
    """What is told of every zone, and every look that told it; every look at every leak, by fluid and origin."""

    looks: dict[str, list[Seen[UnderZone]]] = field(default_factory=dict)
    zones: dict[str, Seen[UnderZone]] = field(default_factory=dict)
    leaks: dict[str, list[Seen[Leak]]] = field(default_factory=dict)


@fold("under.zone")
def _zone(gathering: Gathering, entry: Entry, body: UnderZone) -> None:
    """A later look adds to what was told of a zone before, and takes the place of what it speaks of itself; one that
    says that the zone cannot be seen takes the place of all.
    """
    under = gathering.station(UnderDossier)
    before = under.looks.get(body.zone, [])
    if body.not_visible or not before:
        under.looks[body.zone] = [Seen(entry, body)]
        under.zones[body.zone] = Seen(entry, body)
        return
    under.looks[body.zone] = [*before, Seen(entry, body)]
    under.zones[body.zone] = Seen(entry, _told(under.zones[body.zone].body, body))


def _told(before: UnderZone, now: UnderZone) -> UnderZone:
    """What two looks at a zone tell together."""
    said = {name: getattr(now, name) for name in now.model_fields_set - {"zone", "clear"}}
    if now.looked:
        said["not_visible"] = ""
    gone = set(now.clear)
    found = {ZoneClear.RUST: now.rust is not None or now.rust_untold, ZoneClear.DAMAGE: bool(now.damage),
             ZoneClear.REPAIR: bool(now.repair)}  # fmt: skip
    if ZoneClear.RUST in gone or now.rust is not None or now.rust_untold:
        said |= {"rust": now.rust, "rust_untold": now.rust_untold}
    said |= {"damage": ()} if ZoneClear.DAMAGE in gone else {}
    said |= {"repair": ()} if ZoneClear.REPAIR in gone else {}
    kept = [one for one in before.clear if one not in gone and not found.get(one)]
    return before.model_copy(update={**said, "clear": (*kept, *now.clear)})


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
