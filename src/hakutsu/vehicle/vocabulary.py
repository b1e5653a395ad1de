"""The closed lists of words that entries, rules and pages share."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field, StringConstraints

from hakutsu.vehicle.keyed import Keyed

Keys = Annotated[tuple[Annotated[str, StringConstraints(max_length=60)], ...], Field(max_length=200)]


class Substrate(StrEnum):
    """What lies under the paint of a panel."""

    STEEL = "steel"
    ALUMINIUM = "aluminium"
    PLASTIC = "plastic"
    COMPOSITE = "composite"
    UNKNOWN = "unknown"

    @property
    def is_metal(self) -> bool:
        """True when a film gauge can read over it (magnetic induction or eddy current)."""
        return self in (Substrate.STEEL, Substrate.ALUMINIUM)


class Finish(StrEnum):
    """The finish the seller declares, and so what refinish would mean."""

    FACTORY = "factory"
    RESTORED = "restored"
    PRESERVED = "preserved"
    UNKNOWN = "unknown"


class ReadingStatus(StrEnum):
    """What the gauge showed: a number, over its range, or nothing."""

    OK = "ok"
    OVER = "over"
    NONE = "none"


class Unit(StrEnum):
    """Units a film gauge shows."""

    UM = "um"
    MIL = "mil"


class Names(StrEnum):
    """The two vocabularies for the names of parts."""

    BRITISH = "british"
    AMERICAN = "american"


class SideNames(StrEnum):
    """What the two sides of a vehicle are called."""

    OWN = "own"
    SPOKEN = "spoken"


class SteeringSide(StrEnum):
    """The vehicle's own side on which its driver sits."""

    LEFT = "left"
    RIGHT = "right"


class Taste(StrEnum):
    """What the buyer expects of looks."""

    SHOW = "show"
    TIDY = "tidy"
    WORK = "work"
    PATINA = "patina"


class Protocol(StrEnum):
    """How deep the inspection goes; it sets what coverage expects."""

    QUICK = "quick"
    STANDARD = "standard"
    THOROUGH = "thorough"


class MagnetGrade(StrEnum):
    """How firmly a magnet holds."""

    FIRM = "firm"
    WEAKER = "weaker"
    NONE = "none"


class Work(StrEnum):
    """How well a repaint was done."""

    GOOD = "good"
    FAIR = "fair"
    POOR = "poor"


class Paint(Keyed):
    """How the colour was built up: what polishing takes off depends on it."""

    CLEAR = "clear", "clear over colour"
    SINGLE_STAGE = "single_stage", "single-stage"
    MATT = "matt"
    UNKNOWN = "unknown"


class CoverKind(Keyed):
    """What may lie on top of the paint of a panel."""

    PROTECTION_FILM = "protection_film", "protection film"
    WRAP = "wrap"
    UNKNOWN = "unknown", "not known which"
    NOTHING = "nothing", "no edge felt"


class Direction(Keyed):
    """Which of the vehicle's own sides the walk round it takes first, coming from the nose."""

    LEFT_FIRST = "left_first", "left side first"
    RIGHT_FIRST = "right_first", "right side first"


class Consequence(Keyed):
    """What a finding asks for, the gravest first."""

    WALK_AWAY = "walk_away", "walk away unless"
    SETTLE = "settle", "settle before paying"
    BUDGET = "budget", "budget for"
    LIVE_WITH = "live_with", "live with"
    FINE = "fine"
