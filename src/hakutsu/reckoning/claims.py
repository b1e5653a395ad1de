"""Claims that the inspector found otherwise and priced."""

from __future__ import annotations

from typing import ClassVar

from hakutsu.core.findings import Finding, found
from hakutsu.reckoning.station import StationRules


class ClaimsReckoned(StationRules):
    """Claims of advert and seller against what was found."""

    key: ClassVar[str] = "claims"

    def findings(self) -> list[Finding]:
        """One for every claim priced: it does not hold."""
        dossier = self._reckoning.dossier
        said = {str(entry.id): (entry, claim) for entry, claim in dossier.claims.said}
        return [
            found("claims.not_as_claimed", of, f"claimed: “{said[of][1].words}”", (seen.body.because,)).seen_in(
                said[of][0].id, seen.entry.id
            )
            for of, seen in dossier.money.claims_priced.items()
            if of in said
        ]
