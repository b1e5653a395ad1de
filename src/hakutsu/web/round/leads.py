"""Where the work of a step of the run sheet is entered, below the inspection's address."""

from __future__ import annotations

from hakutsu.core.runsheet import steps

LEADS = {
    "cold_proof": "arrival", "hazard_look": "standdowns", "cold_levels": "engine/fluids",
    "battery_rest": "engine/electric", "scan_before": "scan", "scan_after": "scan", "ask_seller": "round",
    "papers_seller": "claims", "cold_start": "engine/run", "start": "engine/run", "first_minute": "engine/run",
    "warm_up": "engine/run", "idle_watch": "engine/run", "charging": "engine/electric",
    "air_conditioning": "engine/air", "film_quick": "film", "lamps": "functions", "lamps_alone": "functions",
    "functions": "functions", "cabin": "cabin", "under": "under", "under_by_lamp": "under", "gear_play": "corners",
    "road": "road/before", "after_drive": "road/after", "leaks_again": "under",
    "identity": "papers/identity", "pictures": "pictures",
    "closing_talk": "gaps",
}  # fmt: skip


def lead(step: str) -> str:
    """The page of a step: its station's, else the sheet of the place it is done at."""
    if step.startswith("wheel_"):
        return f"place/{steps()[step].place}"
    return LEADS.get(step, f"place/{steps()[step].place}")
