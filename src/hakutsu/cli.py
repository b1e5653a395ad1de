"""The command line: a mirror of what the server does."""

from __future__ import annotations

import hashlib
import json
import sys
from datetime import UTC, datetime
from pathlib import Path
from typing import Annotated, NoReturn
from uuid import UUID

import typer
from rich.console import Console
from rich.table import Table

from hakutsu.core.film import (
    FilmAnalysis,
    FilmModel,
    NextSpot,
    School,
    advice,
    analyse_model,
    chance_words,
    parameters,
    prior_finish,
)
from hakutsu.dossier import gather_dossier
from hakutsu.exchange.film_csv import FilmFile, read_film_csv
from hakutsu.exchange.film_import import import_drafts, plan_import
from hakutsu.exchange.film_json import film_json
from hakutsu.exchange.life_csv import LifeCsvError, life_json, lives_of
from hakutsu.logbook import DataDirectory, DirectoryInUse, Logbook, Refused
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.protocol import spot_words
from hakutsu.vehicle.terms import PLAIN
from hakutsu.vehicle.vocabulary import Finish

BAD_INPUT = 2
TOLD_FROM = 0.5
DEFAULT_DATA = Path("data")
DEFAULT_PORT = 8471
LOOPBACK = "127.0.0.1"

app = typer.Typer(no_args_is_help=True, add_completion=False, pretty_exceptions_enable=False)
imports = typer.Typer(no_args_is_help=True, help="Bring files into an inspection.")
app.add_typer(imports, name="import")
gauges = typer.Typer(no_args_is_help=True, help="Film gauges and their stand-in.")
app.add_typer(gauges, name="gauge")
scans = typer.Typer(no_args_is_help=True, help="The scan link and its stand-in.")
app.add_typer(scans, name="scan")

DataOption = Annotated[Path, typer.Option("--data", help="The data directory.")]
PortOption = Annotated[int, typer.Option("--port", min=0, max=65535, help="Port to listen on; 0 takes a free one.")]


@app.callback()
def _root() -> None:
    """Hakutsu: the independent vehicle inspector's workbench."""


def _fail(*lines: object, code: int = BAD_INPUT) -> NoReturn:
    for line in lines:
        print(line, file=sys.stderr)
    raise typer.Exit(code)


def _read(path: str) -> tuple[bytes, FilmFile]:
    try:
        data = sys.stdin.buffer.read() if path == "-" else Path(path).read_bytes()
    except OSError as error:
        _fail(f"{path} cannot be read: {error.strerror}")
    return data, read_film_csv(data)


@app.command()
def film(
    file: Annotated[str, typer.Argument(help="A film survey CSV, or - for standard input.")],
    school: Annotated[School | None, typer.Option(help="How to judge; by default as the declared finish asks.")] = None,
    band: Annotated[
        tuple[float, float] | None, typer.Option(metavar="LOW HIGH", help="Band [µm] of the schools fixed, restored.")
    ] = None,
    as_json: Annotated[bool, typer.Option("--json", help="Print a JSON array, one object per survey.")] = False,
) -> None:
    """Analyse a film survey file; no database is touched."""
    if band is not None and school not in (School.FIXED, School.RESTORED):
        _fail("--band goes with --school fixed or --school restored")
    if band is not None and not 0 < band[0] < band[1]:
        _fail("--band takes two thicknesses in µm, the lower one first, both above 0")
    _, found = _read(file)
    if found.bad:
        _fail(*found.bad)
    for remark in found.remarks:
        print(remark, file=sys.stderr)
    models = [FilmModel(survey, parameters()) for survey in found.surveys()]
    results = [analyse_model(model, school=school, band_um=band) for model in models]
    pairs = zip(models, results, strict=True)
    spots = [advice(model, prior_finish(result.school, model.survey.finish)) for model, result in pairs]
    if as_json:
        said = [film_json(result, spot) for result, spot in zip(results, spots, strict=True)]
        print(json.dumps(said, ensure_ascii=False))
        return
    for result, spot in zip(results, spots, strict=True):
        _print_table(result, spot)


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
        _fail(f"{file} cannot be read: {error}")
    except LifeCsvError as error:
        _fail(error)
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


