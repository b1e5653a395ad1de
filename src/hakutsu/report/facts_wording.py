"""What entries about the vehicle itself say, in words."""

from __future__ import annotations

from datetime import date
from typing import Any

from hakutsu.core.life.components import components, scheduled_items
from hakutsu.entries.facts import Fact, Fitted, OriginSaid, Restored, Source
from hakutsu.report.wording import body_words
from hakutsu.vehicle.engine import engine_looks
from hakutsu.vehicle.equipment import equipment
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.terms import PLAIN, Terms

Said = tuple[str, str]
FACT_NAMES = {
    "make": "make", "model": "model", "variant": "variant", "first_used": "first used", "odometer_km": "distance meter",
    "power": "power", "drive": "driven axle", "gearbox": "gearbox", "timing": "camshaft driven by",
    "rear_axle": "rear axle", "rear_brakes": "rear brakes", "front_axle": "front axle", "front_brakes": "front brakes",
    "front_pivots": "front wheels turn on", "steering_gear": "steering", "fuel_system": "fuel by",
    "ignition": "ignition by", "supply": "electrical system", "stainless_exhaust": "stainless exhaust",
    "separate_frame": "body on a frame of its own", "map_thermostat": "thermostat moved by the engine’s computer",
    "two_stage_oil": "two-stage oil pump", "front_size": "placard, front", "rear_size": "placard, rear",
    "front_bar": "placard pressure, front", "rear_bar": "placard pressure, rear",
}  # fmt: skip


def join(*parts: str) -> str:
    """Parts that say anything, with commas."""
    return ", ".join(part for part in parts if part)


def fitting_name(key: str) -> str:
    """The name of a thing that may be fitted, its side in braces."""
    for table in (equipment(), components(), scheduled_items(), engine_looks()):
        if key in table:
            return str(table[key].name)
    return key


def fact_value(fact: str, value: Any, terms: Terms = PLAIN) -> str:
    """A fact's value in words."""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, date):
        return f"{value:%B %Y}"
    if fact == "odometer_km":
        return terms.quantity("distance", value)
    return terms.quantity("pressure", value) if fact.endswith("_bar") else str(value)


def _source(source: Source) -> str:
    return "" if source is Source.UNKNOWN else str(source)


@body_words.register
def _(body: Fact, terms: Terms = PLAIN) -> Said:
    value = (
        "not known" if body.value == "" else fact_value(body.fact, getattr(body.applied(Mechanics()), body.fact), terms)
    )
    return FACT_NAMES[body.fact].capitalize(), join(value, _source(body.source), body.note)


@body_words.register
def _(body: Fitted, terms: Terms = PLAIN) -> Said:
    there, absent = (", ".join(terms.say(fitting_name(key)) for key in keys) for keys in (body.there, body.absent))
    return "Fitted", join(f"there: {there}" if there else "", f"not there: {absent}" if absent else "", body.note)


@body_words.register
def _(body: OriginSaid, terms: Terms = PLAIN) -> Said:
    told = f"{body.part}: {body.origin} {body.when}".strip()
    return "Origin", join(told, body.proof, _source(body.source), body.note)


@body_words.register
def _(body: Restored, terms: Terms = PLAIN) -> Said:
    by = f"by {body.by_whom}" if body.by_whom else ""
    return "Restored", join("; ".join(body.what), body.when, by, body.proof, _source(body.source), body.note)
