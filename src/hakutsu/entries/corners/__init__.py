"""What is seen and measured at a corner: wheel, tyre, brake, running gear; and of the brakes as a whole."""

from hakutsu.entries.corners.brakes import (
    Brake,
    DiscCracks,
    DiscRust,
    Firm,
    Fluid,
    FluidKind,
    Hose,
    Parking,
    Pedal,
    Pipe,
    Scoring,
)
from hakutsu.entries.corners.gear import Gear, Grade, Height, PartProof
from hakutsu.entries.corners.kinds import Method
from hakutsu.entries.corners.wheels import Cracks, Liner, PerCentOf, Season, Shape, SpareKind, Tyre, TyreDamage, Wheel

__all__ = [
    "Brake",
    "Cracks",
    "DiscCracks",
    "DiscRust",
    "Firm",
    "Fluid",
    "FluidKind",
    "Gear",
    "Grade",
    "Height",
    "Hose",
    "Liner",
    "Method",
    "Parking",
    "PartProof",
    "Pedal",
    "PerCentOf",
    "Pipe",
    "Scoring",
    "Season",
    "Shape",
    "SpareKind",
    "Tyre",
    "TyreDamage",
    "Wheel",
]
