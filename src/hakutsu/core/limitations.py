"""Limitations: what the circumstances of an inspection hide, and what they do to what was measured."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from functools import cache

from hakutsu.core.tables import LimitationsTable
from hakutsu.entries.day import Arrival, DayConditions, Dirt, Engine
from hakutsu.vehicle.places import place_of_panel
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.terms import PLAIN, Terms


@dataclass(frozen=True, slots=True)
class Limitation:
    """What limits an inspection, and what that hides; `place` where it holds for one place only."""

    because: str
    hides: str
    place: str | None = None


@cache
def _table() -> LimitationsTable:
    return read_table("core", "limitations", LimitationsTable)


PROVEN_WITHIN_C = float(_table()["cold"]["within_c"])


def proven_cold(arrival: Arrival) -> bool | None:
    """True when engine and surroundings were measured within 5 °C, false when farther apart; none when not measured.

    The surroundings are what the vehicle stands on and in, by a separate thermometer; two readings of the engine's own
    prove nothing, since a soaked engine is alike everywhere.
    """
    if arrival.engine is not Engine.COLD or arrival.engine_c is None or arrival.surroundings_c is None:
        return None
    return abs(arrival.engine_c - arrival.surroundings_c) <= PROVEN_WITHIN_C


def limitations(arrival: Arrival | None, conditions: DayConditions | None, terms: Terms = PLAIN) -> list[Limitation]:
    """Every limitation of the circumstances, those of the whole vehicle first."""
    found = []
    if arrival is not None:
        said = arrival.model_dump(mode="json")
        for row in _table()["limitation"]:
            if str(said[row["field"]]).lower() in row["is"]:
                found.append(Limitation(row["because"], row["hides"]))
        if proven_cold(arrival) is False:
            engine, around = (
                terms.quantity("temperature", c or 0.0) for c in (arrival.engine_c, arrival.surroundings_c)
            )
            measured = f"the engine was {engine} in {around}"
            found.append(Limitation(measured, "the cold start: it was not cold"))
        for place, dirt in arrival.dirt.items():
            if dirt is not Dirt.CLEAN:
                found.append(Limitation(f"{terms.place(place)}: {dirt}", _table()["dirt"][dirt]["hides"], place))
    if conditions is not None and conditions.lift is False:
        found.append(Limitation("there was no lift", "the underbody but for what a lamp and mirror reach from outside"))
    if conditions is not None and conditions.may_drive is False:
        found.append(Limitation("it might not be driven", "everything a road test shows"))
    return [Limitation(terms.say(one.because), terms.say(one.hides), one.place) for one in found]


@dataclass(frozen=True, slots=True)
class Unobserved:
    """A group of parts that was not observed, and why: their remaining life rests on age and distance alone."""

    because: str
    parts: tuple[str, ...]


def unobserved(
    arrival: Arrival | None,
    conditions: DayConditions | None,
    terms: Terms = PLAIN,
    *,
    seen: Collection[str] = (),
    lacks: Collection[str] = (),
) -> list[Unobserved]:
    """Parts under the vehicle that could not be looked at: no lift, or no ground to lift it on; none before either is
    known.

    Parameters
    ----------
    seen : keys of parts graded and zones looked at all the same, as far as lamp and mirror reached
    lacks : keys of parts that this vehicle does not have
    """
    table = _table().unobserved
    because = ""
    if conditions is not None and conditions.lift is not None:
        because = "" if conditions.lift else "there was no lift"
    elif arrival is not None and arrival.stands.value in table.ground:
        because = f"it stood {arrival.stands}"
    left = [
        terms.say(row.name)
        for row in table.under
        if not set(row.parts) & set(seen)
        and not any(zone.startswith(one) for one in row.zones for zone in seen)
        and not (row.parts and set(row.parts) <= set(lacks))
    ]
    return [Unobserved(because, tuple(left))] if because and left else []


def at_least(arrival: Arrival | None, place: str | None) -> str:
    """Why a list of marks at a place or on a panel holds only the least there is: "dirty" or "wet"; empty where not."""
    if arrival is None or place is None:
        return ""
    dirt = arrival.dirt.get(place_of_panel().get(place, place), Dirt.CLEAN)
    return str(dirt) if dirt in _table()["at_least"]["dirt"] else ""


def dirt_sd_um(arrival: Arrival | None, panel: str) -> float:
    """How uncertain dirt leaves a film reading on a panel [µm], by the place from which it is reached."""
    if arrival is None:
        return 0.0
    dirt = arrival.dirt.get(place_of_panel().get(panel, ""), Dirt.CLEAN)
    return 0.0 if dirt is Dirt.CLEAN else float(_table()["dirt"][dirt]["film_sd_um"])
