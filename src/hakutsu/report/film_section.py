"""The report's section on paint film: what was measured, what needs words, what was not measured and why."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from hakutsu.core.film import Concern, Judged, PanelFilm, School, State, Surprise, ZoneStory, own_words
from hakutsu.core.film.by_hand import Workmanship
from hakutsu.dossier import Covered
from hakutsu.figures.film_profile import column_numbers
from hakutsu.reckoning import Reckoning
from hakutsu.report.film_drawings import (
    baseline_words,
    panel_rows,
    profile_panels,
    profile_svg,
    sheet_panels,
    sheet_svg,
)
from hakutsu.report.sections import Making, report_section
from hakutsu.vehicle.units import show
from hakutsu.vehicle.vocabulary import Unit

LIKELY_ZONE = 0.5
OTHER = {Unit.UM: Unit.MIL, Unit.MIL: Unit.UM}


@dataclass(frozen=True, slots=True)
class FilmRow:
    """One measured panel in the report's table."""

    name: str
    film: PanelFilm
    numbers: str
    median: str
    median_other: str


@dataclass(frozen=True, slots=True)
class Missing:
    """A panel that was not measured, or less than planned, and why."""

    name: str
    why: str


@dataclass(frozen=True, slots=True)
class FilmSection:
    """Everything the section says."""

    rows: list[FilmRow]
    noted: list[FilmRow]
    missing: list[Missing]
    open_repeats: list[Surprise]
    readings: int
    story: list[ZoneStory]
    gauge: str
    filled: dict[str, tuple[float, float]]
    warnings: tuple[str, ...]
    baseline: str
    profile: Markup
    sheet: Markup
    by_eye: list[tuple[str, PanelFilm]]
    apart: list[tuple[str, dict[School, Judged]]]
    simulated: int
    own: str
    work: list[tuple[str, Workmanship]]


def film_section(reckoning: Reckoning) -> FilmSection:
    """Gather the section from a reckoning."""
    dossier, unit = reckoning.dossier, reckoning.terms.film
    rows, missing, drawn = [], [], panel_rows(reckoning)
    for coverage in dossier.film_coverage():
        film = reckoning.film.analysis.panel(coverage.panel)
        name = reckoning.terms.panel(coverage.panel)
        if film is not None and film.readings and film.median_um is not None:
            read = reckoning.film.observations_on(coverage.panel)
            rows.append(
                FilmRow(name, film, column_numbers(read, unit), show(film.median_um, unit),
                        show(film.median_um, OTHER[unit]))
            )  # fmt: skip
        if dossier.film.without_gauge and not coverage.taken:
            continue
        why = _why(coverage.state, coverage.taken, coverage.expected, coverage.because)
        if why:
            missing.append(Missing(name, why))
    if dossier.film.without_gauge:
        missing.insert(0, Missing("Film of the whole vehicle", f"not measured: {dossier.film.without_gauge[1]}"))
    return FilmSection(
        rows,
        [row for row in rows if _needs_words(row.film)],
        missing,
        reckoning.film.analysis.open_surprises,
        sum(row.film.readings for row in rows),
        [zone for zone in reckoning.film.analysis.story if zone.probability >= LIKELY_ZONE],
        str(reckoning.film.gauge_verified),
        {
            reckoning.terms.panel(key): area
            for key in dossier.vehicle.panel_keys()
            if (area := reckoning.film.filled_area(key))
        },
        reckoning.film.analysis.warnings,
        baseline_words(reckoning),
        profile_svg(reckoning, profile_panels(reckoning, drawn, linked=False)),
        sheet_svg(reckoning, sheet_panels(reckoning, drawn, linked=False), advised=False),
        _by_eye(reckoning),
        [(reckoning.terms.panel(key), judged) for key, judged in reckoning.film.schools_apart.items()],
        reckoning.film.simulated,
        _own(reckoning),
        [(reckoning.terms.panel(key), graded) for key, (_, graded) in reckoning.film.workmanship.items()],
    )


def _own(reckoning: Reckoning) -> str:
    """The inspector's own vehicles that the film was compared with, in words; empty where it was not."""
    taken = reckoning.film.survey.own_vehicles if reckoning.film.model.own else ()
    return own_words(taken, "the inspector’s own", reckoning.terms) if taken else ""


def _by_eye(reckoning: Reckoning) -> list[tuple[str, PanelFilm]]:
    """Panels judged by magnet and eye alone, no gauge reading."""
    return [
        (reckoning.terms.panel(film.panel), film)
        for film in reckoning.film.analysis.panels
        if film.probabilities and not film.readings and film.words != "not read" and not film.not_measurable
    ]


def _needs_words(film: PanelFilm) -> bool:
    concern = film.judged is not None and film.judged.concern is not Concern.NONE
    return film.state is not State.ORIGINAL or not film.settled or concern


def _why(state: Covered, taken: int, expected: int, because: str) -> str:
    if state is Covered.LIMITED:
        return f"could not be checked: {because}"
    if state is Covered.NOTHING_TO_READ:
        return because or "looked at; nothing there that a gauge can read"
    if state is Covered.OPEN and not taken:
        return "not read"
    if state is Covered.OPEN:
        return f"{taken} of {expected} planned readings taken"
    return ""


@report_section("film", 20, "_film.html", kept=True)
def _film(making: Making) -> FilmSection:
    """The film, with what was not measured and why."""
    return film_section(making.reckoning)
