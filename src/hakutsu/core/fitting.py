"""What may be fitted to a vehicle, and what is not of its age or kind: proposals to confirm or clear."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from hakutsu.core.life.components import Component, Scheduled, components, fitted, scheduled_items
from hakutsu.vehicle.description import VehicleDescription
from hakutsu.vehicle.engine import engine_looks
from hakutsu.vehicle.equipment import OWN, equipment, facts_that_fit, fitted_equipment, may_have
from hakutsu.vehicle.fitment import usual
from hakutsu.vehicle.keyed import key_of
from hakutsu.vehicle.mechanics import UNKNOWN, Mechanics

TO_TRY, PARTS, UNDER_BONNET = "to try", "parts", "looks at the engine"


@dataclass(frozen=True, slots=True)
class Fitting:
    """A thing that a vehicle may have: its key, its name (the side in braces), and of which list it is."""

    key: str
    name: str
    group: str


def may_be_fitted(vehicle: VehicleDescription, mechanics: Mechanics, said: Mapping[str, bool]) -> list[Fitting]:
    """What this vehicle may have and nobody has spoken of: some of its age and kind have it.

    Parameters
    ----------
    vehicle, mechanics : its body, and its facts as they are known
    said : what was said of fitted things, by key
    """
    return [one for one, there in _every(vehicle, mechanics) if there is None and one.key not in said]


def not_of_its_time(vehicle: VehicleDescription, mechanics: Mechanics, said: Mapping[str, bool]) -> list[Fitting]:
    """What no vehicle of its age or kind has, by the table; nothing where its age is not known."""
    if mechanics.year is None:
        return []
    return [one for one, there in _every(vehicle, mechanics) if there is False and one.key not in said]


def _every(vehicle: VehicleDescription, mechanics: Mechanics) -> Iterator[tuple[Fitting, bool | None]]:
    facts = facts_that_fit(mechanics)
    usually = {
        one.key
        for one in fitted_equipment(vehicle.doors, year=mechanics.year, body=vehicle.body_style, facts=facts)
    }  # fmt: skip
    for thing in equipment().values():
        if thing.key == OWN or vehicle.doors < thing.since_doors:
            continue
        there = True if thing.key in usually else None if may_have(thing, mechanics.year, facts) else False
        yield Fitting(thing.key, thing.name, TO_TRY), there
    rows: list[Component | Scheduled] = [*components().values(), *scheduled_items().values()]
    for row in rows:
        if isinstance(row, Component) and row.part_of:
            continue
        era = usual("part", row.key, mechanics.year)
        there = False if era is False else fitted(row, mechanics)
        if there is False and era is not False:
            there = None if isinstance(row, Component) and row.optional and _facts_allow(row, mechanics) else True
        yield Fitting(row.key, row.name, PARTS), there
    for look in engine_looks().values():
        yield Fitting(look.key, look.name, UNDER_BONNET), usual("look", look.key, mechanics.year)


def _facts_allow(row: Component, mechanics: Mechanics) -> bool:
    """Whether facts leave room for an optional part, as a turbocharger on an engine."""
    return fitted(row, mechanics.model_copy(update={"also_fitted": (row.key,)})) is True and all(
        key_of(getattr(mechanics, fact)) in (*known, UNKNOWN) for fact, known in row.fits.items()
    )
