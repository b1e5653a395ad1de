"""When an engine is stopped for heat."""

from __future__ import annotations

from hakutsu.vehicle.table_models import HeatLimits, HeatTable
from hakutsu.vehicle.tables import read_table


def heat_limits() -> HeatLimits:
    """Limits [°C] and what confirms a reading."""
    return read_table("vehicle", "heat", HeatTable).heat
