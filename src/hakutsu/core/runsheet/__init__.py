"""The run sheet: a computed plan of the inspector's day, which replans when something changes."""

from hakutsu.core.runsheet.conditions import Conditions
from hakutsu.core.runsheet.planning import Dropped, Plan, Planned, first_step, plan
from hakutsu.core.runsheet.steps import Step, steps

__all__ = ["Conditions", "Dropped", "Plan", "Planned", "Step", "first_step", "plan", "steps"]
