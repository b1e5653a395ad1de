"""What the first pages after a start will want, made ready in the background."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from threading import Event
from uuid import UUID

from hakutsu.web.desk import Desk
from hakutsu.web.rendering import compile_template, every_template

READY = "getting ready"
NEWEST = 50  # so many are on the first page of the day


def get_ready(desk: Desk, stopped: Event) -> None:
    """Compile the templates, then reckon the newest inspections that are under way."""
    desk.turns.after_the_first(stopped)
    work: list[Callable[[], object]] = [partial(compile_template, one) for one in every_template()]
    found, _ = desk.summaries.page(0, NEWEST)
    work += [partial(desk.attempt, one.inspection, partial(_reckon, desk)) for one in found]
    for one in work:
        with desk.turns.behind(stopped):
            if stopped.is_set():
                return
            one()


def _reckon(desk: Desk, inspection: UUID) -> None:
    """What every page of it shows; kept by the reckoning."""
    reckoning = desk.reckoning(inspection)
    _ = reckoning.findings, reckoning.lives.sheet
