"""What the rules make of the tow bar."""

from __future__ import annotations

from typing import ClassVar

from hakutsu.core.findings import Finding
from hakutsu.core.towing import socket_found
from hakutsu.dossier.towing import TowingDossier
from hakutsu.reckoning.station import StationRules


class TowingReckoned(StationRules):
    """The socket."""

    key: ClassVar[str] = "towing"

    def findings(self) -> list[Finding]:
        """What is wrong with it."""
        seen = self._reckoning.dossier[TowingDossier].socket
        one = socket_found(seen.body) if seen else None
        return [one.seen_in(seen.entry.id)] if one and seen else []
