"""The server."""

from __future__ import annotations

from pathlib import Path

from hakutsu.cli.common import DEFAULT_DATA, DEFAULT_PORT, LOOPBACK, DataOption, PortOption, app, fail
from hakutsu.logbook import DataTrouble


@app.command()
def serve(data: DataOption = DEFAULT_DATA, port: PortOption = DEFAULT_PORT) -> None:
    """Serve the application on this machine only."""
    _serve(data, port, with_demo=False)


@app.command()
def demo(data: DataOption = Path("data/demo"), port: PortOption = DEFAULT_PORT) -> None:
    """Serve the application with the demo's inspections; starting again adds nothing twice."""
    _serve(data, port, with_demo=True)


def _serve(data: Path, port: int, *, with_demo: bool) -> None:
    from hakutsu.web.serving import AddressTaken, serve_on

    try:
        serve_on(data, LOOPBACK, port, with_demo=with_demo)
    except (DataTrouble, AddressTaken) as error:
        fail(f"hakutsu: {error}", code=1)
