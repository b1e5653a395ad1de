"""What the brief makes matter more or less in the plan of the day."""

from __future__ import annotations

from dataclasses import dataclass
from fnmatch import fnmatchcase
from functools import cache

from hakutsu.core.runsheet.steps import steps
from hakutsu.core.runsheet.tables import EmphasisTable
from hakutsu.entries.opening import Brief
from hakutsu.vehicle.tables import read_table


@dataclass(frozen=True, slots=True)
class Weight:
    """Factor on a step's points of knowledge, and the reasons of the brief for it."""

    factor: float
    because: str


@cache
def _table() -> EmphasisTable:
    """The table.

    Raises
    ------
    ValueError
        If a row names no step there is.
    """
    table = read_table("core.runsheet", "emphasis", EmphasisTable)
    for rows in (table.taste, table.use, table.past):
        for row in rows.values():
            for pattern in row["steps"]:
                if not any(fnmatchcase(key, pattern) for key in steps()):
                    raise ValueError(f"emphasis names the step {pattern}, which does not exist")
    return table


def emphasis(brief: Brief) -> dict[str, Weight]:
    """Weights of the steps that the brief makes matter more or less; steps it says nothing of are left out."""
    table = _table()
    rows = [table["taste"].get(brief.taste.value)]
    rows += [table["use"].get(key) for key in brief.use_factors]
    rows += [table["past"].get(key) for key in brief.past_factors]
    found: dict[str, Weight] = {}
    for row in (row for row in rows if row):
        for pattern, factor in row["steps"].items():
            for key in (key for key in steps() if fnmatchcase(key, pattern)):
                before = found.get(key, Weight(1.0, ""))
                because = ", ".join(word for word in (before.because, row["why"]) if word)
                found[key] = Weight(before.factor * factor, because)
    return found
