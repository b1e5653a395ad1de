"""Fold of the cabin."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.body import Seen
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.cabin import CabinLooked, CabinWear, Control, Inventory
from hakutsu.entries.envelope import Entry


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
