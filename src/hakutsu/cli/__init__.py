"""The command line: a mirror of what the server does. Each command's module registers it when it is wanted."""

from __future__ import annotations

import sys
from collections.abc import Sequence
from importlib import import_module
from typing import Any

from hakutsu.cli.common import app as _app

EVERY = ("film", "inspection", "life", "logbook", "papers", "road", "scan", "serving", "stand_ins")
OF = {
    "scan": ("scan",),
    "vibration": ("road",),
    "identity": ("papers",),
    "dates": ("papers",),
    "distance": ("papers",),
    "vehicle": ("stand_ins",),
    "gauge": ("stand_ins",),
}  # what needs no others, and begins sooner


def registered(names: Sequence[str] = EVERY) -> Any:
    """The application with the commands of some modules, by default of all."""
    for name in names:
        import_module(f"{__name__}.{name}")
    return _app


def __getattr__(name: str) -> Any:
    """`app`: the application with every command."""
    if name == "app":
        return registered()
    raise AttributeError(name)


def main() -> None:
    """Entry point of the command `hakutsu`."""
    first = sys.argv[1] if len(sys.argv) > 1 else ""
    registered(OF.get(first, EVERY))()
