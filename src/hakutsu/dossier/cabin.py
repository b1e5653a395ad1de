"""Fold of the cabin."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.body import Seen
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.cabin import CabinLooked, CabinWear
from hakutsu.entries.envelope import Entry


@dataclass(slots=True)
class CabinDossier:
    """The newest grade of every part, and every look."""

    wear: dict[str, Seen[CabinWear]] = field(default_factory=dict)
    looks: list[Seen[CabinLooked]] = field(default_factory=list)


@fold("cabin.wear")
def _wear(gathering: Gathering, entry: Entry, body: CabinWear) -> None:
    gathering.station(CabinDossier).wear[body.part] = Seen(entry, body)


@fold("cabin.looked")
def _looked(gathering: Gathering, entry: Entry, body: CabinLooked) -> None:
    gathering.station(CabinDossier).looks.append(Seen(entry, body))
