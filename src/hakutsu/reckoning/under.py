"""What the rules make of the underside and of leaks."""

from __future__ import annotations

from functools import cached_property
from typing import TYPE_CHECKING

from hakutsu.core.corners.found import Found
from hakutsu.core.under.leaks import LeakFound, leak_found
from hakutsu.core.under.zones import uneven, zone_found

if TYPE_CHECKING:
    from hakutsu.reckoning import Reckoning


class UnderReckoned:
    """Findings by zone, twins that did not age alike, and leaks over all their looks."""

    def __init__(self, reckoning: Reckoning) -> None:
        self._reckoning = reckoning
        self._under = reckoning.dossier.under

    @cached_property
    def zones(self) -> list[Found]:
        """Findings of every zone looked at, and between twins."""
        looks = {key: seen.body for key, seen in self._under.zones.items()}
        return [found for look in looks.values() for found in zone_found(look)] + uneven(looks)

    @cached_property
    def leaks(self) -> list[LeakFound]:
        """Every leak; what was done anywhere between two looks weakens the later one."""
        done = [entry.at for entry, _ in self._reckoning.dossier.opening.interventions]
        found = []
        for looks in self._under.leaks.values():
            times = [seen.entry.at for seen in looks]
            touched = any(min(times) <= at <= max(times) for at in done)
            found.append(leak_found([(seen.entry.at, seen.body) for seen in looks], touched))
        return found
