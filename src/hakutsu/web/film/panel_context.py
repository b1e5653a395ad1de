"""What the film station shows of the panel in hand: reasons, spots, readings, cues, covers; and where to read next."""

from __future__ import annotations

import json
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from hakutsu.core.film import STATES, Judged, School, cue_groups, cue_kinds, magnet_names
from hakutsu.core.film.by_hand import WORK_WORDS, WorkPart
from hakutsu.dossier import KeptReading
from hakutsu.entries.film import VerifiedWhen
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.film import bits_between
from hakutsu.report.wording import noted, reading_words
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.protocol import planned_spots, spot_pattern, spot_words
from hakutsu.vehicle.units import show
from hakutsu.vehicle.vocabulary import CoverKind, Work
from hakutsu.web.film.aiming import near

TOLD_FROM = 0.05
LIGHTS = ("daylight", "sun", "lamp", "shade")


@dataclass(frozen=True, slots=True)
class Spot:
    """One spot of a panel's pattern: its place in words, whether it was read and whether the protocol wants it."""

    u: float
    v: float
    words: str
    read: bool
    wanted: bool


@dataclass(frozen=True, slots=True)
class CueRow:
    """One cue: looked for or not, there or not, and how it moved the chance that the panel was painted again."""

    key: str
    name: str
    entry: UUID | None
    there: bool | None
    light: str
    note: str
    before: float | None
    after: float | None

    @property
    def bits(self) -> float:
        """How far the cue moved the log2 odds [bits]."""
        if self.before is None or self.after is None:
            return 0.0
        return bits_between(self.before, self.after)


def panel_context(reckoning: Reckoning, key: str) -> dict[str, Any]:
    """Everything about one panel."""
    film = reckoning.dossier.film
    surprise = next((s for s in reckoning.film.analysis.open_surprises if s.observation.panel == key), None)
    spots = panel_spots(reckoning, key)
    result = reckoning.film.analysis.panel(key)
    weights = result.weights if result else None
    return {
        "states": STATES,
        "surprise": surprise,
        "readings": [_reading_line(reading, reckoning) for reading in film.on_panel(key)],
        "notes": noted(reckoning.dossier, lambda place: place == key),
        "limit_entry": film.limits.get(key, (None, ""))[0],
        "nothing_entry": film.nothing.get(key),
        "spots": spots,
        "spots_json": json.dumps([[spot.u, spot.v, spot.words] for spot in spots if not spot.read and spot.wanted]),
        "cues": cue_rows(reckoning, key),
        "cues_looked": len(film.cues_on(key)),
        "lights": LIGHTS,
        "magnet_names": magnet_names(),
        "magnets": [kept for kept in film.magnets if kept.panel == key],
        "cover": film.covers.get(key),
        "reflection": film.reflections.get(key),
        "mapped": film.mapped.get(key),
        "work": film.workmanship.get(key),
        "graded": reckoning.film.workmanship.get(key, (None, None))[1],
        "work_parts": [(part.value, part.value.capitalize()) for part in WorkPart],
        "work_words": lambda part: [(grade.value, WORK_WORDS[WorkPart(part), grade]) for grade in Work],
        "cover_kinds": list(CoverKind),
        "filled_cm2": reckoning.film.filled_area(key),
        "weights": weights,
        "verified_lines": verified_lines(reckoning),
        "story": reckoning.film.analysis.story,
        "told": [zone for zone in reckoning.film.analysis.story if zone.probability >= TOLD_FROM],
        "untold": [zone for zone in reckoning.film.analysis.story if zone.probability < TOLD_FROM],
    }


def panel_spots(reckoning: Reckoning, key: str) -> list[Spot]:
    """The panel's spot pattern; readings without position count for its first spots."""
    panel = panels()[key]
    read = [r.body for r in reckoning.dossier.film.on_panel(key) if not r.body.edge]
    placed = [(body.u, body.v) for body in read if body.u is not None and body.v is not None]
    unplaced = sum(body.u is None and body.retest_of is None for body in read)
    wanted = planned_spots(panel, reckoning.dossier.opening.brief.protocol)
    found = []
    for spot in spot_pattern(panel):
        taken = any(near(spot, place) for place in placed)
        if not taken and unplaced:
            taken, unplaced = True, unplaced - 1
        found.append(Spot(*spot, spot_words(panel, *spot), taken, spot in wanted))
    return found


def verified_lines(reckoning: Reckoning) -> list[tuple[str, UUID]]:
    """What each verification gave, in words, with its entry."""
    unit = reckoning.terms.film
    found = []
    for fit, (when, kept) in zip(
        [fit for fit in reckoning.film.gauge_fits if fit is not None],
        sorted(reckoning.dossier.film.verifications.items(), key=lambda one: one[0] is VerifiedWhen.END),
        strict=True,
    ):
        sign = "+" if fit.offset_um >= 0 else "−"
        words = f"At the {when}: offset {sign}{show(abs(fit.offset_um), unit)}, gain {fit.gain:.3f}"
        found.append((f"{words}, {len(kept.body.checks)} checks.", kept.entry))
    return found


def _reading_line(reading: KeptReading, reckoning: Reckoning) -> dict[str, Any]:
    surprise = next((s for s in reckoning.film.analysis.surprises if s.observation.key == reading.entry), None)
    body = reading.body
    panel = reckoning.film.analysis.panel(reading.panel)
    seen = next((o for o in reckoning.film.observations_on(reading.panel) if o.key == reading.entry), None)
    spot = panel.verdict(seen) if panel and seen and not surprise else None
    where = "" if body.u is None or body.v is None else spot_words(panels()[reading.panel], body.u, body.v)
    return {
        "id": reading.entry,
        "words": reading_words(body, reckoning.terms.readings),
        "where": where,
        "verdict": surprise.verdict.value if surprise else spot.value if spot else "",
    }


def cue_rows(reckoning: Reckoning, key: str) -> list[tuple[str, list[CueRow]]]:
    """All cues by group, each as it stands on the panel."""
    kept = {one.body.cue: one for one in reckoning.dossier.film.cues_on(key)}
    effects = reckoning.film.cue_effects(key)
    found: dict[str, list[CueRow]] = {name: [] for name in cue_groups()}
    for kind in (one for one in cue_kinds().values() if not one.measured):
        one = kept.get(kind.key)
        before, after = effects.get(one.entry, (None, None)) if one else (None, None)
        there = one.body.there if one else None
        light, note = (one.body.light, one.body.note) if one else ("", "")
        row = CueRow(
            kind.key, reckoning.terms.say(kind.name), one.entry if one else None, there, light, note, before, after
        )
        found[kind.group].append(row)
    return [(cue_groups()[group], rows) for group, rows in found.items()]


def advised(reckoning: Reckoning) -> dict[str, Any] | None:
    """Where to read next, in words."""
    spot = reckoning.film.next_spot
    if spot is None:
        return None
    panel = panels()[spot.panel]
    return {"spot": spot, "name": reckoning.terms.panel(panel.key), "words": spot_words(panel, spot.u, spot.v)}


def schools_rows(reckoning: Reckoning) -> list[tuple[str, dict[School, Judged], bool]]:
    """Every panel read, as each school judges it, and whether they disagree."""
    apart = reckoning.film.schools_apart
    return [(reckoning.terms.panel(key), judged, key in apart) for key, judged in reckoning.film.schools.items()]
