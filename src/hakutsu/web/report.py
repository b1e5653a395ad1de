"""The report page."""

from __future__ import annotations

from fastapi import APIRouter, Request
from fastapi.responses import Response

from hakutsu.report.body_section import outside_section
from hakutsu.report.brief_section import purpose_lines
from hakutsu.report.cabin_section import cabin_section
from hakutsu.report.condition_section import condition_section
from hakutsu.report.corners_section import corners_section
from hakutsu.report.engine_section import engine_section
from hakutsu.report.film_section import film_section
from hakutsu.report.follow_up_section import limit_lines, not_fitted_lines, remark_lines
from hakutsu.report.functions_section import functions_section
from hakutsu.report.integrity_section import integrity_line
from hakutsu.report.life_section import life_section
from hakutsu.report.round_section import answered_questions, hazard_lines, open_questions
from hakutsu.report.under_section import under_section
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.film.context import (
    baseline_words,
    panel_rows,
    profile_panels,
    profile_svg,
    sheet_panels,
    sheet_svg,
)
from hakutsu.web.pictures.context import report_pictures
from hakutsu.web.rendering import page

router = APIRouter()


@router.get("/inspections/{inspection}/report")
def show_report(request: Request, reckoning: ReckoningHere, desk: DeskHere) -> Response:
    """The report as a page that prints on A4."""
    return page(
        request,
        "report.html",
        dossier=reckoning.dossier,
        vehicle=reckoning.dossier.vehicle,
        brief=reckoning.dossier.opening.brief,
        purpose=purpose_lines(reckoning.dossier.opening.brief, reckoning.terms),
        claims=[claim for _, claim in reckoning.dossier.claims.said],
        section=film_section(reckoning),
        baseline_words=baseline_words(reckoning),
        profile=profile_svg(reckoning, profile_panels(reckoning, panel_rows(reckoning), linked=False)),
        sheet=sheet_svg(reckoning, sheet_panels(reckoning, panel_rows(reckoning), linked=False), advised=False),
        reckoned=reckoning.film.analysis,
        unit=reckoning.terms.film,
        outside=outside_section(reckoning),
        corners=corners_section(reckoning),
        engine=engine_section(reckoning),
        cabin=cabin_section(reckoning),
        condition=condition_section(reckoning),
        under=under_section(reckoning),
        functions=functions_section(reckoning),
        life=life_section(reckoning),
        pictures=report_pictures(reckoning),
        notes=remark_lines(reckoning, desk.now()),
        limits=limit_lines(reckoning),
        not_fitted=not_fitted_lines(reckoning),
        limitations=reckoning.limitations,
        hazards=hazard_lines(reckoning),
        questions=open_questions(reckoning),
        answered=answered_questions(reckoning),
        terms=reckoning.terms,
        rules=reckoning.rules,
        made=desk.now(),
        integrity=integrity_line(reckoning, desk.integrity.check(reckoning.dossier.inspection, desk.now())),
        tab="report",
    )
