"""One inspection: its findings, lives, money, its report."""

from __future__ import annotations

import base64
import json
from datetime import UTC, datetime
from pathlib import Path
from typing import Annotated
from uuid import UUID

import typer
from rich.console import Console
from rich.table import Table

from hakutsu.cli.common import DEFAULT_DATA, DataOption, Inspection, app, fail, logbook_at
from hakutsu.dossier import gather_dossier
from hakutsu.exchange.findings_json import findings_json
from hakutsu.exchange.lives_json import lives_json, money_json
from hakutsu.logbook import DataTrouble, Integrity, Logbook
from hakutsu.logbook.pictures import PictureFiles
from hakutsu.logbook.trouble import told
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.life import Lives
from hakutsu.report.integrity_section import integrity_line
from hakutsu.report.making import report_html
from hakutsu.report.sections import Making

COPY = 1600
JsonOption = Annotated[bool, typer.Option("--json", help="Print JSON.")]
MOST_KM_PER_YEAR = 200_000
NowOption = Annotated[datetime | None, typer.Option("--now", help="The moment it is made; the clock by default.")]


def reckoned(data: Path, inspection: UUID) -> tuple[Logbook, Reckoning]:
    """The logbook of a data directory and the reckoning of one of its inspections."""
    if not (data.expanduser() / "hakutsu.sqlite").is_file():
        fail(f"{data} holds no database")
    logbook = logbook_at(data)
    try:
        with told(logbook.database):
            if not logbook.holds(inspection):
                fail(f"{data} holds no inspection {inspection}")
            entries, unread = logbook.read(inspection)
            settings = logbook.library.settings
    except DataTrouble as error:
        fail(error)
    dossier = gather_dossier(inspection, entries, unread)
    if dossier.opening.vehicle is None:
        fail(f"inspection {inspection} has no vehicle yet")
    return logbook, Reckoning(dossier, settings)


def _print(told: object, table: Table, *, as_json: bool) -> None:
    """What a command found, as JSON or for the eye."""
    if as_json:
        print(json.dumps(told, ensure_ascii=False))
    else:
        Console(width=118, highlight=False).print(table)


@app.command()
def findings(
    inspection: Inspection,
    data: DataOption = DEFAULT_DATA,
    as_json: JsonOption = False,
) -> None:
    """Everything that was found, what it asks for, and where it stands on the negotiation sheet."""
    _, reckoning = reckoned(data, inspection)
    rows = findings_json(reckoning)
    table = Table("asks for", "what", "code", "sheet", title=f"{len(rows)} findings")
    for row in rows:
        sheet = row["on_sheet"]
        shown = sheet if isinstance(sheet, str) else "" if sheet is None else " ".join(map(str, sheet.values()))
        table.add_row(row["consequence"], row["words"], row["code"], shown)
    _print(rows, table, as_json=as_json)


@app.command()
def lives(
    inspection: Inspection,
    data: DataOption = DEFAULT_DATA,
    as_json: JsonOption = False,
    km_per_year: Annotated[
        float | None, typer.Option("--km-per-year", help="The buyer's distance in a year [km]; as briefed by default.")
    ] = None,
    now: Annotated[
        datetime | None, typer.Option("--now", help="The day time is counted from; that of the inspection by default.")
    ] = None,
) -> None:
    """What is left of every part, with 80 % intervals, and how many jobs of it to expect."""
    if km_per_year is not None and not 0 < km_per_year <= MOST_KM_PER_YEAR:
        fail(f"--km-per-year: {km_per_year:g} is not between 1 and {MOST_KM_PER_YEAR:,} km")
    _, reckoning = reckoned(data, inspection)
    rows = lives_json(reckoning, Lives(reckoning, km_per_year, on=None if now is None else now.date()))
    title = "What is left [months], 80 % interval"
    table = Table("part", "kind", "months", "within a year", "costs", title=title)
    for row in rows:
        months = f"{row['months']['p50']:.0f} ({row['months']['p10']:.0f} to {row['months']['p90']:.0f})"
        cost = f"{row['cost']:.0f} {row['currency']}"
        table.add_row(row["part"], row["kind"], months, f"{row['expected']['12']:.2f}", cost)
    _print(rows, table, as_json=as_json)


@app.command()
def money(
    inspection: Inspection,
    data: DataOption = DEFAULT_DATA,
    as_json: JsonOption = False,
) -> None:
    """What it will ask for in 12, 24 and 36 months after what is settled now was done."""
    _, reckoning = reckoned(data, inspection)
    told = money_json(reckoning)
    title = f"To spend [{told['currency']}]; quantiles are of the total"
    table = Table("months", "10 %", "50 %", "90 %", "mean", title=title)
    for months, one in told["months"].items():
        table.add_row(months, *(f"{one[key]:,.0f}" for key in ("p10", "p50", "p90", "mean")))
    _print(told, table, as_json=as_json)


@app.command()
def report(
    inspection: Inspection,
    html: Annotated[Path, typer.Option("--html", help="Where the document is written.")],
    data: DataOption = DEFAULT_DATA,
    now: NowOption = None,
) -> None:
    """The report as one HTML document, with its pictures in it."""
    logbook, reckoning = reckoned(data, inspection)
    at = datetime.now(UTC) if now is None else now.replace(tzinfo=now.tzinfo or UTC)
    with told(data):
        files = PictureFiles(data.expanduser().resolve() / "pictures")

    def picture(entry: UUID) -> str:
        taken = reckoning.dossier.pictures.taken[entry]
        copy = files.copy(taken.body.sha256, COPY)
        return "" if copy is None else f"data:image/jpeg;base64,{base64.b64encode(copy.read_bytes()).decode()}"

    integrity = integrity_line(reckoning, Integrity(logbook).check(inspection, at, whole=True))
    text = report_html(Making(reckoning, at, integrity, picture))
    try:
        html.write_text(text, encoding="utf-8")
    except OSError as error:
        fail(f"{html} cannot be written: {error.strerror or error}")
