"""What the road station shows."""

from __future__ import annotations

import json
from typing import Any

from markupsafe import Markup

from hakutsu.core.road.after import AgainKind
from hakutsu.core.road.measured import source_words
from hakutsu.core.road.noticed import per_cent
from hakutsu.dossier.road import RoadDossier
from hakutsu.entries import road as kinds
from hakutsu.entries.general import AskSeller
from hakutsu.figures.vibration import vibration_spectrum
from hakutsu.reckoning import Reckoning
from hakutsu.reckoning.road import RoadReckoned
from hakutsu.report.finding_wording import found_line
from hakutsu.report.road_section import BEFORE
from hakutsu.report.wording import body_words
from hakutsu.vehicle.mechanics import Gearbox
from hakutsu.vehicle.places import WHEELS
from hakutsu.vehicle.road import SHOWS, Level
from hakutsu.web.rendering import fragment
from hakutsu.web.told import told_rows

ROOMS = {"before": "Before, and the drive", "noticed": "What was noticed", "measured": "Measured", "after": "After it"}

TOLD = 0.02
ENTERED = {
    AgainKind.HUBS: "road/after", AgainKind.ENGINE: "engine/run", AgainKind.START: "engine/run",
    AgainKind.LEVELS: "engine/fluids", AgainKind.VENT: "engine/air", AgainKind.SCAN: "scan",
    AgainKind.FUNCTION: "functions",
}  # fmt: skip
SLOW = ("corners.tyre_too_old", "corners.tyre_cracks_open")


def road_context(reckoning: Reckoning, room: str) -> dict[str, Any]:
    """One room."""
    terms, road = reckoning.terms, reckoning.station(RoadReckoned)
    context: dict[str, Any] = {
        "dossier": reckoning.dossier, "terms": terms, "stand_downs": reckoning.stand_downs, "rooms": ROOMS,
        "room": room,
        "road": road, "level": road.level, "kinds": kinds, "distance": terms.scale("distance"),
        "temperature": terms.scale("temperature"), "depth": terms.scale("depth"),
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection), "room": room}),
        "found": [found_line(one, terms) for one in reckoning.findings_of("road")],
    }  # fmt: skip
    return context | MADE[room](reckoning, road)


def _before(reckoning: Reckoning, road: RoadReckoned) -> dict[str, Any]:
    state = reckoning.dossier[RoadDossier]
    blocks = [one for one in reckoning.stand_downs if "road_test" in one.blocks]
    return {
        "before": state.before.body if state.before else None,
        "needed": list(BEFORE.items()),
        "blocks": blocks,
        "levels": [(one, *SHOWS[one]) for one in Level],
        "drives": told_rows(reckoning, list(state.drives)),
        "old_tyres": any(one.code in SLOW for one in reckoning.corners.found),
    }


def _noticed(reckoning: Reckoning, road: RoadReckoned) -> dict[str, Any]:
    terms = reckoning.terms
    asked = [body_words(one.body, terms)[1] for one in reckoning.dossier.general.open(AskSeller)]
    tries = [one.name for one, _ in reckoning.functions.retests]
    rows = [
        (one, told_rows(reckoning, list(one.noticed)), one.subject.signs_at(road.level or Level.FAST))
        for one in road.subjects
    ]
    wheels = [(one, terms.place(one)) for one in WHEELS]
    return {"rows": rows, "wheels": wheels, "questions": tries, "asked": asked}


def _measured(reckoning: Reckoning, road: RoadReckoned) -> dict[str, Any]:
    state = reckoning.dossier[RoadDossier]
    records = []
    for seen in state.vibrations:
        shares = [
            (source_words(one.source), one.hz, per_cent(one.probability))
            for one in seen.body.candidates if one.probability > TOLD
        ]  # fmt: skip
        words, drawing = body_words(seen.body, reckoning.terms)[1], Markup(vibration_spectrum(seen.body))
        records.append((seen.entry.id, words, drawing, seen.body, shares, per_cent(seen.body.none)))
    told = told_rows(reckoning, [*([state.clutch] if state.clutch else []), *state.dials, *state.distances])
    clutch = reckoning.dossier.mechanics.gearbox in (Gearbox.MANUAL, Gearbox.UNKNOWN)
    return {
        "clutch": clutch,
        "told": told,
        "records": records,
        "rolling": road.rolling_m,
        "tyres_roll": road.tyres_roll,
    }


def _after(reckoning: Reckoning, road: RoadReckoned) -> dict[str, Any]:
    terms = reckoning.terms
    state = reckoning.dossier[RoadDossier]
    pairs = []
    for one in road.hubs:
        both = [terms.say(f"{{temperature {at:.0f}}}") if at is not None else "–" for at in (one.left, one.right)]
        pairs.append((one.axle, *both, one.state, one.apart_s))
    return {
        "again": [(terms.say(one.words), terms.say(one.before), one.done, ENTERED[one.kind]) for one in road.after],
        "pairs": pairs,
        "wheels": [(one, terms.place(one)) for one in WHEELS],
        "read": [(one.entry.id, terms.place(one.entry.place), body_words(one.body, terms)[1])
                 for every in state.hubs.values() for one in every],
    }  # fmt: skip


MADE = {"before": _before, "noticed": _noticed, "measured": _measured, "after": _after}


def road_fragments(reckoning: Reckoning, room: str | None) -> dict[str, str]:
    """The moving parts of a room."""
    chosen = room if room in ROOMS else "before"
    context = road_context(reckoning, chosen)
    return {
        f"road_{chosen}": fragment(f"road/_{chosen}.html", **context),
        "road_found": fragment("road/_found.html", **context),
        "standing": fragment("round/_standing.html", **context),
    }