def _print_table(result: FilmAnalysis, spot: NextSpot | None) -> None:
    console = Console(width=118, highlight=False)
    base = result.baseline
    level = f"baseline {base.median:.0f} µm ({base.low:.0f} to {base.high:.0f})" if base else "no baseline"
    table = Table(title=f"Survey “{result.survey}”, school {result.school}: {level}", title_justify="left")
    for name in ("panel", "readings", "median µm", "state", "", "concern", "reasons"):
        table.add_column(name, justify="right" if name in ("readings", "median µm", "") else "left")
    for panel in result.panels:
        chance = "" if panel.probabilities is None or panel.state is None else f"{panel.probabilities[panel.state]:.0%}"
        table.add_row(
            PLAIN.panel(panel.panel),
            str(panel.readings),
            "" if panel.median_um is None else f"{panel.median_um:.0f}",
            panel.state or "–",
            chance,
            panel.judged.concern if panel.judged else "",
            "; ".join(panel.reasons),
        )
    console.print(table)
    for zone in result.story:
        if zone.probability >= TOLD_FROM:
            said = f"{zone.name} {chance_words(zone.probability)}: {'; '.join(zone.speaks_for) or 'nothing by itself'}"
            console.print(f"story: {said}", markup=False)
    if spot is not None:
        where = spot_words(panels()[spot.panel], spot.u, spot.v)
        name = PLAIN.panel(spot.panel)
        console.print(f"next: {name}, {where} ({spot.gain_bits:.2f} bit)", markup=False)
    for warning in result.warnings:
        console.print(f"! {warning}", markup=False)


def _logbook(data: Path) -> Logbook:
    try:
        return Logbook(DataDirectory(data).engine())
    except DirectoryInUse as error:
        _fail(error)


@imports.command("film")
def import_film(
    file: Annotated[str, typer.Argument(help="A film survey CSV, or - for standard input.")],
    inspection: Annotated[UUID, typer.Option(help="Id of the inspection, as in its page's address.")],
    survey: Annotated[str | None, typer.Option(help="Which survey, where the file holds several.")] = None,
    accept_clean: Annotated[bool, typer.Option("--accept-clean", help="Store the good rows beside bad ones.")] = False,
    finish: Annotated[
        str | None, typer.Option(help="Where the declared finish differs: take that of the “file” or “inspection”.")
    ] = None,
    data: DataOption = DEFAULT_DATA,
) -> None:
    """Store a film survey's readings in an inspection; with bad rows nothing, unless --accept-clean."""
    if finish not in (None, "file", "inspection"):
        _fail("--finish takes “file” or “inspection”")
    raw, found = _read(file)
    logbook = _logbook(data)
    if not logbook.holds(inspection):
        _fail(f"no inspection {inspection} in {data}")
    chosen = _choose(found, survey)
    sha256 = hashlib.sha256(raw).hexdigest()
    dossier = gather_dossier(inspection, logbook.entries(inspection))
    plan = plan_import(found, chosen, dossier, sha256)
    for bad in plan.bad:
        print(bad, file=sys.stderr)
    if plan.bad and not (accept_clean and plan.new):
        _fail("nothing stored; --accept-clean stores the good rows" if plan.new else "nothing stored")
    if plan.finish_conflict is not None and finish is None:
        _fail(_conflict(plan.finish_conflict, dossier.vehicle.finish), "nothing stored")
    name = "standard input" if file == "-" else Path(file).name
    drafts = import_drafts(plan, dossier, datetime.now(UTC), name=name, sha256=sha256, take_finish=finish == "file")
    answers = logbook.append(inspection, drafts, logbook.account or "command line")
    refused = [answer for answer in answers if isinstance(answer, Refused)]
    for remark in plan.remarks:
        print(remark, file=sys.stderr)
    print(f"{len(plan.new)} readings stored, {len(plan.known)} were there already, {len(plan.bad)} rows left out")
    if plan.bad or refused:
        _fail(*(f"{answer.field}: {answer.message}" for answer in refused))


