"""Entries of timers: a watch begun, every look at it, and its end."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import Field, StringConstraints

from hakutsu.entries.registry import Body, entry_kind


@entry_kind("timer.started")
class TimerStarted(Body):
    """A watch over something that takes time: what is watched, and after how many minutes it rings."""

    label: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    minutes: Annotated[float, Field(gt=0, le=1440)]


@entry_kind("timer.looked")
class TimerLooked(Body):
    """A look at what the watch named by `of` is over, and what was seen."""

    of: UUID
    seen: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = ""


@entry_kind("timer.stopped")
class TimerStopped(Body):
    """The watch named by `of` is over."""

    of: UUID
