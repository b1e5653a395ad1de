"""What a plan is made from: time, who and what is there, and what has been done already."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from math import inf

from hakutsu.core.runsheet.emphasis import Weight
from hakutsu.vehicle.vocabulary import Protocol


@dataclass(frozen=True, slots=True)
class Conditions:
    """Conditions of a day at the vehicle; times are minutes after the plan begins.

    `available` is the time there is. `seller_until`, `daylight_until` and `dry_until` end those conditions; none means
    they last. `lift_by_driving` says that the vehicle must be driven onto the lift. `blocked` are activities a
    stand-down forbids, `done` the steps already done, `emphasis` what the brief makes matter more or less, by step.
    """

    available: float
    protocol: Protocol = Protocol.STANDARD
    engine_cold: bool = True
    lift: bool = False
    lift_by_driving: bool = False
    helper: bool = False
    may_drive: bool = True
    seller_until: float | None = None
    daylight_until: float | None = None
    dry_until: float | None = None
    blocked: frozenset[str] = frozenset()
    done: frozenset[str] = frozenset()
    emphasis: Mapping[str, Weight] = field(default_factory=dict)

    def ends(self, need: str) -> float:
        """When a need ends to be met [min]; 0 when it is not met at all, infinite when it lasts."""
        until = {"seller": self.seller_until, "daylight": self.daylight_until, "dry": self.dry_until}
        if need in until:
            end = until[need]
            return inf if end is None else max(0.0, end)
        met = {
            "cold": self.engine_cold,
            "not_cold": not self.engine_cold,
            "warm": True,
            "lift": self.lift,
            "no_lift": not self.lift,
            "lift_by_driving": self.lift and self.lift_by_driving,
            "helper": self.helper,
            "no_helper": not self.helper,
            "road": self.may_drive,
        }
        return inf if met[need] else 0.0


WHY_NOT = {
    "cold": "the engine was found warm",
    "not_cold": "the engine is started cold",
    "lift": "no lift",
    "no_lift": "there is a lift",
    "lift_by_driving": "the vehicle need not be driven onto a lift",
    "helper": "no helper",
    "no_helper": "there is a helper",
    "seller": "the seller is not there",
    "daylight": "no daylight",
    "dry": "it is wet",
    "road": "driving is not allowed",
}
INSTEAD = frozenset({"not_cold", "no_lift", "no_helper", "lift_by_driving"})  # steps that stand in for others: no loss
