"""What the rules make of the cabin, against age and distance, and apart from that against the buyer's taste."""

from __future__ import annotations

from functools import cached_property
from typing import TYPE_CHECKING

from hakutsu.core.cabin import GRADES, inventory_found, looks_found, wear_found
from hakutsu.core.corners.found import Found
from hakutsu.entries.cabin import Wear
from hakutsu.vehicle.vocabulary import Taste

if TYPE_CHECKING:
    from hakutsu.reckoning import Reckoning

WORST = {Taste.SHOW: Wear.NEW, Taste.TIDY: Wear.LIGHT, Taste.WORK: Wear.HEAVY, Taste.PATINA: Wear.HEAVY}


class CabinReckoned:
    """Findings of the cabin, and what goes beyond the buyer's taste."""

    def __init__(self, reckoning: Reckoning) -> None:
        self._reckoning = reckoning
        self._cabin = reckoning.dossier.cabin

    @cached_property
    def found(self) -> list[Found]:
        """Against what is usual, and what was smelt, felt and seen."""
        grades = {part: seen.body for part, seen in self._cabin.wear.items()}
        mechanics = self._reckoning.dossier.corners.mechanics
        years = mechanics.age_years(self._reckoning.corners.on)
        looked = looks_found(seen.body for seen in self._cabin.looks)
        return wear_found(grades, mechanics.odometer_km, years) + looked + self._inventory()

    def _inventory(self) -> list[Found]:
        return inventory_found({key: seen.body.there for key, seen in self._cabin.inventory.items()})

    @property
    def beyond_taste(self) -> list[str]:
        """Parts more worn than the buyer wants, whatever is usual."""
        worst = GRADES.index(WORST[self._reckoning.dossier.opening.brief.taste])
        return [part for part, seen in self._cabin.wear.items() if GRADES.index(seen.body.wear) > worst]
