"""Fold of the vehicle's own facts: what drives, carries and stops it, its axles, frame, and what it is fitted with."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.money import MechanicsSaid
from hakutsu.vehicle.mechanics import Mechanics


@dataclass(slots=True)
class Facts:
    """Facts of the vehicle as they were said last, and the entry that said them."""

    mechanics: Mechanics = field(default_factory=Mechanics)
    entry: Entry | None = None


@fold("inspection.mechanics")
def _mechanics(gathering: Gathering, entry: Entry, body: MechanicsSaid) -> None:
    facts = gathering.station(Facts)
    facts.mechanics, facts.entry = body.mechanics, entry
