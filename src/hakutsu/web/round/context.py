"""What the pages of the round show."""

from __future__ import annotations

import json
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from markupsafe import Markup

from hakutsu.core.hazards import WALKING_PACE, Cause, StandDown, causes, headings
from hakutsu.core.limitations import at_least
from hakutsu.core.runsheet import Plan, steps
from hakutsu.dossier import Covered, PlaceCoverage
from hakutsu.entries.follow_up import Moment
from hakutsu.entries.general import Station
from hakutsu.figures.shell_sheet import SheetPanel, lies, shell_sheet
from hakutsu.figures.time_strip import time_strip
from hakutsu.reckoning import Reckoning
from hakutsu.report.body_section import sheet_marks
from hakutsu.report.condition_section import story_lines
from hakutsu.report.round_section import answered_questions, open_questions
from hakutsu.report.subjects import LIMIT_OF
from hakutsu.report.wording import body_words, walk_words
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.places import outside, places
from hakutsu.vehicle.vocabulary import Direction
from hakutsu.web.film.context import station_config
from hakutsu.web.rendering import fragment
from hakutsu.web.round.follow_up import follow_up_context
from hakutsu.web.round.leads import lead
from hakutsu.web.round.lines import LINED, line_states, lines_context, rest_by_eye
from hakutsu.web.round.twin import twin_film

OF_STATIONS = [(station.value, name) for station, name in LIMIT_OF.items() if station is not Station.FILM]
USUAL_LIMITS = ("dirty or wet", "covered or locked", "no light", "no time", "not allowed")
HOW = ("from across the yard", "at arm’s length", "close, with hand and lamp")


def round_context(reckoning: Reckoning, now: datetime) -> dict[str, Any]:
    """Every place in walk order with its coverage, and every open question."""
    coverage = reckoning.dossier.place_coverage()
    return {
        "dossier": reckoning.dossier,
        "terms": reckoning.terms,
        "rows": [(places()[one.place], one) for one in coverage],
        "stations": reckoning.dossier.station_coverage(),
        "done": sum(one.done for one in coverage),
        "limited": sum(one.limited for one in coverage),
        "expected": sum(one.expected for one in coverage),
        "questions": open_questions(reckoning),
        "answered": answered_questions(reckoning),
        "settling": None,
        "back_to": "round",
        "stories": story_lines(reckoning),
        **follow_up_context(reckoning, reckoning.second_looks(now)),
        "stand_downs": reckoning.stand_downs,
        "retests": len(reckoning.film.analysis.open_surprises),
        "walk": reckoning.dossier.day.walk,
        "starts": [places()[key] for key in outside()],
        "directions": [(one, walk_words(one, reckoning.terms)) for one in Direction],
        "usual_limits": USUAL_LIMITS,
    }


def place_context(reckoning: Reckoning, key: str, now: datetime) -> dict[str, Any]:
    """Everything due and noted at one place."""
    walk = reckoning.dossier.day.places()
    at = walk.index(key)
    coverage: PlaceCoverage = next(one for one in reckoning.dossier.place_coverage() if one.place == key)
    here = [key, *places()[key].panels]
    said = [
        (entry, *body_words(entry.parsed(), reckoning.terms), reckoning.terms.place(entry.place))
        for entry in reckoning.dossier.entries
        if entry.place in here and entry.id not in reckoning.dossier.struck and entry.kind.startswith("general.")
    ]
    panels_here = [
        (panels()[panel.panel], panel, reckoning.film.analysis.panel(panel.panel)) for panel in coverage.panels
    ]
    due = next((panel.panel for panel in coverage.panels if panel.state is Covered.OPEN), None)
    first = coverage.panels[0].panel if coverage.panels else ""
    return {
        "of_stations": OF_STATIONS,
        "dossier": reckoning.dossier,
        "terms": reckoning.terms,
        "place": places()[key],
        "back": places()[walk[at - 1]],
        "next": places()[walk[(at + 1) % len(walk)]],
        "coverage": coverage,
        "panels_here": panels_here,
        "twin_film": {panel.panel: twin_film(reckoning, panel.panel) for panel in coverage.panels},
        "due_panel": due or first,
        "repeats": [s for s in reckoning.film.analysis.open_surprises if s.observation.panel in here],
        "said": said,
        "at_least": at_least(reckoning.dossier.day.arrival, key),
        "moments": list(Moment),
        "back_to": f"place/{key}",
        **follow_up_context(reckoning, reckoning.second_looks(now), here),
        **_desk_queue(reckoning, key),
        "pictures_here": sum(one.entry.place in here for one in reckoning.dossier.pictures.taken.values()),
        "how": HOW,
        "usual_limits": USUAL_LIMITS,
        "unit": reckoning.dossier.film.gauge.unit,
        "stand_downs": reckoning.stand_downs,
        "lined": LINED,
        "rest": rest_by_eye(reckoning, key),
        "states": line_states(reckoning, key),
    }


def place_page(reckoning: Reckoning, key: str, now: datetime) -> dict[str, Any]:
    """The whole of a place sheet: what is due and noted, and a line to enter each thing by."""
    patches = {one: _patch(reckoning, one) for one in places()[key].panels if one in reckoning.outside.patches}
    sides = (reckoning.terms.side("left"), reckoning.terms.side("right"))
    context = {**place_context(reckoning, key, now), **lines_context(reckoning, key)}
    return {**context, "patches": patches, "patch_lies": lies(sides)}


