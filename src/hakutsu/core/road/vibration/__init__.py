"""A vibration recorded on the road: which turning part of the vehicle it fits."""

from hakutsu.core.road.vibration.matching import Match, match_vibration
from hakutsu.core.road.vibration.record import Record
from hakutsu.core.road.vibration.sources import Stated

__all__ = ["Match", "Record", "Stated", "match_vibration"]
