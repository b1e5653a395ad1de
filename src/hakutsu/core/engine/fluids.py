"""Fluids: what a look means, and what several looks mean together; rules in `data/fluids.toml`."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from typing import Any

from hakutsu.core.engine.tables import FluidsTable
from hakutsu.core.findings import Finding, found
from hakutsu.entries.fluids import Fluid
from hakutsu.vehicle.keyed import key_of
from hakutsu.vehicle.tables import read_table

FREEZE_MARGIN_C = 5.0


@dataclass(frozen=True, slots=True)
class FluidFound:
    """What looks at fluids say: the finding, the fluids it rests on, what to check next."""

    finding: Finding
    fluids: tuple[str, ...]
    next: str


@cache
def fluid_table() -> FluidsTable:
    """Fluids, swatches and rules.

    Raises
    ------
    ValueError
        If a rule names a fluid, colour or rule that does not exist.
    """
    table = read_table("core.engine", "fluids", FluidsTable)
    keys = {rule["key"] for rule in table["rule"]}
    wrong = [rule["key"] for rule in table["rule"] if rule["fluid"] not in table["fluid"]]
    wrong += [one["key"] for one in table["combine"] if not keys.issuperset(one["rules"])]
    wrong += [key for key, row in table["fluid"].items() if not set(table["colour"]).issuperset(row["colours"])]
    if wrong:
        raise ValueError(f"fluids.toml: {', '.join(wrong)} names something that does not exist")
    return table


def fluid_names() -> dict[str, str]:
    """Names of fluids by key."""
    return {key: str(row["name"]) for key, row in fluid_table()["fluid"].items()}


def colour_words(key: str) -> str:
    """A swatch in words."""
    row = fluid_table()["colour"].get(key)
    return str(row["words"]) if row else key


def _holds(rule: Mapping[str, Any], seen: Fluid) -> bool:
    for field, values in rule["when"].items():
        said = getattr(seen, field)
        here = {key_of(one) for one in said} if isinstance(said, tuple) else {key_of(said)}
        if not here & set(values):
            return False
    return True


def fluids_found(looks: Mapping[str, Sequence[Fluid]], winter_c: float | None = None) -> list[FluidFound]:
    """What all looks say, combinations first and in place of what they join.

    Parameters
    ----------
    looks : every look at each fluid, by its key: cold, warm and running; a later one does not erase an earlier
    winter_c : the coldest usual here [°C], against which the coolant's freeze point is held
    """
    table = fluid_table()
    held = {r["key"]: r for r in table["rule"] if any(_holds(r, look) for look in looks.get(r["fluid"], ()))}
    seen, told = list[FluidFound](), set[str]()
    for one in table["combine"]:
        if held.keys() >= set(one["rules"]):
            told |= set(one["rules"])
            fluids = tuple(dict.fromkeys(held[key]["fluid"] for key in one["rules"]))
            seen.append(_one(one, fluids))
    seen += [_one(rule, (rule["fluid"],)) for key, rule in held.items() if key not in told]
    read = [one for one in looks.get("coolant", ()) if one.freezes_c is not None]
    return seen + _freezes(read[-1] if read else None, winter_c)


def _one(rule: Mapping[str, Any], fluids: tuple[str, ...]) -> FluidFound:
    told = found(f"engine.fluid_{rule['key']}", fluids[0], rule["says"], (rule["next"],) if rule["next"] else ())
    return FluidFound(told, fluids, rule["next"])


def _freezes(coolant: Fluid | None, winter_c: float | None) -> list[FluidFound]:
    if coolant is None or coolant.freezes_c is None or winter_c is None:
        return []
    if coolant.freezes_c <= winter_c - FREEZE_MARGIN_C:
        return []
    words = (
        f"coolant freezes at {{temperature {coolant.freezes_c}}}: too early for a winter of {{temperature {winter_c}}}"
    )
    next = "change it before frost"
    return [FluidFound(found("engine.coolant_freezes", "coolant", words, (next,)), ("coolant",), next)]