def _patch(reckoning: Reckoning, panel: str) -> Markup:
    """One panel of the shell sheet, to mark a place on it."""
    terms = reckoning.terms
    one = SheetPanel(panel, panels()[panel].code, terms.panel(panel), None, "tap to mark", (), href=f"#{panel}")
    marks = sheet_marks(reckoning)
    sides = (terms.side("left"), terms.side("right"))
    patches = {panel: reckoning.outside.patches[panel]}
    return Markup(shell_sheet([one], patches, terms.film, marks=marks, sides=sides, states=False))


def _desk_queue(reckoning: Reckoning, key: str) -> dict[str, Any]:
    """At the desk every question is due, wherever it came up."""
    if key != "desk":
        return {"questions": [], "answered": []}
    return {"questions": open_questions(reckoning), "answered": answered_questions(reckoning), "settling": None}


def place_fragments(reckoning: Reckoning, key: str | None, now: datetime) -> dict[str, str]:
    """The moving parts of a place sheet."""
    if key not in places():
        return {}
    context = place_context(reckoning, key, now)
    parts = {name: fragment(f"round/_{name}.html", **context) for name in ("place_due", "place_said", "follow_up")}
    states = {f"state_{name}": words for name, words in context["states"].items()}
    return {**parts, "place_rest": fragment("round/_rest.html", **context), **states}


def place_config(reckoning: Reckoning, key: str) -> str:
    """What the place sheet's script must know: the film station's, narrowed to the panels here."""
    config = json.loads(station_config(reckoning))
    here = places()[key].panels
    config["panels"] = [panel for panel in config["panels"] if panel["key"] in here]
    return json.dumps({**config, "place": key})


@dataclass(frozen=True, slots=True)
class SheetRow:
    """A step of the run sheet: planned times, why there, what leaving it out would cost, the page it leads to, what
    blocks it, whether it is under way.
    """

    key: str
    name: str
    place: str
    begin: str
    end: str
    because: str
    cost: float
    leads: str
    blocked: list[StandDown]
    begun: bool
    caution: str


def runsheet_context(reckoning: Reckoning, now: datetime) -> dict[str, Any]:
    """The plan with its strip, what is left out, and what was done."""
    hazards = reckoning.dossier.hazards
    plan = reckoning.run_sheet.plan(now)
    said = reckoning.dossier.day.conditions
    begin = max(now, said.begins) if said else now
    rows = [] if plan is None else [_sheet_row(reckoning, plan, i, begin) for i in range(len(plan.steps))]
    forbidden = [
        (step, blocked)
        for step in steps().values()
        if step.key not in reckoning.run_sheet.done and (blocked := reckoning.blocking(step.activity))
    ]
    return {
        "dossier": reckoning.dossier,
        "terms": reckoning.terms,
        "conditions": said,
        "plan": plan,
        "sheet": rows,
        "begin": begin,
        "strip": Markup(time_strip(plan, begin, now, reckoning.terms)) if plan else "",
        "done_steps": [
            (reckoning.terms.say(steps()[key].name), kept) for key, kept in hazards.done.items() if key in steps()
        ],
        "ticked": [
            reckoning.terms.say(step.name)
            for key, step in steps().items()
            if key in reckoning.run_sheet.ticked - set(hazards.done)
            and step.takes(reckoning.dossier.opening.brief.protocol)
        ],
        "forbidden": forbidden,
        "stand_downs": reckoning.stand_downs,
        "now": now,
    }


def _sheet_row(reckoning: Reckoning, plan: Plan, i: int, begin: datetime) -> SheetRow:
    one, terms = plan.steps[i], reckoning.terms
    start, end = (begin + timedelta(minutes=at) for at in (one.start, one.end))
    return SheetRow(
        one.step.key,
        terms.say(one.step.name),
        terms.place(one.step.place),
        terms.clock(start),
        terms.clock(end),
        terms.say(one.because),
        one.cost,
        lead(one.step.key),
        reckoning.blocking(one.step.activity),
        one.step.key in reckoning.dossier.hazards.begun,
        terms.say(one.step.caution),
    )


def stand_down_context(reckoning: Reckoning) -> dict[str, Any]:
    """Open causes with what clears or overrides them, closed ones, and every cause one may raise."""
    raised = reckoning.dossier.hazards.raised
    grouped: dict[str, list[Cause]] = {}
    for cause in causes().values():
        worst = "running" if "running" in cause.blocks else "driving" if "driving" in cause.blocks else cause.blocks[0]
        grouped.setdefault(worst, []).append(cause)
    return {
        "dossier": reckoning.dossier,
        "terms": reckoning.terms,
        "stand_downs": reckoning.stand_downs,
        "walking_pace": WALKING_PACE,
        "groups": grouped,
        "headings": headings(),
        "kept": raised,
        "closed": [
            (causes()[kept.body.cause].name, kept) for kept in raised.values()
            if kept.cleared is not None and kept.body.cause in causes()
        ],
    }  # fmt: skip
