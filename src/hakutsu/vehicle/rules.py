"""Rule sets: legal figures that differ from place to place. The local authority decides."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from functools import cache

from hakutsu.vehicle.panels import Side
from hakutsu.vehicle.table_models import RulesTable
from hakutsu.vehicle.tables import read_table


@dataclass(frozen=True, slots=True)
class RuleSet:
    """One place's figures: least tread [mm] by law, by advice and in winter, least light through the windscreen and the
    front side windows [%], the side of the road, since when they hold, the coldest of a usual winter [°C], and the
    year of first use from which a belt is asked for at a seat; how much more than the truth a speedometer may show
    [share, km/h] and by what share tyres may roll further than the placard's; whether place 9 of an identity number is
    a check digit there; codes its periodic test refuses.
    """

    key: str
    name: str
    since: date
    side: Side
    tread_mm: float
    advice_mm: float
    winter_mm: float
    front_light: tuple[int, int]
    winter_c: float
    belts_from: int
    dial_over_share: float
    dial_over_kmh: float
    dial_tyres: float
    check_digit: bool
    refuses: tuple[str, ...]


@cache
def rule_sets() -> dict[str, RuleSet]:
    """All rule sets by key, the usual one first."""
    table = read_table("vehicle", "rules", RulesTable)
    return {key: RuleSet(key, **dict(row.items())) for key, row in table.set.items()}
