"""From a film file to drafts for one inspection: what would be stored, what stands in the way, what is asked."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field
from datetime import datetime
from uuid import UUID, uuid5

from hakutsu.dossier import Dossier
from hakutsu.entries import Draft
from hakutsu.entries.film import Imported, Reading, Source
from hakutsu.entries.opening import Vehicle
from hakutsu.exchange.film_csv import BadRow, FilmFile, Row
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.vehicle.vocabulary import Finish

MOST_FILE_ROWS = 20_000  # of all surveys in a file
MOST_ROWS = 5_000  # of one vehicle: a full pattern has a few hundred
ROWS = UUID("7c1f8f4e-0a86-4a8e-9d5c-6a1f5f1e2b11")


@dataclass(frozen=True)
class FilmImport:
    """An import looked at before it happens.

    `new` are the rows that would be stored, `known` those already in the logbook, `bad` every fault of the file that
    touches this survey or the file as a whole, and panels this vehicle lacks. `finish_conflict` is the file's finish
    where it differs from the inspection's.
    """

    survey: str
    new: list[Row]
    known: list[Row]
    bad: list[BadRow]
    remarks: list[str]
    finish_conflict: Finish | None
    other_surveys: list[str] = field(default_factory=list)


def plan_import(file: FilmFile, survey: str, dossier: Dossier, sha256: str, terms: Terms = PLAIN) -> FilmImport:
    """Say what importing a survey would do. Nothing is stored."""
    fitted = dossier.vehicle.panel_keys()
    ids = {entry.id for entry in dossier.entries} - dossier.struck
    new, known, bad = [], [], list(file.bad)
    for row in (row for row in file.rows if row.survey == survey):
        if row.observation.panel not in fitted:
            bad.append(BadRow(row.row, "panel", row.observation.panel, "this vehicle has no such panel: not fitted"))
        elif _row_id(dossier, sha256, row) in ids:
            known.append(row)
        else:
            new.append(row)
    if len(new) > MOST_ROWS:
        bad.append(BadRow(new[MOST_ROWS].row, "survey", survey, f"more than {MOST_ROWS:,} rows of one vehicle"))
        new = []
    finish = file.finish(survey) if survey in file.survey_ids() else dossier.vehicle.finish
    return FilmImport(
        survey,
        new,
        known,
        sorted(bad, key=lambda b: b.row),
        [*file.remarks, *_substrates(new, dossier, terms)],
        finish if finish is not dossier.vehicle.finish else None,
        [other for other in file.survey_ids() if other != survey],
    )


def _substrates(rows: Iterable[Row], dossier: Dossier, terms: Terms) -> list[str]:
    said = {}
    for row in rows:
        panel, there = row.observation.panel, row.observation.substrate
        here = dossier.vehicle.substrate(panel)
        if there.is_metal and here is not there:
            said[panel] = f"{terms.panel(panel)}: the file says {there}, the inspection {here}"
    return list(said.values())


def _row_id(dossier: Dossier, sha256: str, row: Row) -> UUID:
    """Id of a row's entry: the same file gives the same ids, unless the earlier entry was struck."""
    times = 0
    while (found := uuid5(ROWS, f"{dossier.inspection}/{sha256}/{row.row}/{times}")) in dossier.struck:
        times += 1
    return found


def import_drafts(
    plan: FilmImport, dossier: Dossier, at: datetime, *, name: str, sha256: str, take_finish: bool = False
) -> list[Draft]:
    """Drafts that store the plan's new rows; with `take_finish` the file's finish replaces the inspection's."""
    drafts = []
    if take_finish and plan.finish_conflict is not None:
        vehicle = dossier.vehicle.model_copy(update={"finish": plan.finish_conflict})
        drafts.append(Draft.write("inspection.vehicle", Vehicle(vehicle=vehicle), at))
    if not plan.new:
        return drafts
    summary = Imported(file=name, sha256=sha256, survey=plan.survey, rows=len(plan.new), left_out=len(plan.bad))
    drafts.append(Draft.write("film.imported", summary, at))
    for row in plan.new:
        o = row.observation
        body = Reading(
            value_um=o.value_um,
            status=o.status,
            u=o.u,
            v=o.v,
            unit=row.unit,
            step_um=o.step_um,
            limit_um=o.limit_um,
            substrate=o.substrate,
            edge=o.edge,
            simulated=o.simulated,
            source=Source.FILE,
        )
        drafts.append(Draft.write("film.reading", body, at, id=_row_id(dossier, sha256, row), place=o.panel))
    return drafts
