"""Film surveys: analysed, and stored in an inspection."""

from __future__ import annotations

import hashlib
import json
import sys
from datetime import UTC, datetime
from pathlib import Path
from typing import Annotated
from uuid import UUID

import typer
from rich.console import Console
from rich.table import Table

from hakutsu.cli.common import BAD_INPUT, DEFAULT_DATA, DataOption, app, fail, imports, logbook_at
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
from hakutsu.exchange.film_import import MOST_FILE_ROWS, import_drafts, plan_import
from hakutsu.exchange.film_json import film_json
from hakutsu.logbook import DataTrouble
from hakutsu.logbook.adding import Signed, checked
from hakutsu.logbook.importing import Arriving, NotAll, import_entries
from hakutsu.logbook.trouble import told
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.protocol import spot_words
from hakutsu.vehicle.terms import PLAIN
from hakutsu.vehicle.vocabulary import Finish

TOLD_FROM = 0.5


def _read(path: str) -> bytes:
    try:
        return sys.stdin.buffer.read() if path == "-" else Path(path).read_bytes()
    except OSError as error:
        fail(f"{path} cannot be read: {error.strerror}")


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
        fail("--band goes with --school fixed or --school restored")
    if band is not None and not 0 < band[0] < band[1]:
        fail("--band takes two thicknesses in µm, the lower one first, both above 0")
    found = read_film_csv(_read(file))
    if found.bad:
        fail(*found.bad)
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
        fail("--finish takes “file” or “inspection”")
    raw = _read(file)
    found = read_film_csv(raw, MOST_FILE_ROWS)
    logbook = logbook_at(data)
    with told(logbook.database):
        if not logbook.holds(inspection):
            fail(f"no inspection {inspection} in {data}")
    chosen = _choose(found, survey)
    sha256 = hashlib.sha256(raw).hexdigest()
    dossier = gather_dossier(inspection, *logbook.read(inspection))
    plan = plan_import(found, chosen, dossier, sha256)
    for bad in plan.bad:
        print(bad, file=sys.stderr)
    if plan.bad and not (accept_clean and plan.new):
        fail("nothing stored; --accept-clean stores the good rows" if plan.new else "nothing stored")
    if plan.finish_conflict is not None and finish is None:
        fail(_conflict(plan.finish_conflict, dossier.vehicle.finish), "nothing stored")
    name = "standard input" if file == "-" else Path(file).name
    drafts = import_drafts(plan, dossier, datetime.now(UTC), name=name, sha256=sha256, take_finish=finish == "file")
    looked_at = checked(Signed(draft, logbook.account or "command line") for draft in drafts)
    try:
        with told(logbook.database):
            import_entries(logbook, Arriving(inspection, datetime.now(UTC)), looked_at)
    except (NotAll, DataTrouble) as error:
        fail(f"nothing stored: {error}")
    for remark in plan.remarks:
        print(remark, file=sys.stderr)
    print(f"{len(plan.new)} readings stored, {len(plan.known)} were there already, {len(plan.bad)} rows left out")
    if plan.bad:
        raise typer.Exit(BAD_INPUT)


def _conflict(theirs: Finish, ours: Finish) -> str:
    return f"the file declares the finish {theirs}, the inspection {ours}; say --finish file or --finish inspection"


def _choose(found: FilmFile, survey: str | None) -> str:
    ids = found.survey_ids()
    if survey is not None:
        if survey not in ids:
            fail(*found.bad, f"the file has no good row of survey “{survey}”; it holds {', '.join(ids) or 'none'}")
        return survey
    if len(ids) > 1:
        fail(*found.bad, f"the file holds {len(ids)} surveys; name one with --survey: {', '.join(ids[:20])}")
    return ids[0] if ids else ""
