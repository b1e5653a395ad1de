"""What the film station's templates show."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any

from markupsafe import Markup

from hakutsu.core.film import PanelFilm, State
from hakutsu.dossier import Covered, PanelCoverage
from hakutsu.entries.film import MOST_UM
from hakutsu.figures.blemishes import blemish_marks
from hakutsu.figures.film_profile import ProfilePanel, column_numbers, film_profile
from hakutsu.figures.shell_sheet import LAYERS, SheetPanel, positions, shell_sheet
from hakutsu.reckoning import Reckoning
from hakutsu.report.body_section import sheet_marks
from hakutsu.report.wording import reading_words
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.shell import shell
from hakutsu.vehicle.units import show
from hakutsu.web.film.panel_context import advised, panel_context
from hakutsu.web.rendering import fragment

FRAGMENTS = ("drawing", "panels", "panel", "glance", "left", "story", "verified")
PROFILE, SHEET = "profile", "sheet"
NOT_READ = "not read"
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
    def state(self) -> State | None:
        """The likeliest state, none where nothing says anything of this panel."""
        return self.film.state if self.film and self.film.words != NOT_READ and not self.film.not_measurable else None

    @property
    def words(self) -> str:
        """The state in words."""
        return self.film.words if self.film else NOT_READ

    @property
    def is_open(self) -> bool:
        """True while the protocol wants more here."""
        return self.coverage.state is Covered.OPEN


def panel_rows(reckoning: Reckoning) -> list[PanelRow]:
    """All fitted panels in walk order."""
    analysis = reckoning.film.analysis
    wanted = [surprise.observation.panel for surprise in analysis.open_surprises]
    return [
        PanelRow(c.panel, panels()[c.panel].code, reckoning.terms.panel(c.panel), c, analysis.panel(c.panel),
                 wanted.count(c.panel))
        for c in reckoning.dossier.film_coverage()
    ]  # fmt: skip


def profile_panels(reckoning: Reckoning, rows: list[PanelRow], *, linked: bool) -> list[ProfilePanel]:
    """The panels of the film profile; with `linked` each leads to itself on the film station."""
    found = []
    for row in rows:
        read = reckoning.film.observations_on(row.key)
        if not read and not row.coverage.expected:
            continue
        href = f"?panel={row.key}" if linked else None
        found.append(ProfilePanel(row.key, row.code, row.name, row.state, row.words, read, row.coverage.because, href))
    return found


def sheet_panels(reckoning: Reckoning, rows: list[PanelRow], *, linked: bool) -> list[SheetPanel]:
    """The panels of the shell sheet."""
    return [
        SheetPanel(
            row.key, row.code, row.name, row.state, row.words, reckoning.film.observations_on(row.key),
            row.film.filled_share if row.film else None, row.film.filler_map if row.film else None,
            f"?panel={row.key}" if linked else None,
        )
        for row in rows
    ]  # fmt: skip


def sheet_svg(
    reckoning: Reckoning, shown: list[SheetPanel], current: str | None = None, *, advised: bool = True
) -> Markup:
    """The shell sheet as markup, with the spot to read next where that is advised."""
    vehicle, base, terms = reckoning.dossier.vehicle, reckoning.film.analysis.baseline, reckoning.terms
    patches = shell(vehicle.body_style, vehicle.doors, tuple(vehicle.panel_keys()))
    return Markup(
        shell_sheet(
            shown, patches, reckoning.terms.film, baseline_um=base.median if base else None,
            current=current, spot=reckoning.film.next_spot if advised else None,
            marks=blemish_marks(sheet_marks(reckoning), patches), sides=(terms.side("left"), terms.side("right")),
        )
    )  # fmt: skip


def profile_svg(reckoning: Reckoning, shown: list[ProfilePanel], current: str | None = None) -> Markup:
    """The film profile as markup."""
    return Markup(film_profile(shown, reckoning.film.analysis.baseline, reckoning.terms.film, current=current))


def film_context(reckoning: Reckoning, wanted: str | None, drawing: str = PROFILE) -> dict[str, Any]:
    """Everything the film station's templates show."""
    dossier, terms = reckoning.dossier, reckoning.terms
    rows = panel_rows(reckoning)
    current = next((row for row in rows if row.key == wanted), None)
    current = current or next((row for row in rows if row.is_open), rows[0])
    place = rows.index(current)
    last = dossier.film.readings[-1] if dossier.film.readings else None
    counted = [row for row in rows if row.coverage.expected or row.coverage.state is Covered.LIMITED]
    gauge = dossier.film.gauge
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
        "unit": gauge.unit,
        "terms": terms,
        "verification": reckoning.film.gauge_verified,
        "usual_limits": USUAL_LIMITS,
        "layers": LAYERS,
        "advised": advised(reckoning),
        **_drawing(reckoning, rows, current, drawing),
        **panel_context(reckoning, current.key),
    }


def _drawing(reckoning: Reckoning, rows: list[PanelRow], current: PanelRow, drawing: str) -> dict[str, Any]:
    """The drawing that is shown, with its numbers: the profile or the shell sheet."""
    unit = reckoning.terms.film
    if drawing == SHEET:
        on_sheet = sheet_panels(reckoning, rows, linked=True)
        numbers = [(panel, positions(panel.observations, unit)) for panel in on_sheet]
        return {"drawing": SHEET, "picture": sheet_svg(reckoning, on_sheet, current.key), "numbers": numbers}
    shown = profile_panels(reckoning, rows, linked=True)
    columns = [(panel, column_numbers(panel.observations, unit)) for panel in shown]
    return {"drawing": PROFILE, "picture": profile_svg(reckoning, shown, current.key), "numbers": columns}


def film_fragments(reckoning: Reckoning, panel: str | None, drawing: str = PROFILE) -> dict[str, str]:
    """The film station's moving parts, for swapping in place."""
    context = film_context(reckoning, panel, drawing)
    return {name: fragment(f"film/_{name}.html", **context) for name in FRAGMENTS}


def station_config(reckoning: Reckoning) -> str:
    """What the capture script must know: codes in walk order, the gauge, and where numbers become doubtful."""
    gauge = reckoning.dossier.film.gauge
    rows = panel_rows(reckoning)
    return json.dumps({
        "inspection": str(reckoning.dossier.inspection),
        "panels": [{"key": row.key, "code": row.code, "name": row.name} for row in rows],
        "codes": {panel.code: reckoning.terms.panel(key) for key, panel in panels().items()},
        "gauge": {"unit": gauge.unit, "step_um": gauge.step_um, "limit_um": gauge.limit_um},
        "doubt": {"um_below": 20, "mil_above": 30, "most_um": MOST_UM},
    })  # fmt: skip


def baseline_words(reckoning: Reckoning) -> str:
    """The car's baseline in one sentence."""
    base, unit = reckoning.film.analysis.baseline, reckoning.terms.film
    if base is None:
        return "No baseline yet: read at least two panels."
    kind = "this car’s own film" if base.kind == "factory" else "a respray of the whole car"
    interval = f"{show(base.low, unit, with_unit=False)} to {show(base.high, unit)}"
    corrected = " Readings are drawn as corrected by the verification." if any(reckoning.film.gauge_fits) else ""
    return f"Baseline {show(base.median, unit)} ({interval}, 80 % interval): {kind}.{corrected}"
