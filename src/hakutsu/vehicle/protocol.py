"""How many readings a protocol wants on a panel, and where its spots lie."""

from __future__ import annotations

from hakutsu.vehicle.panels import Panel
from hakutsu.vehicle.vocabulary import Protocol

Spot = tuple[float, float]

CENTRE_AND_QUARTERS: tuple[Spot, ...] = ((0.5, 0.5), (0.25, 0.75), (0.75, 0.75), (0.25, 0.25), (0.75, 0.25))
LOW_EDGE: Spot = (0.5, 0.08)
ALONG_A_SMALL_PANEL: tuple[Spot, ...] = ((0.5, 0.5), (0.2, 0.5), (0.8, 0.5))
UP_A_PILLAR: tuple[Spot, ...] = ((0.5, 0.5), (0.5, 0.2), (0.5, 0.8))


def spot_pattern(panel: Panel) -> tuple[Spot, ...]:
    """The full pattern of a panel as (u, v), both 0 to 1.

    Large panels have five spots (centre and quarters), on a flank one more at the low edge; small ones have three along
    their length.
    """
    if panel.size == "small":
        return UP_A_PILLAR if "pillar" in panel.key else ALONG_A_SMALL_PANEL
    return (*CENTRE_AND_QUARTERS, LOW_EDGE) if panel.plane == "flank" else CENTRE_AND_QUARTERS


def planned_spots(panel: Panel, protocol: Protocol) -> tuple[Spot, ...]:
    """The spots of the pattern that a protocol expects to be read, in order."""
    return spot_pattern(panel)[: expected_readings(panel, protocol)]


def spot_words(panel: Panel, u: float, v: float) -> str:
    """A place on a panel in words, such as "low front" or "centre"."""
    low, high = {"flank": ("front", "rear"), "top": ("left", "right"), "end": ("left", "right")}[panel.plane]
    across = low if u < 0.4 else high if u > 0.6 else ""
    if panel.plane == "top":
        along = "front" if v < 0.4 else "rear" if v > 0.6 else ""
    else:
        along = "low edge" if v < 0.15 else "low" if v < 0.4 else "high" if v > 0.6 else ""
    return " ".join(word for word in (along, across) if word) or "centre"


def expected_readings(panel: Panel, protocol: Protocol) -> int:
    """Readings a protocol expects on a metal panel.

    Thorough takes the full spot pattern; standard three on a large panel and two on a small one; quick one on a
    large panel and none on a small one.
    """
    if protocol is Protocol.THOROUGH:
        return len(spot_pattern(panel))
    large = panel.size == "large"
    return (3 if large else 2) if protocol is Protocol.STANDARD else (1 if large else 0)
