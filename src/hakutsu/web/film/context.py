"""What the film station's templates show."""

from __future__ import annotations

import json
from typing import Any

from markupsafe import Markup

from hakutsu.core.film import own_words
from hakutsu.core.film.tables import range_stops
from hakutsu.dossier import Covered
from hakutsu.dossier.variant import VariantDossier
from hakutsu.entries.film import MOST_UM
from hakutsu.figures.film_profile import column_numbers
from hakutsu.figures.shell_sheet import LAYERS, positions
from hakutsu.reckoning import Reckoning
from hakutsu.report.film_drawings import (
    PanelRow,
    baseline_words,
    panel_rows,
    profile_panels,
    profile_svg,
    sheet_panels,
    sheet_svg,
)
from hakutsu.report.wording import reading_words
from hakutsu.vehicle.panels import panels
from hakutsu.web.film.panel_context import advised, panel_context, schools_rows
from hakutsu.web.rendering import fragment

FRAGMENTS = ("drawing", "panels", "panel", "glance", "left", "story", "verified")
PROFILE, SHEET, SCHOOLS = "profile", "sheet", "schools"
USUAL_LIMITS = ("wrapped or filmed over", "wet or dirty", "covered or not reachable", "gauge does not read it")


def film_context(
    reckoning: Reckoning, wanted: str | None, drawing: str = PROFILE, shows: str | None = None
) -> dict[str, Any]:
    """Everything the film station's templates show; schools side by side only where they are opened."""
    dossier, terms = reckoning.dossier, reckoning.terms
    rows = panel_rows(reckoning)
    drawing = SHEET if dossier.film.without_gauge else drawing  # a profile of nothing shows nothing
    current = next((row for row in rows if row.key == wanted), None)
    current = current or next((row for row in rows if row.is_open), rows[0])
    place = rows.index(current)
    last = dossier.film.readings[-1] if dossier.film.readings else None
    counted = [row for row in rows if row.coverage.expected or row.coverage.state is Covered.LIMITED]
    gauge = dossier.film.gauge
    taken = reckoning.film.survey.own_vehicles
    return {
        "dossier": dossier,
        "vehicle": dossier.vehicle,
        "analysis": reckoning.film.analysis,
        "rows": rows,
        "current": current,
        "back": rows[place - 1],
        "next": rows[(place + 1) % len(rows)],
        "baseline_words": baseline_words(reckoning),
        "last": last,
        "last_words": f"{reading_words(last.body, terms.readings)} on {terms.panel(last.panel)}" if last else "",
        "done": sum(not row.is_open for row in counted),
        "expected": len(counted),
        "retests": len(reckoning.film.analysis.open_surprises),
        "gauge": gauge,
        "without_gauge": dossier.film.without_gauge,
        "unit": gauge.unit,
        "terms": terms,
        "verification": reckoning.film.gauge_verified,
        "own_words": own_words(taken, terms=terms) if reckoning.film.model.own else "",
        "left_out": bool(dossier.film.own_vehicles and dossier.film.own_vehicles.left_out),
        "usual_limits": USUAL_LIMITS,
        "layers": LAYERS,
        "advised": advised(reckoning),
        **_drawing(reckoning, rows, current, drawing),
        "schools": schools_rows(reckoning) if shows == SCHOOLS else None,
        "works_film": _works_film(reckoning),
        **panel_context(reckoning, current.key),
    }


def _works_film(reckoning: Reckoning) -> str:
    """What the library says its factory sprays; empty where no variant was taken."""
    taken = reckoning.dossier[VariantDossier].taken
    ends = taken.body.film_um if taken else None
    return " to ".join(reckoning.terms.film_words(one) for one in ends) if ends else ""


def _drawing(reckoning: Reckoning, rows: list[PanelRow], current: PanelRow, drawing: str) -> dict[str, Any]:
    """The drawing that is shown, with its numbers: the profile or the shell sheet."""
    unit = reckoning.terms.film
    if drawing == SHEET:
        return reckoning.memo.get(("film", SHEET, current.key), lambda: _sheet(reckoning, current.key))
    shown = profile_panels(reckoning, rows, linked=True)
    columns = [(panel, column_numbers(panel.observations, unit)) for panel in shown]
    return {"drawing": PROFILE, "picture": profile_svg(reckoning, shown, current.key), "numbers": columns}


def _sheet(reckoning: Reckoning, current: str) -> dict[str, Any]:
    """The shell sheet, wide and upright: kept by what is read here, for it is dear."""
    on_sheet = sheet_panels(reckoning, panel_rows(reckoning), linked=True)
    numbers = [(panel, positions(panel.observations, reckoning.terms.film)) for panel in on_sheet]
    ways = (sheet_svg(reckoning, on_sheet, current, upright=upright) for upright in (False, True))
    return {"drawing": SHEET, "picture": Markup("").join(ways), "numbers": numbers}


def film_fragments(
    reckoning: Reckoning, panel: str | None, drawing: str = PROFILE, shows: str | None = None
) -> dict[str, str]:
    """The film station's moving parts, for swapping in place."""
    context = film_context(reckoning, panel, drawing, shows)
    return {name: fragment(f"film/_{name}.html", **context) for name in FRAGMENTS}


def station_config(reckoning: Reckoning) -> str:
    """What the capture script must know: codes in walk order, the gauge, and where numbers become doubtful."""
    gauge = reckoning.dossier.film.gauge
    rows = panel_rows(reckoning)
    return json.dumps({
        "inspection": str(reckoning.dossier.inspection),
        "panels": [{"key": row.key, "code": row.code, "name": row.name} for row in rows],
        "codes": {panel.code: reckoning.terms.panel(key) for key, panel in panels().items()},
        "gauge": {
            "name": gauge.name, "unit": gauge.unit, "step_um": gauge.step_um, "limit_um": gauge.limit_um,
        },
        "doubt": {"um_below": 20, "mil_above": 30, "most_um": MOST_UM, "stops": range_stops()},
    })  # fmt: skip
