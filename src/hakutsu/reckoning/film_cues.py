"""The cues of eye and hand on each panel, from the film station, the outside, the underside and the engine bay."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping
from uuid import UUID

from hakutsu.core.body.cues import below_cues, body_cues
from hakutsu.core.film import CueLooked, cue_kinds, parameters
from hakutsu.core.film.by_hand import Workmanship, WorkPart, mapped_area, mapped_cue, reflection_cues, workmanship
from hakutsu.core.papers.dates import Cluster
from hakutsu.dossier import Dossier
from hakutsu.dossier.film import FilmDossier
from hakutsu.entries.engine import Bay
from hakutsu.vehicle.places import places

Cues = dict[str, list[CueLooked]]
DATES = "dates_later"


def date_cues(groups: Iterable[Cluster], later: Collection[str]) -> dict[str, dict[str, bool]]:
    """Panels within reach of a place whose parts are of one later date.

    Parameters
    ----------
    groups : marks of one date at one place
    later : names of the marks that are later than the build
    """
    found: dict[str, dict[str, bool]] = {}
    for one in groups:
        if one.place in places() and all(mark in later for mark in one.marks):
            for panel in places()[one.place].panels:
                found[panel] = {DATES: True}
    return found


def cues_looked(dossier: Dossier, *, bay: Bay | None, dated: Mapping[str, Mapping[str, bool]]) -> Cues:
    """Every cue by panel; what was said on the film station itself comes before what other stations saw or measured."""
    film, found = dossier.film, Cues()
    for cue in film.cues.values():
        if cue.body.cue in cue_kinds():
            found.setdefault(cue.panel, []).append(CueLooked(cue.body.cue, cue.body.there))
    seen = [
        (panel, CueLooked(key, there))
        for told in (
            body_cues(dossier.body),
            dated,
            below_cues({key: one.body for key, one in dossier.under.zones.items()}, bay),
        )
        for panel, cues in told.items()
        for key, there in cues.items()
    ]
    mine = set(dossier.vehicle.panel_keys())
    for panel, one in [*seen, *hand_cues(film)]:
        if panel in mine and one.kind not in {other.kind for other in found.get(panel, ())}:
            found.setdefault(panel, []).append(one)
    return found


def hand_cues(film: FilmDossier) -> list[tuple[str, CueLooked]]:
    """What was measured by eye and hand on the film station."""
    distances = {panel: one.body.distance_cm for panel, one in film.reflections.items()}
    mapped = {panel: mapped_cue(one.body.length_cm, one.body.width_cm) for panel, one in film.mapped.items()}
    return [*reflection_cues(distances, parameters()).items(), *mapped.items()]


def mapped_shares(film: FilmDossier, area_cm2: Callable[[str], float | None]) -> dict[str, float]:
    """Share of each panel that a repair mapped by hand covers; `area_cm2` is a panel's own, where it is fitted."""
    found = {}
    for panel, one in film.mapped.items():
        whole = area_cm2(panel)
        if whole:
            found[panel] = min(mapped_area(one.body.length_cm, one.body.width_cm) / whole, 1.0)
    return found


def workmanship_of(film: FilmDossier) -> dict[str, tuple[UUID, Workmanship]]:
    """The grade of each panel's workmanship, with its entry."""
    found = {}
    for panel, one in film.workmanship.items():
        parts = {part: grade for part in WorkPart if (grade := getattr(one.body, part.value)) is not None}
        if (graded := workmanship(parts)) is not None:
            found[panel] = (one.entry.id, graded)
    return found
