"""Fold of the negotiation: lines as the inspector treats them, claims priced, and proofs of what was renewed."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.body import Seen
from hakutsu.dossier.corners import piece_key
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.corners import PartProof
from hakutsu.entries.envelope import Entry
from hakutsu.entries.money import ClaimPriced, Line
from hakutsu.vehicle.places import corners_of


@dataclass(slots=True)
class MoneyDossier:
    """Lines by code and subject of what they are about; claims priced by the claim's entry; proofs by piece."""

    lines: dict[tuple[str, str], Seen[Line]] = field(default_factory=dict)
    claims_priced: dict[str, Seen[ClaimPriced]] = field(default_factory=dict)
    proofs: dict[str, Seen[PartProof]] = field(default_factory=dict)


@fold("money.line")
def _line(gathering: Gathering, entry: Entry, body: Line) -> None:
    gathering.station(MoneyDossier).lines[body.code, body.subject] = Seen(entry, body)


@fold("money.claim")
def _claim(gathering: Gathering, entry: Entry, body: ClaimPriced) -> None:
    gathering.station(MoneyDossier).claims_priced[str(body.of)] = Seen(entry, body)


@fold("life.proof")
def _proof(gathering: Gathering, entry: Entry, body: PartProof) -> None:
    for wheel in corners_of(entry.place) or ("",):
        gathering.station(MoneyDossier).proofs[piece_key(body.part, wheel)] = Seen(entry, body, wheel)
