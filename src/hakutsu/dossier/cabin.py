"""Fold of the cabin."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from hakutsu.dossier.body import Seen
from hakutsu.dossier.coverage import Wanted, expects
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.cabin import CabinLooked, CabinWear, Control, Inventory
from hakutsu.entries.envelope import Entry
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.inventory import expected_belongings
from hakutsu.vehicle.quick import quick
from hakutsu.vehicle.vocabulary import Protocol

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier


SEAT = "inside_front"


@dataclass(slots=True)
class CabinDossier:
    """The newest grade of every part, every look, what belongs to it, and controls without a mark."""

    wear: dict[str, Seen[CabinWear]] = field(default_factory=dict)
    looks: list[Seen[CabinLooked]] = field(default_factory=list)
    inventory: dict[str, Seen[Inventory]] = field(default_factory=dict)
    controls: list[Seen[Control]] = field(default_factory=list)


@fold("cabin.wear")
def _wear(gathering: Gathering, entry: Entry, body: CabinWear) -> None:
    gathering.station(CabinDossier).wear[body.part] = Seen(entry, body)


@fold("cabin.looked")
def _looked(gathering: Gathering, entry: Entry, body: CabinLooked) -> None:
    gathering.station(CabinDossier).looks.append(Seen(entry, body))


@fold("cabin.inventory")
def _inventory(gathering: Gathering, entry: Entry, body: Inventory) -> None:
    gathering.station(CabinDossier).inventory[body.thing] = Seen(entry, body)


@fold("cabin.control")
def _control(gathering: Gathering, entry: Entry, body: Control) -> None:
    gathering.station(CabinDossier).controls.append(Seen(entry, body))


@expects("cabin", "Cabin")
def _inside(dossier: Dossier) -> Iterator[Wanted]:
    """Every part that is graded, what is smelt and felt, and what belongs to it; quick what its form asks for."""
    brief = dossier.opening.brief
    asked = quick(brief.quick).cabin if brief.protocol is Protocol.QUICK else None
    for one in _every_part(dossier):
        if asked is None or one.part.removeprefix("cabin_") in asked:
            yield one


def _every_part(dossier: Dossier) -> Iterator[Wanted]:
    cabin = dossier.cabin
    belongs = [one.key for one in expected_belongings(dossier.mechanics.power.value) if not one.optional]
    for one in cabin_parts().values():
        yield Wanted(one.place, f"cabin_{one.key}", one.key in cabin.wear)
    smelt = any(one.body.smells or one.body.no_smell for one in cabin.looks)
    felt = any(one.body.moist or one.body.dry for one in cabin.looks)
    yield Wanted(SEAT, "cabin_all_looked", smelt and felt)
    yield Wanted(SEAT, "cabin_all_inventory", all(key in cabin.inventory for key in belongs))
