"""What the rules make of functions tried and lamps that stay on."""

from __future__ import annotations

from typing import ClassVar

from hakutsu.core.findings import Finding
from hakutsu.core.functions import FunctionStatus, Status, function_found, function_status, lamp_found, piece_of
from hakutsu.dossier import FunctionsDossier
from hakutsu.dossier.memo import kept
from hakutsu.entries.claims import ClaimKind
from hakutsu.entries.corners import Grade
from hakutsu.entries.functions import LampKind
from hakutsu.reckoning.station import StationRules
from hakutsu.vehicle.equipment import Equipment

GRADED = {Status.FAILS: Grade.FAILED, Status.PARTLY: Grade.FAILING, Status.INTERMITTENT: Grade.FAILING,
          Status.BUT: Grade.WORN, Status.WORKS: Grade.SOUND}  # fmt: skip


class FunctionsReckoned(StationRules):
    """A status for everything that is fitted, and what lamps say of a claim."""

    key: ClassVar[str] = "functions"

    @property
    def _functions(self) -> FunctionsDossier:
        return self._reckoning.dossier.functions

    def findings(self) -> list[Finding]:
        """What does not work, and lamps that stay on."""
        found = []
        for item, status in self.statuses:
            one = function_found(item, status)
            if one is not None:
                found.append(one.seen_in(*(seen.entry.id for seen in self._functions.tried[item.key])))
        return found + [lamp_found(seen.body).seen_in(seen.entry.id) for seen in self._functions.lamps]

    @property
    def limiting(self) -> list[Finding]:
        """Dead gauges and instruments."""
        return self.found

    def part_grades(self) -> dict[str, tuple[Grade, str]]:
        """What tries make of parts with a life, such as window regulators."""
        found = {}
        for item, status in self.statuses:
            piece = piece_of(item)
            if piece and status.status in GRADED:
                words = status.said
                found[piece] = (GRADED[status.status], words)
        return found

    def waits(self) -> list[str]:
        """What wants another try."""
        return [one.name for one, _ in self.retests]

    @kept
    def statuses(self) -> list[tuple[Equipment, FunctionStatus]]:
        """Everything fitted, in the order of the list."""
        items = self._functions.items(self._reckoning.dossier.vehicle, self._reckoning.dossier.mechanics)
        return [
            (one, function_status([seen.body for seen in self._functions.tried.get(one.key, ())])) for one in items
        ]  # fmt: skip

    @property
    def retests(self) -> list[tuple[Equipment, FunctionStatus]]:
        """What wants another try, because the answer changed."""
        return [one for one in self.statuses if one[1].retest]

    @property
    def lamps_against_claim(self) -> list[str]:
        """Lamps that contradict a claim of none: only faults count."""
        claimed = [claim for _, claim in self._reckoning.dossier.claims.said if claim.kind is ClaimKind.NO_LAMPS]
        lit = [seen.body.name for seen in self._functions.lamps if seen.body.kind is LampKind.FAULT]
        return lit if claimed else []
