"""What the rules make of the variant."""

from __future__ import annotations

from typing import ClassVar

from hakutsu.core.findings import Finding
from hakutsu.core.variant.tally import Tally, tally, variant_found, weak_found
from hakutsu.dossier.memo import kept
from hakutsu.dossier.variant import VariantDossier
from hakutsu.reckoning.papers import PapersReckoned
from hakutsu.reckoning.station import StationRules


class VariantReckoned(StationRules):
    """Findings of the variant."""

    key: ClassVar[str] = "variant"

    @property
    def _variant(self) -> VariantDossier:
        return self._reckoning.dossier[VariantDossier]

    @kept
    def tally(self) -> Tally | None:
        """What the features tell; none before a variant is told."""
        taken = self._variant.taken
        if taken is None:
            return None
        seen = {key: one.body for key, one in self._variant.features.items()}
        return tally(taken.body.features, seen, self._reckoning.station(PapersReckoned).built)

    def findings(self) -> list[Finding]:
        """What it comes to, and weak points that were found."""
        taken, told = self._variant.taken, self.tally
        if taken is None or told is None:
            return []
        entries = [taken.entry.id, *(one.entry.id for one in self._variant.features.values())]
        found = [one.seen_in(*entries) for one in variant_found(told, taken.body.name)]
        weak = {key: one.body for key, one in self._variant.weak.items()}
        for one, key in weak_found(taken.body.weak, weak):
            found.append(one.seen_in(self._variant.weak[key].entry.id))
        return found
