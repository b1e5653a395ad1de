"""Keys that entries name, held against the tables: a key nobody knows is refused, never acknowledged and dropped."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator
from typing import Any

from pydantic import BaseModel

from hakutsu.core.costs import usual_jobs
from hakutsu.core.engine.fluids import fluid_names, fluid_table
from hakutsu.core.film.cues import cue_kinds
from hakutsu.core.hazards import WALKING_PACE, activities, causes
from hakutsu.core.life.components import components, scheduled_items
from hakutsu.core.runsheet import steps
from hakutsu.entries import EntryError
from hakutsu.entries.bounds import KeyOf
from hakutsu.vehicle.engine import engine_looks
from hakutsu.vehicle.equipment import equipment
from hakutsu.vehicle.papers import dated_marks, registers
from hakutsu.vehicle.road import road_signs, road_subjects
from hakutsu.vehicle.service import advisory_topics

MEASURED = ("tyres", "pads", "discs")  # parts whose wear is measured rather than graded


def _parts() -> Collection[str]:
    return {*MEASURED, *components(), *scheduled_items()}


def _activities() -> Collection[str]:
    return {*activities(), WALKING_PACE}


def _fittings() -> Collection[str]:
    return {*equipment(), *components(), *scheduled_items(), *engine_looks()}


_TABLES: dict[str, Callable[[], Collection[str]]] = {
    "equipment": equipment,
    "cause": causes,
    "activity": _activities,
    "step": steps,
    "graded part": components,
    "part with a life": _parts,
    "fluid": fluid_names,
    "fluid colour": lambda: fluid_table()["colour"],
    "road sign": road_signs,
    "road subject": road_subjects,
    "thing to be fitted": _fittings,
    "film cue": cue_kinds,
    "dated mark": dated_marks,
    "register": registers,
    "advisory": advisory_topics,
    "scheduled item": scheduled_items,
    "job": usual_jobs,
}


def check_keys(body: BaseModel) -> None:
    """See that every key a body names is in its table; a field that names none may be empty.

    Raises
    ------
    EntryError
        Naming the field.
    """
    for field, table, key in _named(body):
        if key and key not in _TABLES[table]():
            raise EntryError(field, f"“{key}” is no {table} that is known")


def _named(model: BaseModel, path: str = "") -> Iterator[tuple[str, str, str]]:
    """Every key in a model, with the field it stands in and its table; keys of mappings and lists too."""
    for name, info in type(model).model_fields.items():
        value: Any = getattr(model, name)
        field = f"{path}{name}"
        if isinstance(value, BaseModel):
            yield from _named(value, f"{field}.")
        for mark in info.metadata:
            if isinstance(mark, KeyOf):
                for key in (value,) if isinstance(value, str) else value or ():
                    yield field, mark.table, key
