"""What all commands share: the application, its options, and how a command fails."""

from __future__ import annotations

import sys
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, NoReturn
from uuid import UUID

import typer

if TYPE_CHECKING:
    from hakutsu.logbook import Logbook

BAD_INPUT = 2
DEFAULT_DATA = Path("data")
DEFAULT_PORT = 8471
LOOPBACK = "127.0.0.1"

app = typer.Typer(no_args_is_help=True, add_completion=False, pretty_exceptions_enable=False)
imports = typer.Typer(no_args_is_help=True, help="Bring files into an inspection.")
app.add_typer(imports, name="import")
gauges = typer.Typer(no_args_is_help=True, help="Film gauges and their stand-in.")
app.add_typer(gauges, name="gauge")
scans = typer.Typer(no_args_is_help=True, help="The vehicle's own memory: read it, decode what it says.")
app.add_typer(scans, name="scan")
vehicles = typer.Typer(no_args_is_help=True, help="The simulated vehicle.")
app.add_typer(vehicles, name="vehicle")

DataOption = Annotated[Path, typer.Option("--data", help="The data directory.")]
Inspection = Annotated[UUID, typer.Argument(help="Id of the inspection, as in its page's address.")]
PortOption = Annotated[int, typer.Option("--port", min=0, max=65535, help="Port to listen on; 0 takes a free one.")]


@app.callback()
def _root() -> None:
    """Hakutsu: the independent vehicle inspector's workbench."""


def fail(*lines: object, code: int = BAD_INPUT) -> NoReturn:
    """End with lines on standard error."""
    for line in lines:
        print(line, file=sys.stderr)
    raise typer.Exit(code)


def logbook_at(data: Path, code: int = BAD_INPUT) -> Logbook:
    """The logbook of a data directory; whatever is wrong with it ends the command with a sentence."""
    from hakutsu.logbook import DataDirectory, DataTrouble, Logbook

    try:
        return Logbook(DataDirectory(data).engine())
    except DataTrouble as error:
        fail(error, code=code)
