"""The functions station: its page and its moving parts."""

from __future__ import annotations

import json
from datetime import datetime
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response

from hakutsu.core.functions import Status
from hakutsu.entries.functions import LampKind, Result
from hakutsu.reckoning import Reckoning
from hakutsu.report.wording import body_words
from hakutsu.vehicle.equipment import equipment, facts_that_fit, may_have
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.rendering import fragment, page
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()
TAPS = (Result.WORKS, Result.FAILS, Result.NOT_FOR_ME)
SAYS_MORE = (Result.BUT, Result.PARTLY, Result.NOT_TESTED)


def functions_context(reckoning: Reckoning) -> dict[str, Any]:
    """Everything fitted by group with its status and tries; lamps; what may be fitted too."""
    terms, functions = reckoning.terms, reckoning.dossier.functions
    groups: dict[str, list[Any]] = {}
    for one, status in reckoning.functions.statuses:
        tries = [(seen.entry.id, body_words(seen.body, terms)[1]) for seen in functions.tried.get(one.key, ())]
        groups.setdefault(one.group, []).append((one, terms.say(one.name), status, tries))
    mechanics = reckoning.dossier.mechanics
    fitted = {one.key for one, _ in reckoning.functions.statuses}
    tried = sum(status.status is not Status.UNTESTED for _, status in reckoning.functions.statuses)
    return {
        "dossier": reckoning.dossier,
        "terms": terms,
        "stand_downs": reckoning.stand_downs,
        "groups": groups,
        "retests": [terms.say(one.name) for one, _ in reckoning.functions.retests],
        "tried": tried,
        "count": len(fitted),
        "more": [
            (key, terms.say(one.name))
            for key, one in equipment().items()
            if key not in fitted and may_have(one, mechanics.year, facts_that_fit(mechanics))
        ],
        "lamps": [(seen.entry.id, body_words(seen.body, terms)[1]) for seen in functions.lamps],
        "against": reckoning.functions.lamps_against_claim,
        "taps": TAPS,
        "says_more": SAYS_MORE,
        "lamp_kinds": list(LampKind),
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection)}),
    }


def functions_fragments(reckoning: Reckoning) -> dict[str, str]:
    """The list, the lamps, and the stand-downs."""
    context = functions_context(reckoning)
    return {
        "functions_list": fragment("functions/_list.html", **context),
        "functions_lamps": fragment("functions/_lamps.html", **context),
        "standing": fragment("round/_standing.html", **context),
    }


@router.get("/inspections/{inspection}/functions")
def show_functions(request: Request, reckoning: ReckoningHere) -> Response:
    """Everything that may be tried."""
    return page(request, "functions/station.html", tab="functions", **functions_context(reckoning))


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return functions_fragments(reckoning)


station_page(
    StationPage("functions", "Functions", Phase.AT_THE_VEHICLE, 80, router, _fragments,
                covers={"functions": "functions"}, shows={"function.": "functions"})
)  # fmt: skip
