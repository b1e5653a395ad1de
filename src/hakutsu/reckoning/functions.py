"""What the rules make of functions tried and lamps that stay on."""

from __future__ import annotations

from functools import cached_property
from typing import TYPE_CHECKING

from hakutsu.core.functions import FunctionStatus, function_status
from hakutsu.entries.claims import ClaimKind
from hakutsu.entries.functions import LampKind
from hakutsu.vehicle.equipment import Equipment

if TYPE_CHECKING:
    from hakutsu.reckoning import Reckoning


class FunctionsReckoned:
    """A status for everything that is fitted, and what lamps say of a claim."""

    def __init__(self, reckoning: Reckoning) -> None:
        self._reckoning = reckoning
        self._functions = reckoning.dossier.functions

    @cached_property
    def statuses(self) -> list[tuple[Equipment, FunctionStatus]]:
        """Everything fitted, in the order of the list."""
        items = self._functions.items(self._reckoning.dossier.vehicle.doors)
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
