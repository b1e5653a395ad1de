"""The cabin station: its page and its moving parts."""

from __future__ import annotations

import json
from datetime import datetime
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response

from hakutsu.core.cabin import usual_at
from hakutsu.entries import cabin as kinds
from hakutsu.reckoning import Reckoning
from hakutsu.report.cabin_section import cabin_line
from hakutsu.report.wording import body_words
from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.inventory import expected_belongings
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.rendering import fragment, page
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()


def cabin_context(reckoning: Reckoning) -> dict[str, Any]:
    """Every part with its grade and what is usual, findings, looks."""
    terms, cabin = reckoning.terms, reckoning.dossier.cabin
    mechanics = reckoning.dossier.mechanics
    km, years = mechanics.odometer_km, mechanics.age_years(reckoning.corners.on)
    rows = [
        (part.key, terms.say(part.name), cabin.wear.get(part.key), usual_at(part.key, km, years))
        for part in cabin_parts().values()
    ]
    things = [
        (one.key, terms.say(one.name), terms.place(one.place), cabin.inventory.get(one.key), one.optional)
        for one in expected_belongings(mechanics.power.value)
    ]
    return {
        "dossier": reckoning.dossier,
        "terms": terms,
        "stand_downs": reckoning.stand_downs,
        "rows": rows,
        "km": km,
        "things": things,
        "states": list(kinds.There),
        "controls": [(seen.entry.id, body_words(seen.body, terms)[1]) for seen in cabin.controls],
        "found": [cabin_line(one, terms) for one in reckoning.cabin.found],
        "beyond": [terms.say(cabin_parts()[part].name) for part in reckoning.cabin.beyond_taste],
        "taste": str(reckoning.dossier.opening.brief.taste),
        "looks": [(seen.entry.id, body_words(seen.body, terms)[1]) for seen in cabin.looks],
        "grades": list(kinds.Wear),
        "smells": list(kinds.CabinSmell),
        "moist": list(kinds.Moist),
        "signs": list(kinds.CabinSign),
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection)}),
    }


def cabin_fragments(reckoning: Reckoning) -> dict[str, str]:
    """Parts, findings, stand-downs."""
    context = cabin_context(reckoning)
    return {
        "cabin_parts": fragment("cabin/_parts.html", **context),
        "cabin_things": fragment("cabin/_things.html", **context),
        "cabin_controls": fragment("cabin/_controls.html", **context),
        "cabin_found": fragment("cabin/_found.html", **context),
        "standing": fragment("round/_standing.html", **context),
    }


@router.get("/inspections/{inspection}/cabin")
def show_cabin(request: Request, reckoning: ReckoningHere) -> Response:
    """The cabin."""
    return page(request, "cabin/station.html", tab="cabin", **cabin_context(reckoning))


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return cabin_fragments(reckoning)


station_page(
    StationPage("cabin", "Cabin", Phase.AT_THE_VEHICLE, 90, router, _fragments, covers={"cabin": "cabin"},
                shows={"cabin.": "cabin"})
)  # fmt: skip
