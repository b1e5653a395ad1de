"""What the first pages after a start will want, made ready in the background."""

from __future__ import annotations

import time
from threading import Event
from uuid import UUID

from hakutsu.web.desk import Desk
from hakutsu.web.rendering import compile_templates

READY = "getting ready"
FIRST = 3.0  # the first page after a start goes before [s]
NEWEST, REST = 10, 2.0  # so many of those under way; it rests so many times as long as it worked


def get_ready(desk: Desk, stopped: Event) -> None:
    """Compile the templates, then reckon the newest inspections that are under way."""
    stopped.wait(FIRST)
    for _ in compile_templates():
        if desk.turns.let_go_first(stopped):
            return
    found, _ = desk.summaries.page(0, NEWEST)
    for one in found:
        began = time.monotonic()
        desk.attempt(one.inspection, lambda each: _reckon(desk, each))
        if desk.turns.let_go_first(stopped, REST * (time.monotonic() - began)):
            return


def _reckon(desk: Desk, inspection: UUID) -> None:
    """What every page of it shows; kept by the reckoning."""
    reckoning = desk.reckoning(inspection)
    _ = reckoning.findings, reckoning.lives.sheet
