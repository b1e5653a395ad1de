"""Where a part that a station expects is looked at."""

from __future__ import annotations

from hakutsu.dossier.coverage import PartCoverage
from hakutsu.vehicle.engine import engine_looks


def part_link(part: PartCoverage) -> str:
    """The page of a part's station, below the inspection's address."""
    match part.check.key:
        case "fit":
            return "outside/fit"
        case "glass":
            return "outside/glass"
        case "functions":
            return "functions"
        case "cabin":
            return "cabin"
        case "under":
            return f"under?zone={part.part}"
        case "engine":
            return f"engine/{engine_looks()[part.part.removeprefix('engine_')].room}"
        case "tyres" | "brakes":
            return f"corners?at={part.part.replace('brake_', 'wheel_')}"
    return f"place/{part.part}"
