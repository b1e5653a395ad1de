"""What the facts of a vehicle are called, and what they say."""

from __future__ import annotations

from datetime import date

from hakutsu.vehicle.keyed import key_of
from hakutsu.vehicle.mechanics import UNKNOWN

FACT_NAMES = {
    "make": "make", "model": "model", "variant": "variant", "first_used": "first used", "odometer_km": "distance meter",
    "power": "power", "drive": "driven axle", "gearbox": "gearbox", "timing": "camshaft driven by",
    "rear_axle": "rear axle", "rear_brakes": "rear brakes", "front_axle": "front axle", "front_brakes": "front brakes",
    "front_pivots": "front wheels turn on", "steering_gear": "steering", "fuel_system": "fuel by",
    "ignition": "ignition by", "supply": "electrical system", "parts": "parts are to be had",
    "seized": "fixings seized or corroded all over", "stainless_exhaust": "stainless exhaust",
    "separate_frame": "body on a frame of its own", "map_thermostat": "thermostat moved by the engine’s computer",
    "two_stage_oil": "two-stage oil pump", "front_size": "placard, front", "rear_size": "placard, rear",
    "front_bar": "placard pressure, front", "rear_bar": "placard pressure, rear",
}  # fmt: skip


def fact_words(fact: str, value: object) -> str:
    """A fact's value in words for `Terms.say`, which puts quantities into the reader's units."""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, date):
        return f"{value:%B %Y}"
    quantity = "distance" if fact == "odometer_km" else "pressure" if fact.endswith("_bar") else ""
    return f"{{{quantity} {value}}}" if quantity else str(value)


def is_said(value: object) -> bool:
    """Whether a fact holds anything: not empty, not known to be unknown, and no box that nobody ticked."""
    return value is not None and value is not False and value != "" and key_of(value) != UNKNOWN
