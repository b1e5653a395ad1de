"""The two forms of a quick inspection, and what each expects to be looked at."""

from __future__ import annotations

from functools import cache

from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.tables import Row, Table, read_table


class QuickForm(Keyed):
    """How a quick inspection is done."""

    MECHANICAL = "mechanical", "mechanical: tyres, brakes, joints and leaks"
    ROW = "row", "row: walk round, bay, cabin, lamps, heat"


class Quick(Row):
    """What one form expects, by the keys of the stations."""

    name: str
    tyres: bool
    brakes: bool
    functions: tuple[str, ...]
    glass: tuple[str, ...]
    engine: tuple[str, ...]
    under: tuple[str, ...]
    cabin: tuple[str, ...]


class _QuickTable(Table):
    form: dict[str, Quick]


@cache
def quick(form: QuickForm) -> Quick:
    """What a form of the quick inspection expects."""
    return read_table("vehicle", "quick", _QuickTable).form[form.value]
