"""Remarks in free words, hints, what did not work: what they are findings of."""

from __future__ import annotations

from typing import ClassVar

from hakutsu.core.findings import Finding
from hakutsu.core.remarks import remark_found
from hakutsu.entries.follow_up import Outcome
from hakutsu.reckoning.station import StationRules


class GeneralReckoned(StationRules):
    """What was remarked at any place."""

    key: ClassVar[str] = "general"

    def findings(self) -> list[Finding]:
        """Of every remark that nothing has settled; what was looked at again and is gone is none."""
        dossier = self._reckoning.dossier
        told = []
        for entry, body in dossier.follow_ups.remarks:
            looks = dossier.follow_ups.looked.get(entry.id, ())
            if entry.id in dossier.general.answers or (looks and looks[-1][1].outcome is Outcome.GONE):
                continue
            told += [one.seen_in(entry.id) for one in remark_found(body, entry.place or "vehicle")]
        return told
