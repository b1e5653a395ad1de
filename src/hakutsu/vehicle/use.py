"""Circumstances of use that wear a vehicle."""

from __future__ import annotations

from functools import cache

from hakutsu.vehicle.table_models import FactorsTable
from hakutsu.vehicle.tables import read_table


@cache
def use_factor_names() -> dict[str, str]:
    """Names of the circumstances by key."""
    return dict(read_table("vehicle", "factors", FactorsTable).factor)
