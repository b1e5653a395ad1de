"""The towing station: its page and its moving part."""

from __future__ import annotations

import json
from datetime import datetime
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response

from hakutsu.dossier.towing import TowingDossier
from hakutsu.entries.towing import SocketResult
from hakutsu.reckoning import Reckoning
from hakutsu.report.wording import body_words
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.rendering import fragment, page
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()


def _context(reckoning: Reckoning) -> dict[str, Any]:
    seen = reckoning.dossier[TowingDossier].socket
    return {
        "dossier": reckoning.dossier,
        "terms": reckoning.terms,
        "results": list(SocketResult),
        "socket": body_words(seen.body, reckoning.terms)[1] if seen else "",
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection)}),
    }


@router.get("/inspections/{inspection}/towing")
def show_towing(request: Request, reckoning: ReckoningHere) -> Response:
    """The socket."""
    return page(request, "towing/station.html", tab="towing", **_context(reckoning))


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return {"socket": fragment("towing/_socket.html", **_context(reckoning))}


station_page(
    StationPage("towing", "Towing", Phase.AT_THE_VEHICLE, 95, router, _fragments,
                covers={"towing": "towing"}, shows={"towing.": "towing"})
)  # fmt: skip
