"""Remarks in free words, hints, what did not work: what they are findings of."""

from __future__ import annotations

from typing import ClassVar

from hakutsu.core.facts import VEHICLE, differ, fact_found, origin_found
from hakutsu.core.findings import Finding, found
from hakutsu.core.remarks import remark_found
from hakutsu.entries.follow_up import Outcome
from hakutsu.reckoning.station import StationRules


class GeneralReckoned(StationRules):
    """What was remarked at any place."""

    key: ClassVar[str] = "general"

    def findings(self) -> list[Finding]:
        """Of every remark that nothing has settled; what was looked at again and is gone is none."""
        dossier = self._reckoning.dossier
        told = [*self.facts(), *self.origins(), *self.more()]
        for entry, body in dossier.follow_ups.remarks:
            looks = dossier.follow_ups.looked.get(entry.id, ())
            if entry.id in dossier.general.answers or (looks and looks[-1][1].outcome is Outcome.GONE):
                continue
            told += [one.seen_in(entry.id) for one in remark_found(body, entry.place or "vehicle")]
        return told

    def facts(self) -> list[Finding]:
        """Facts of the vehicle whose mentions contradict each other."""
        seen = []
        for fact, mentions in self._reckoning.dossier.facts.mentions.items():
            if differ(fact, [one.told for one in mentions]):
                seen.append(
                    fact_found(fact, [one.words for one in mentions]).seen_in(*(one.entry.id for one in mentions))
                )
        return seen

    def origins(self) -> list[Finding]:
        """Parts that are not those it was built with."""
        said = ((seen, origin_found(seen.body, seen.place)) for seen in self._reckoning.dossier.facts.origins)
        return [one.seen_in(seen.entry.id) for seen, one in said if one is not None]

    def more(self) -> list[Finding]:
        """More like what was noted, not listed one by one."""
        told = []
        for entry, body in self._reckoning.dossier.general.more:
            words = f"at least {body.at_least} more, not listed: {body.what}"
            rests = [entry.id] if body.of is None else [entry.id, body.of]
            told.append(found("general.more_alike", entry.place or VEHICLE, words).seen_in(*rests))
        return told
