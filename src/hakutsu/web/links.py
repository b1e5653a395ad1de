"""Where a part that a station expects is looked at."""

from __future__ import annotations

from hakutsu.dossier.round import Checked, PartCoverage
from hakutsu.vehicle.engine import engine_looks


def part_link(part: PartCoverage) -> str:
    """The page of a part's station, below the inspection's address."""
    match part.station:
        case Checked.FIT:
            return "outside/fit"
        case Checked.GLASS:
            return "outside/glass"
        case Checked.FUNCTIONS:
            return "functions"
        case Checked.CABIN:
            return "cabin"
        case Checked.UNDER:
            return f"under?zone={part.part}"
        case Checked.ENGINE:
            return f"engine/{engine_looks()[part.part.removeprefix('engine_')].room}"
        case Checked.TYRES | Checked.BRAKES:
            return f"corners?at={part.part.replace('brake_', 'wheel_')}"
