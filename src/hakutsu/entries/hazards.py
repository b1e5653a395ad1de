"""Entries of stand-downs: a cause raised, cleared by somebody who may, or overridden and left open."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import Field, StringConstraints

from hakutsu.entries.bounds import KeyOf
from hakutsu.entries.registry import Body, entry_kind

Words = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=400)]


@entry_kind("hazard.raised")
class HazardRaised(Body):
    """A cause that forbids running, driving, working under or lifting, by its key in the table of causes."""

    cause: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("cause")]
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = ""


@entry_kind("hazard.cleared")
class HazardCleared(Body):
    """The cause named by `of` is gone: who says so, of which trade, and what was done."""

    of: UUID
    name: Words
    trade: Words
    done: Words


@entry_kind("hazard.overridden")
class HazardOverridden(Body):
    """Work goes on although the cause named by `of` stays open: who decides, and why. The report prints it."""

    of: UUID
    name: Words
    reason: Words
    activity: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("activity")]


@entry_kind("step.begun")
class StepBegun(Body):
    """A step of the inspection is begun; refused while a stand-down blocks it."""

    step: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("step")]


@entry_kind("step.done")
class StepDone(Body):
    """A step of the inspection was done, in so many minutes where that was noted."""

    step: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("step")]
    minutes: Annotated[float, Field(ge=0, le=600)] | None = None
