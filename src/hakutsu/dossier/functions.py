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
from hakutsu.entries.facts import Fitted
from hakutsu.entries.functions import FittedSaid, Lamp, Result, Tried
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.vehicle.equipment import OWN, Equipment, equipment, facts_that_fit, fitted_equipment, own_equipment
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.quick import quick
from hakutsu.vehicle.vocabulary import Protocol

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier


BRAKE_LAMPS = ("brake_lamp_left", "brake_lamp_right")
DEAD = "brake_lamps"


@dataclass(slots=True)
class FunctionsDossier:
    """Every try of every thing, in the order of the logbook; what is fitted; lamps that stay on."""

    tried: dict[str, list[Seen[Tried]]] = field(default_factory=dict)
    fitted: dict[str, bool] = field(default_factory=dict)
    named: dict[str, str] = field(default_factory=dict)
    lamps: list[Seen[Lamp]] = field(default_factory=list)

    def items(self, vehicle: VehicleDescription, mechanics: Mechanics) -> list[Equipment]:
        """What this vehicle has by its era and body, and what was named; whatever was tried is there."""
        there = [key for key, said in self.fitted.items() if said]
        absent = [key for key, said in self.fitted.items() if not said]
        usual = fitted_equipment(
            vehicle.doors, [*there, *self.tried], absent, year=mechanics.year, body=vehicle.body_style,
            facts=facts_that_fit(mechanics),
        )  # fmt: skip
        return usual + [own_equipment(name) for name in self.named.values()]


@fold("function.tried")
def _tried(gathering: Gathering, entry: Entry, body: Tried) -> None:
    functions = gathering.station(FunctionsDossier)
    key = _key(functions, body.item, body.name)
    functions.tried.setdefault(key, []).append(Seen(entry, body))
    if body.item in BRAKE_LAMPS and all(_fails(functions, one) for one in BRAKE_LAMPS):
        raise_once(gathering, entry, DEAD)


def _fails(functions: FunctionsDossier, item: str) -> bool:
    tries = functions.tried.get(item, [])
    return bool(tries) and tries[-1].body.result is Result.FAILS


def _key(functions: FunctionsDossier, item: str, name: str) -> str:
    """The key a thing is kept by; one that the inspector named is kept with its name."""
    if item != OWN:
        return item
    own = own_equipment(name)
    functions.named.setdefault(own.key, name)
    return own.key


@fold("function.fitted")
def _fitted(gathering: Gathering, entry: Entry, body: FittedSaid) -> None:
    functions = gathering.station(FunctionsDossier)
    key = _key(functions, body.item, body.name)
    if body.item == OWN and not body.there:
        functions.named.pop(key, None)
    functions.fitted[key] = body.there


@fold("vehicle.fitted")
def _said_fitted(gathering: Gathering, entry: Entry, body: Fitted) -> None:
    said = dict.fromkeys(body.there, True) | dict.fromkeys(body.absent, False)
    gathering.station(FunctionsDossier).fitted |= {key: there for key, there in said.items() if key in equipment()}


@fold("function.lamp")
def _lamp(gathering: Gathering, entry: Entry, body: Lamp) -> None:
    gathering.station(FunctionsDossier).lamps.append(Seen(entry, body))


@expects("functions", "Functions")
def _to_try(dossier: Dossier) -> Iterator[Wanted]:
    """Everything that is fitted; quick what its form asks for."""
    brief = dossier.opening.brief
    asked = quick(brief.quick).functions if brief.protocol is Protocol.QUICK else None
    for one in dossier.functions.items(dossier.vehicle, dossier.mechanics):
        if asked is None or one.key in asked:
            yield Wanted(one.place, f"function_{one.key}", one.key in dossier.functions.tried)
