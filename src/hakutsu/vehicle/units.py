"""Film thickness units. Inside the program everything is in µm; conversion happens at the edge."""

from __future__ import annotations

from hakutsu.vehicle.vocabulary import Unit

MICROMETRES_PER_MIL = 25.4
UM_EACH = {Unit.UM: 1, Unit.MIL: MICROMETRES_PER_MIL}
UNIT_LABEL = {Unit.UM: "µm", Unit.MIL: "mil"}


def to_um(value: float, unit: Unit) -> float:
    """Convert a film thickness [`unit`] to micrometres [µm]; 1 mil = 25.4 µm exactly."""
    return value * MICROMETRES_PER_MIL if unit is Unit.MIL else value


def from_um(value_um: float, unit: Unit) -> float:
    """Convert a film thickness [µm] to `unit`."""
    return value_um / MICROMETRES_PER_MIL if unit is Unit.MIL else value_um


def show(value_um: float, unit: Unit, *, with_unit: bool = True) -> str:
    """Write a film thickness [µm] in `unit`: whole micrometres, or mil with one decimal place.

    A four-digit number takes a thousands separator, so that 1,200 µm is not read as 120.
    """
    number = f"{from_um(value_um, unit):,.1f}" if unit is Unit.MIL else f"{value_um:,.0f}"
    return f"{number} {UNIT_LABEL[unit]}" if with_unit else number
