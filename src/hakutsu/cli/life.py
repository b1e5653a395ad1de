"""Measured parts: what is left of them."""

from __future__ import annotations

import json
import sys
from pathlib import Path
from typing import Annotated

import typer
from rich.console import Console
from rich.table import Table

from hakutsu.cli.common import app, fail
from hakutsu.exchange.life_csv import LifeCsvError, life_json, lives_of


@app.command("life")
def life(
    file: Annotated[Path, typer.Argument(help="CSV of measured parts; - reads standard input.", allow_dash=True)],
    as_json: Annotated[bool, typer.Option("--json", help="Print JSON.")] = False,
) -> None:
    """What is left of measured tyres, pads and discs, as distance and time with 80 % intervals."""
    try:
        text = sys.stdin.read() if str(file) == "-" else file.read_text(encoding="utf-8-sig")
        found = lives_of(text)
    except (OSError, UnicodeDecodeError) as error:
        fail(f"{file} cannot be read: {error}")
    except LifeCsvError as error:
        fail(error)
    if as_json:
        print(json.dumps(life_json(found), ensure_ascii=False))
        return
    table = Table(title="What is left, 80 % interval")
    for name in ("case", "km", "months", "limited by", "basis"):
        table.add_column(name)
    for one in found:
        km = f"{one.km.p50:,.0f} ({one.km.p10:,.0f} to {one.km.p90:,.0f})" if one.km else "not known"
        months = f"{one.months.p50:.0f} ({one.months.p10:.0f} to {one.months.p90:.0f})" if one.months else ""
        table.add_row(one.case, km, months, one.limited_by or "", "; ".join(one.basis))
    Console(width=118, highlight=False).print(table)
