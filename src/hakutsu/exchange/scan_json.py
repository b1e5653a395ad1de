"""What was read of a vehicle's memory, as JSON."""

from __future__ import annotations

from typing import Any

from hakutsu.core.scan.cleared import cleared
from hakutsu.entries.scan import ScanRead
from hakutsu.vehicle.terms import PLAIN


def scan_json(read: ScanRead) -> dict[str, Any]:
    """Link, modules, whether memory was cleared, problems."""
    found = read.model_dump(mode="json")
    judged = cleared(read.modules)
    found["cleared"] = {"probability": judged.probability, "because": [PLAIN.say(one) for one in judged.because]}
    return found
