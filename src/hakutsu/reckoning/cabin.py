"""What the rules make of the cabin, against age and distance, and apart from that against the buyer's taste."""

from __future__ import annotations

from typing import ClassVar

from hakutsu.core.cabin import GRADES, inventory_found, looks_found, wear_found
from hakutsu.core.findings import Finding
from hakutsu.dossier import CabinDossier
from hakutsu.dossier.memo import kept
from hakutsu.entries.cabin import Wear
from hakutsu.reckoning.station import StationRules, resting_on
from hakutsu.vehicle.vocabulary import Taste

WORST = {Taste.SHOW: Wear.NEW, Taste.TIDY: Wear.LIGHT, Taste.WORK: Wear.HEAVY, Taste.PATINA: Wear.HEAVY}


class CabinReckoned(StationRules):
    """Findings of the cabin, and what goes beyond the buyer's taste."""

    key: ClassVar[str] = "cabin"

    @property
    def _cabin(self) -> CabinDossier:
        return self._reckoning.dossier.cabin

    def findings(self) -> list[Finding]:
        """All that was found inside."""
        return self.found

    @kept
    def found(self) -> list[Finding]:
        """Against what is usual, and what was smelt, felt and seen."""
        grades = {part: seen.body for part, seen in self._cabin.wear.items()}
        mechanics = self._reckoning.dossier.mechanics
        years = mechanics.age_years(self._reckoning.corners.on)
        worn = wear_found(grades, mechanics.odometer_km, years)
        looks = [seen.entry.id for seen in self._cabin.looks]
        looked = [one.seen_in(*looks) for one in looks_found(seen.body for seen in self._cabin.looks)]
        things = {key: seen.body.there for key, seen in self._cabin.inventory.items()}
        missing = [
            one.seen_in(self._cabin.inventory[one.code.removeprefix("cabin.missing_")].entry.id)
            for one in inventory_found(things)
        ]
        return resting_on(worn, self._cabin.wear, lambda subject: [subject]) + looked + missing

    @property
    def beyond_taste(self) -> list[str]:
        """Parts more worn than the buyer wants, whatever is usual."""
        worst = GRADES.index(WORST[self._reckoning.dossier.opening.brief.taste])
        return [part for part, seen in self._cabin.wear.items() if GRADES.index(seen.body.wear) > worst]
