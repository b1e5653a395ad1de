"""The report: every section in its order, as a part of a page or as a document of its own."""

from __future__ import annotations

from importlib.resources import files
from typing import Any

from markupsafe import Markup

from hakutsu.report.rendering import environment
from hakutsu.report.sections import Making, is_empty, report_sections


def report_context(making: Making) -> dict[str, Any]:
    """Everything the report's templates show."""
    reckoning = making.reckoning
    looked = [entry for entry in reckoning.dossier.entries if not entry.kind.startswith("inspection.")]
    built = {one.key: one.built(making) for one in report_sections()}
    auction = reckoning.dossier.opening.brief.auction
    return built | {
        "sections": [one for one in report_sections(auction=auction) if not is_empty(built[one.key])],
        "dossier": reckoning.dossier,
        "finished": reckoning.dossier.opening.stage.done,
        "vehicle": reckoning.dossier.vehicle,
        "brief": reckoning.dossier.opening.brief,
        "terms": reckoning.terms,
        "rules": reckoning.rules,
        "authors": sorted({entry.by for entry in looked}),
        "days": sorted({f"{reckoning.terms.local(entry.at):%-d %B %Y}" for entry in looked}),
        "made": making.now,
        "integrity": making.integrity,
    }


def report_html(making: Making) -> str:
    """The report as one document: nothing in it is fetched from anywhere."""
    style = (files("hakutsu.report") / "data" / "report.css").read_text(encoding="utf-8")
    return environment.get_template("document.html").render(style=Markup(style), **report_context(making))
