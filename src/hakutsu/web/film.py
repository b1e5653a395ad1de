"""The film station: readings in, profile and states out."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from typing import Any
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import PlainTextResponse, Response
from markupsafe import Markup

from hakutsu.core.film import STATES, PanelFilm
from hakutsu.dossier import Covered, KeptReading, PanelCoverage
from hakutsu.entries.film import MOST_UM
from hakutsu.exchange.film_csv import write_film_csv
from hakutsu.figures.film_profile import ProfilePanel, column_numbers, film_profile
from hakutsu.reckoning import Reckoning, observation
from hakutsu.report.wording import noted, reading_words
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.units import show
from hakutsu.vehicle.vocabulary import Unit
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.rendering import fragment, page

router = APIRouter()
FRAGMENTS = ("profile", "panels", "panel", "glance", "left")
USUAL_LIMITS = ("wrapped or filmed over", "wet or dirty", "covered or not reachable", "gauge does not read it")


@dataclass(frozen=True, slots=True)
class PanelRow:
    """One panel as the film station shows it."""

    key: str
    code: str
    name: str
    coverage: PanelCoverage
    film: PanelFilm | None
    retests: int

    @property
    def count(self) -> str:
        """Readings taken against expected; a dash where none is wanted and none was taken."""
        if not self.coverage.expected and not self.coverage.taken:
            return "–"
        return f"{self.coverage.taken}/{self.coverage.expected}" if self.coverage.expected else f"{self.coverage.taken}"

    @property
    def where(self) -> str:
        """The spot pattern in words."""
        panel = panels()[self.key]
        if panel.size == "small":
            return "In the middle, then towards both ends"
        return "At the centre and the quarters" + (", and once near the low edge" if panel.plane == "flank" else "")

    @property
    def is_open(self) -> bool:
        """True while the protocol wants more here."""
        return self.coverage.state is Covered.OPEN


def panel_rows(reckoning: Reckoning) -> list[PanelRow]:
    """All fitted panels in walk order."""
    wanted = [surprise.observation.panel for surprise in reckoning.film.open_surprises]
    return [
        PanelRow(c.panel, panels()[c.panel].code, panels()[c.panel].name(), c, reckoning.film.panel(c.panel),
                 wanted.count(c.panel))
        for c in reckoning.dossier.film_coverage()
    ]  # fmt: skip


def profile_panels(reckoning: Reckoning, rows: list[PanelRow], *, linked: bool) -> list[ProfilePanel]:
    """The panels of the film profile; with `linked` each leads to itself on the film station."""
    dossier = reckoning.dossier
    found = []
    for row in rows:
        read = [observation(reading, dossier) for reading in dossier.film.on_panel(row.key)]
        if not read and not row.coverage.expected:
            continue
        state = row.film.state if row.film and row.film.readings else None
        words = row.film.words if row.film else "not read"
        href = f"?panel={row.key}" if linked else None
        found.append(ProfilePanel(row.key, row.code, row.name, state, words, read, row.coverage.because, href))
    return found


def profile_svg(reckoning: Reckoning, shown: list[ProfilePanel], current: str | None = None) -> Markup:
    """The film profile as markup."""
    return Markup(film_profile(shown, reckoning.film.baseline, reckoning.dossier.film.gauge.unit, current=current))


def _reading_line(reading: KeptReading, reckoning: Reckoning) -> dict[str, Any]:
    surprise = next((s for s in reckoning.film.surprises if s.observation.key == reading.entry), None)
    return {
        "id": reading.entry,
        "words": reading_words(reading.body),
        "verdict": surprise.verdict.value if surprise else "",
    }


def film_context(reckoning: Reckoning, wanted: str | None) -> dict[str, Any]:
    """Everything the film station's templates show."""
    dossier = reckoning.dossier
    rows = panel_rows(reckoning)
    current = next((row for row in rows if row.key == wanted), None)
    current = current or next((row for row in rows if row.is_open), rows[0])
    place = rows.index(current)
    surprise = next((s for s in reckoning.film.open_surprises if s.observation.panel == current.key), None)
    last = dossier.film.readings[-1] if dossier.film.readings else None
    counted = [row for row in rows if row.coverage.expected or row.coverage.state is Covered.LIMITED]
    gauge = dossier.film.gauge
    shown = profile_panels(reckoning, rows, linked=True)
    return {
        "dossier": dossier,
        "vehicle": dossier.vehicle,
        "analysis": reckoning.film,
        "rows": rows,
        "current": current,
        "back": rows[place - 1],
        "next": rows[(place + 1) % len(rows)],
        "states": STATES,
        "readings": [_reading_line(r, reckoning) for r in dossier.film.on_panel(current.key)],
        "notes": [(entry, words) for entry, words in noted(dossier) if entry.place == current.key],
        "baseline_words": baseline_words(reckoning),
        "surprise": surprise,
        "last": last,
        "last_words": f"{reading_words(last.body)} on {panels()[last.panel].name()}" if last else "",
        "done": sum(not row.is_open for row in counted),
        "expected": len(counted),
        "retests": len(reckoning.film.open_surprises),
        "gauge": gauge,
        "unit": gauge.unit,
        "usual_limits": USUAL_LIMITS,
        "limit_entry": dossier.film.limits.get(current.key, (None, ""))[0],
        "nothing_entry": dossier.film.nothing.get(current.key),
        "profile": profile_svg(reckoning, shown, current.key),
        "numbers": [(panel, column_numbers(panel.observations, gauge.unit)) for panel in shown],
    }


