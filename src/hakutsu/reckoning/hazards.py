"""Stand-downs that somebody raised by hand, as findings; those that an entry raises by itself are its station's."""

from __future__ import annotations

from typing import ClassVar

from hakutsu.core.consequence import codes
from hakutsu.core.findings import Finding, found
from hakutsu.reckoning.station import StationRules


class HazardsReckoned(StationRules):
    """Causes raised and not cleared."""

    key: ClassVar[str] = "hazards"

    def findings(self) -> list[Finding]:
        """Faults of the vehicle among them; circumstances, such as a jack or missing papers, are none."""
        known, told = set(codes()), []
        for one in self._reckoning.stand_downs:
            code = f"hazards.{one.cause.key}"
            if code in known and one.entry in self._reckoning.entries:
                reasons = (one.note,) if one.note else ()
                told.append(found(code, one.place or "vehicle", one.cause.name, reasons).seen_in(one.entry))
        return told
