"""An inspection opens here: what to do next, what is known so far, what is left by phase."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response

from hakutsu.reckoning import Reckoning
from hakutsu.report.film_drawings import baseline_words, panel_rows, profile_panels, profile_svg
from hakutsu.report.finding_wording import named_words
from hakutsu.report.life_section import rough_money, sheet_table
from hakutsu.vehicle.vocabulary import Consequence
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.next_step import next_step
from hakutsu.web.rendering import page
from hakutsu.web.station import ways

router = APIRouter()
NAMED = 5  # of each consequence, so many are named and the others counted
TOLD = (Consequence.WALK_AWAY, Consequence.SETTLE, Consequence.BUDGET)


@dataclass(frozen=True, slots=True)
class KnownGroup:
    """Findings that ask for the same: what, how many, the first of them in words with the page that shows them."""

    name: str
    count: int
    first: tuple[str, ...]
    more: int
    grave: bool


def known(reckoning: Reckoning) -> list[KnownGroup]:
    """Findings by what they ask for, the gravest first; the rest is counted."""
    groups = []
    for asked in TOLD:
        mine = [one for one in reckoning.findings if one.consequence is asked and not one.excused]
        if mine:
            words = tuple(named_words(one, reckoning.terms) for one in mine[:NAMED])
            groups.append(KnownGroup(str(asked), len(mine), words, len(mine) - len(words), mine[0].settles))
    return groups


def overview_context(reckoning: Reckoning, now: datetime) -> dict[str, Any]:
    """Everything the overview shows."""
    dossier, terms = reckoning.dossier, reckoning.terms
    rows = panel_rows(reckoning)
    read = any(row.film is not None and row.film.readings for row in rows)
    *_, three = reckoning.lives.spending
    return {
        "dossier": dossier,
        "terms": terms,
        "next": next_step(reckoning, now),
        "known": known(reckoning),
        "others": sum(one.consequence not in TOLD and not one.excused for one in reckoning.findings),
        "profile": profile_svg(reckoning, profile_panels(reckoning, rows, linked=False)) if read else "",
        "baseline": baseline_words(reckoning),
        "table": sheet_table(reckoning.lives.sheet, terms),
        "spending": rough_money(round(three.p50, -2), reckoning.lives.sheet.currency),
        "wide": bool(reckoning.lives.unknown),
        "phases": ways(dossier),
        "stand_downs": reckoning.stand_downs,
        "finished": dossier.opening.stage.done,
    }


@router.get("/inspections/{inspection}")
def overview(request: Request, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """The overview."""
    return page(request, "overview.html", tab="", **overview_context(reckoning, desk.now()))
