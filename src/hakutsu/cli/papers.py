"""Numbers and dates by hand: what an identity number says, how dated marks line up."""

from __future__ import annotations

import json
import sys
from datetime import datetime
from pathlib import Path
from typing import Annotated

import typer

from hakutsu.cli.common import app, fail

JsonOption = Annotated[bool, typer.Option("--json", help="As JSON, which is the only form there is.")]


@app.command("identity")
def identity(
    text: Annotated[str, typer.Argument(help="The number itself; an unread character as ?.")],
    as_json: JsonOption = False,
) -> None:
    """What an identity number says of itself, and likely misreadings."""
    from hakutsu.core.papers.identity import read_identity
    from hakutsu.exchange.papers_csv import identity_json

    print(json.dumps(identity_json(read_identity(text)), ensure_ascii=False))


@app.command("dates")
def dates(
    file: Annotated[str, typer.Argument(help="CSV with mark,place,kind,text,table, or - for standard input.")],
    today: Annotated[datetime | None, typer.Option("--today", formats=["%Y-%m-%d"], help="The day of it.")] = None,
    as_json: JsonOption = False,
) -> None:
    """Hold dated marks against the build date."""
    from hakutsu.exchange.papers_csv import BadMarks, dates_json, read_dates

    try:
        data = sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
    except OSError as error:
        fail(f"{file}: {error.strerror}")
    day = (today or datetime.now().astimezone()).date()
    try:
        read = read_dates(data, day)
    except BadMarks as error:
        fail(*error.faults)
    print(json.dumps(dates_json(read), ensure_ascii=False))


@app.command("distance")
def distance(
    file: Annotated[str, typer.Argument(help="CSV with case,date,value,unit,source,dial_digits,first_used, or -.")],
    now: Annotated[datetime | None, typer.Option("--now", help="The moment of it; the clock by default.")] = None,
    as_json: JsonOption = False,
) -> None:
    """How far vehicles probably ran, by their dated readings."""
    from hakutsu.core.papers.distance import judge
    from hakutsu.exchange.distance_csv import BadReadings, distance_json, read_histories

    try:
        data = sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
    except OSError as error:
        fail(f"{file}: {error.strerror}")
    try:
        histories = read_histories(data, (now or datetime.now().astimezone()).date())
    except BadReadings as error:
        fail(*error.faults)
    told = [distance_json(case, judge(history), history) for case, history in histories.items()]
    print(json.dumps(told, ensure_ascii=False))
