"""What usual jobs cost: hours of labour at a rate, and materials; the inspector's own figures kept apart from ours."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal
from functools import cache

from hakutsu.core.tables import CostsTable
from hakutsu.entries.settings import JobFigures
from hakutsu.vehicle.tables import read_table


@dataclass(frozen=True, slots=True)
class Job:
    """A job with what it takes; `own` says that the inspector put in figures of their own."""

    key: str
    name: str
    figures: JobFigures
    own: bool = False

    def cost(self, rate: Decimal) -> tuple[Decimal, Decimal]:
        """Lowest and highest usual cost at an hourly rate: hours · rate + materials, in the currency of both."""
        low, high = (
            Decimal(str(hours)) * rate + Decimal(str(materials))
            for hours, materials in zip(self.figures.hours, self.figures.materials, strict=True)
        )
        return low.quantize(Decimal("0.01")), high.quantize(Decimal("0.01"))


@cache
def usual_jobs() -> dict[str, Job]:
    """The table as shipped, by key."""
    table = read_table("core", "costs", CostsTable)
    return {
        key: Job(key, row["name"], JobFigures(hours=row["hours"], materials=row["materials"]))
        for key, row in table.job.items()
    }


def cost_table(own: Mapping[str, JobFigures]) -> dict[str, Job]:
    """The table with the inspector's own figures in place of ours where there are any."""
    return {key: Job(key, job.name, own[key], own=True) if key in own else job for key, job in usual_jobs().items()}