def film_fragments(reckoning: Reckoning, panel: str | None) -> dict[str, str]:
    """The film station's moving parts, for swapping in place."""
    context = film_context(reckoning, panel)
    return {name: fragment(f"film/_{name}.html", **context) for name in FRAGMENTS}


def station_config(reckoning: Reckoning) -> str:
    """What the capture script must know: codes in walk order, the gauge, and where numbers become doubtful."""
    gauge = reckoning.dossier.film.gauge
    rows = panel_rows(reckoning)
    return json.dumps({
        "inspection": str(reckoning.dossier.inspection),
        "panels": [{"key": row.key, "code": row.code, "name": row.name} for row in rows],
        "codes": {panel.code: panel.name() for panel in panels().values()},
        "gauge": {"unit": gauge.unit, "step_um": gauge.step_um, "limit_um": gauge.limit_um},
        "doubt": {"um_below": 20, "mil_above": 30, "most_um": MOST_UM},
    })  # fmt: skip


@router.get("/inspections/{inspection}/film")
def film_station(request: Request, reckoning: ReckoningHere, panel: str | None = None) -> Response:
    """The station as a page."""
    context = film_context(reckoning, panel)
    codes = [p for p in panels().values() if p.side != "right"]
    return page(request, "film/station.html", config=station_config(reckoning), codes=codes, tab="film", **context)


@router.get("/inspections/{inspection}/film/fragments")
def fragments(reckoning: ReckoningHere, panel: str | None = None) -> dict[str, str]:
    """The moving parts alone, when another panel is chosen."""
    return film_fragments(reckoning, panel)


@router.get("/inspections/{inspection}/film.csv")
def film_csv(inspection: UUID, reckoning: ReckoningHere) -> Response:
    """The survey in the exchange format, in the gauge's unit.

    Readings at an edge stay here: the format has no word for them, and elsewhere they would pass for film of the panel.
    """
    survey = reckoning.film_survey
    open_film = replace(survey, observations=[o for o in survey.observations if not o.edge])
    text = write_film_csv([open_film], Unit(reckoning.dossier.film.gauge.unit))
    name = f"film-{str(inspection)[:8]}.csv"
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return PlainTextResponse(text, media_type="text/csv; charset=utf-8", headers=headers)


def baseline_words(reckoning: Reckoning) -> str:
    """The car's baseline in one sentence."""
    base, unit = reckoning.film.baseline, reckoning.dossier.film.gauge.unit
    if base is None:
        return "No baseline yet: read at least two panels."
    kind = "this car’s own film" if base.kind == "factory" else "a respray of the whole car"
    interval = f"{show(base.low, unit, with_unit=False)} to {show(base.high, unit)}"
    return f"Baseline {show(base.median, unit)} ({interval}, 80 % interval): {kind}."
