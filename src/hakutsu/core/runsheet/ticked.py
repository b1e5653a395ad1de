"""Steps that what was entered ticks by itself; `data/ticked.toml`."""

from __future__ import annotations

from collections.abc import Sequence

from hakutsu.core.runsheet.steps import Step, steps
from hakutsu.core.runsheet.tables import TickedRow, TickedTable
from hakutsu.dossier import Covered, PlaceCoverage
from hakutsu.vehicle.tables import read_table

WALKED = ("fit", "glass")  # looks that are taken on the walk round, beside film


def ticked(places: Sequence[PlaceCoverage]) -> frozenset[str]:
    """Steps whose work stands in the logbook, by what is expected at every place and how far it is."""
    rows = read_table("core.runsheet", "ticked", TickedTable).tick
    return frozenset(key for key, row in rows.items() if _holds(row, steps()[key], places))


def _holds(row: TickedRow, step: Step, places: Sequence[PlaceCoverage]) -> bool:
    looks = [part for place in places for part in place.parts]
    wanted = [part.state for part in looks if part.part in row.parts or part.check.key in row.looks]
    if row.here:
        here = next(place for place in places if place.place == step.place)
        wanted += [here.looked, *(panel.state for panel in here.panels if panel.expected)]
        wanted += [part.state for part in here.parts if part.check.key in WALKED]
    if row.film:
        wanted += [panel.state for place in places for panel in place.panels if panel.expected]
    return bool(wanted) and all(state is not Covered.OPEN for state in wanted)
