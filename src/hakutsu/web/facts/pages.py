"""Key facts: each field an entry of its own; what follows from them is proposed; where parts come from."""

from __future__ import annotations

import json
from datetime import datetime
from itertools import groupby
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response

from hakutsu.core.facts import differ
from hakutsu.core.fitting import Fitting, may_be_fitted, not_of_its_time
from hakutsu.dossier.facts import Facts, Mention
from hakutsu.entries.facts import PartOrigin, Source
from hakutsu.reckoning import Reckoning
from hakutsu.report.facts_wording import fitting_name
from hakutsu.report.wording import body_words
from hakutsu.vehicle import mechanics as kinds
from hakutsu.vehicle.facts import FACT_NAMES
from hakutsu.vehicle.fitment import as_built, proposed_facts
from hakutsu.vehicle.keyed import Keyed, key_of
from hakutsu.vehicle.terms import Terms
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.rendering import fragment, page
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()
CHOICES: dict[str, type[Keyed]] = {
    "power": kinds.Power, "gearbox": kinds.Gearbox, "drive": kinds.Drive, "timing": kinds.Timing,
    "fuel_system": kinds.FuelSystem, "ignition": kinds.Ignition, "front_axle": kinds.FrontAxle,
    "rear_axle": kinds.RearAxle, "front_brakes": kinds.BrakeKind, "rear_brakes": kinds.BrakeKind,
    "front_pivots": kinds.Pivots, "steering_gear": kinds.SteeringGear, "supply": kinds.Supply,
    "parts": kinds.Parts,
}  # fmt: skip
TICKS = ("seized", "separate_frame", "stainless_exhaust", "map_thermostat", "two_stage_oil")


def facts_context(reckoning: Reckoning) -> dict[str, Any]:
    """Every fact as it stands, what follows, what may be fitted, what was told in two ways, where parts come from."""
    dossier, terms = reckoning.dossier, reckoning.terms
    facts, mechanics = dossier.facts, dossier.mechanics
    proposed = proposed_facts(mechanics)
    return {
        "dossier": dossier,
        "terms": terms,
        "stand_downs": reckoning.stand_downs,
        "mechanics": mechanics,
        "said_fitted": [(key, terms.say(fitting_name(key)), there) for key, there in facts.fitted.items()],
        "names": FACT_NAMES,
        "choices": {
            fact: [(one.value, str(one)) for one in choice if one.value != kinds.UNKNOWN]
            for fact, choice in CHOICES.items()
        },
        "said": {fact: key_of(getattr(mechanics, fact)) for fact in CHOICES},
        "taken": {fact: _assumed(mechanics, fact) for fact in CHOICES},
        "ticks": TICKS,
        "first_used": _first_used(facts),
        "distance": terms.scale("distance"),
        "pressure": terms.scale("pressure"),
        "sources": list(Source),
        "proposed": [(one.fact, one.value, FACT_NAMES[one.fact], _word(one.fact, one.value)) for one in proposed],
        "may_have": _grouped(may_be_fitted(dossier.vehicle, mechanics, facts.fitted), terms),
        "not_then": _grouped(not_of_its_time(dossier.vehicle, mechanics, facts.fitted), terms),
        "differing": _differing(facts, terms),
        "origins": [(one.entry.id, body_words(one.body, terms)[1]) for one in facts.origins],
        "restored": [(one.entry.id, body_words(one.body, terms)[1]) for one in facts.restored],
        "origin_kinds": list(PartOrigin),
        "config": json.dumps({"inspection": str(dossier.inspection)}),
    }


def _first_used(facts: Facts) -> str:
    """The date of first use as it was told: a year or a month stay what they are."""
    mentions = facts.mentions.get("first_used")
    return str(mentions[-1].told) if mentions else ""


def _assumed(mechanics: kinds.Mechanics, fact: str) -> str:
    """What is taken for a fact that nobody said and that surely follows, in words; empty where it does not."""
    key = as_built(mechanics, fact)
    return "" if key in (kinds.UNKNOWN, key_of(getattr(mechanics, fact))) else _word(fact, key)


def _word(fact: str, key: str) -> str:
    return str(CHOICES[fact](key)) if fact in CHOICES else key


def _grouped(every: list[Fitting], terms: Terms) -> list[tuple[str, list[tuple[str, str]]]]:
    return [
        (group, [(one.key, terms.say(one.name)) for one in rows])
        for group, rows in groupby(every, key=lambda one: one.group)
    ]  # fmt: skip


def _differing(facts: Facts, terms: Terms) -> list[tuple[str, list[tuple[str, str]]]]:
    """Facts told in two ways: each mention with its words."""

    def words(one: Mention) -> str:
        return f"{terms.say(one.words)}, {terms.clock(one.entry.at)} {one.entry.by}"

    return [
        (FACT_NAMES[fact], [(str(one.entry.id), words(one)) for one in mentions])
        for fact, mentions in facts.mentions.items()
        if differ(fact, [one.told for one in mentions])
    ]


PARTS = ("differing", "proposed", "may_have", "origins")


@router.get("/inspections/{inspection}/facts")
def show_facts(request: Request, reckoning: ReckoningHere) -> Response:
    """Every fact, and what follows from them."""
    return page(request, "facts/station.html", tab="facts", **facts_context(reckoning))


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    context = facts_context(reckoning)
    return {f"facts_{part}": fragment(f"facts/_{part}.html", **context) for part in PARTS}


station_page(
    StationPage("facts", "Key facts", Phase.PREPARE, 15, router, _fragments,
                shows={"vehicle.": "facts", "inspection.mechanics": "facts"})
)  # fmt: skip
