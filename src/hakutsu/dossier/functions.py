"""Fold of functions tried, what is fitted, and lamps."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from hakutsu.dossier.body import Seen
from hakutsu.dossier.coverage import Wanted, expects
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.dossier.hazards import raise_once
from hakutsu.entries.envelope import Entry
from hakutsu.entries.functions import FittedSaid, Lamp, Result, Tried
from hakutsu.vehicle.equipment import Equipment, fitted_equipment
from hakutsu.vehicle.vocabulary import Protocol

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier


LAMPS_AT_KEY_ON = "key_on_lamps"
BRAKE_LAMPS = ("brake_lamp_left", "brake_lamp_right")
DEAD = "brake_lamps"


@dataclass(slots=True)
class FunctionsDossier:
    """Every try of every thing, in the order of the logbook; what is fitted; lamps that stay on."""

    tried: dict[str, list[Seen[Tried]]] = field(default_factory=dict)
    fitted: dict[str, bool] = field(default_factory=dict)
    lamps: list[Seen[Lamp]] = field(default_factory=list)

    def items(self, doors: int) -> list[Equipment]:
        """What this vehicle has; whatever was tried is there."""
        there = [key for key, said in self.fitted.items() if said]
        absent = [key for key, said in self.fitted.items() if not said]
        return fitted_equipment(doors, [*there, *self.tried], absent)


@fold("function.tried")
def _tried(gathering: Gathering, entry: Entry, body: Tried) -> None:
    functions = gathering.station(FunctionsDossier)
    functions.tried.setdefault(body.item, []).append(Seen(entry, body))
    if body.item in BRAKE_LAMPS and all(_fails(functions, one) for one in BRAKE_LAMPS):
        raise_once(gathering, entry, DEAD)


def _fails(functions: FunctionsDossier, item: str) -> bool:
    tries = functions.tried.get(item, [])
    return bool(tries) and tries[-1].body.result is Result.FAILS


@fold("function.fitted")
def _fitted(gathering: Gathering, entry: Entry, body: FittedSaid) -> None:
    gathering.station(FunctionsDossier).fitted[body.item] = body.there


@fold("function.lamp")
def _lamp(gathering: Gathering, entry: Entry, body: Lamp) -> None:
    gathering.station(FunctionsDossier).lamps.append(Seen(entry, body))


@expects("functions", "Functions")
def _to_try(dossier: Dossier) -> Iterator[Wanted]:
    """Everything that is fitted; quick only the lamps at key-on."""
    quick = dossier.opening.brief.protocol is Protocol.QUICK
    for one in dossier.functions.items(dossier.vehicle.doors):
        if not quick or one.key == LAMPS_AT_KEY_ON:
            yield Wanted(one.place, f"function_{one.key}", one.key in dossier.functions.tried)