def _conflict(theirs: Finish, ours: Finish) -> str:
    return f"the file declares the finish {theirs}, the inspection {ours}; say --finish file or --finish inspection"


def _choose(found: FilmFile, survey: str | None) -> str:
    ids = found.survey_ids()
    if survey is not None:
        if survey not in ids:
            _fail(*found.bad, f"the file has no good row of survey “{survey}”; it holds {', '.join(ids) or 'none'}")
        return survey
    if len(ids) > 1:
        _fail(*found.bad, f"the file holds {len(ids)} surveys; name one with --survey: {', '.join(ids[:20])}")
    return ids[0] if ids else ""


@gauges.command("simulate")
def simulate_gauge(
    car: Annotated[str, typer.Option(help="A car that ships (strand, lantern, fell), or any name: it is the seed.")],
    port: Annotated[int, typer.Option(min=0, max=65535, help="Port on loopback; 0 takes a free one.")] = 0,
    style: Annotated[str | None, typer.Option(help="Body style, where the car is not one that ships.")] = None,
    doors: Annotated[int | None, typer.Option(help="Number of doors, likewise.")] = None,
    until_stdin_closes: Annotated[bool, typer.Option("--until-stdin-closes", help="End with its owner.")] = False,
) -> None:
    """Measure a simulated painted car: the line protocol of docs/format.md on a loopback port."""
    from hakutsu.instruments.gauge_stand_in import StandIn, serve_stand_in

    try:
        stand_in = StandIn(car, style, doors)
    except KeyError as error:
        _fail(f"no body of style {style} with {doors} doors: {error}")
    try:
        serve_stand_in(stand_in, port, _announce_gauge, until_stdin_closes=until_stdin_closes)
    except OSError as error:
        _fail(f"port {port} on {LOOPBACK} cannot be used ({error.strerror}); choose another with --port", code=1)


def _announce_gauge(port: int) -> None:
    print(f"stand-in gauge at socket://{LOOPBACK}:{port}", flush=True)


@scans.command("simulate")
def simulate_scan(
    engine: Annotated[str, typer.Option(help="healthy, stuck_open, overheating, hunting or rough.")] = "healthy",
    fast: Annotated[float, typer.Option(min=0.1, max=600, help="How much faster than the clock its time runs.")] = 1.0,
    port: Annotated[int, typer.Option(min=0, max=65535, help="Port on loopback; 0 takes a free one.")] = 0,
    until_stdin_closes: Annotated[bool, typer.Option("--until-stdin-closes", help="End with its owner.")] = False,
) -> None:
    """Let a simulated engine idle behind a simulated adapter: live data of docs/format.md on a loopback port."""
    from hakutsu.instruments.diagnostic.stand_in import Engine, engines, serve_engine

    if engine not in engines():
        _fail(f"no engine “{engine}” ships; there are {', '.join(engines())}")
    try:
        serve_engine(Engine(engine, fast), port, _announce_scan, until_stdin_closes=until_stdin_closes)
    except OSError as error:
        _fail(f"port {port} on {LOOPBACK} cannot be used ({error.strerror}); choose another with --port", code=1)


def _announce_scan(port: int) -> None:
    print(f"stand-in adapter at socket://{LOOPBACK}:{port}", flush=True)


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
    except (DirectoryInUse, AddressTaken) as error:
        _fail(f"hakutsu: {error}", code=1)


def main() -> None:
    """Entry point of the command `hakutsu`."""
    app()
