"""Fold of claims."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.claims import Claim
from hakutsu.entries.envelope import Entry


@dataclass(slots=True)
class Claims:
    """The claims that stand, in the order of the logbook."""

    said: list[tuple[Entry, Claim]] = field(default_factory=list)


@fold("claim.said")
def _said(gathering: Gathering, entry: Entry, body: Claim) -> None:
    gathering.station(Claims).said.append((entry, body))
