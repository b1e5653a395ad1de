"""The road by hand: match a recorded vibration."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Annotated

import typer

from hakutsu.cli.common import app, fail

JsonOption = Annotated[bool, typer.Option("--json", help="As JSON, which is the only form there is.")]


@app.command("vibration")
def vibration(
    file: Annotated[str, typer.Argument(help="CSV with t,ax,ay,az (s, m/s²), or - for standard input.")],
    speed: Annotated[float, typer.Option("--speed", help="Speed [km/h].")],
    rolling: Annotated[float, typer.Option("--rolling", help="Rolling circumference of the tyre [m].")],
    final_drive: Annotated[float | None, typer.Option("--final-drive", help="Turns of the shaft a wheel turn.")] = None,
    rpm: Annotated[float | None, typer.Option("--rpm", help="Engine speed [1/min].")] = None,
    as_json: JsonOption = False,
) -> None:
    """Match a vibration recorded on the road with what turns at that speed."""
    from hakutsu.core.road.vibration import Stated, match_vibration
    from hakutsu.exchange.vibration_csv import BadRecord, match_json, read_record

    try:
        data = sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
    except OSError as error:
        fail(f"{file}: {error.strerror}")
    faults: list[str] = []
    stated = record = None
    try:
        stated = Stated(speed, rolling, final_drive, rpm)
    except ValueError as error:
        faults += str(error).split("; ")
    try:
        record = read_record(data)
    except BadRecord as error:
        faults += error.faults
    if stated is None or record is None:
        fail(*faults)
    print(json.dumps(match_json(match_vibration(record, stated)), ensure_ascii=False))
