"""The underside station: its page and its moving parts."""

from __future__ import annotations

import json
from datetime import datetime
from typing import Any

from fastapi import APIRouter, Request
from fastapi.responses import Response
from markupsafe import Markup

from hakutsu.core.under.leaks import LeakFound
from hakutsu.dossier.body import Seen
from hakutsu.entries import under as kinds
from hakutsu.entries.body import Coating, RustGrade
from hakutsu.entries.under import UnderZone
from hakutsu.figures.under import under_schematic
from hakutsu.figures.zone_signs import zone_legend
from hakutsu.reckoning import Reckoning
from hakutsu.report.under_section import leak_line, zone_line, zones_shown
from hakutsu.report.wording import body_words
from hakutsu.vehicle.under import fitted_zones, zones
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.rendering import fragment, page
from hakutsu.web.station import Asked, Phase, StationPage, station_page

router = APIRouter()


def under_context(reckoning: Reckoning, chosen: str = "") -> dict[str, Any]:
    """Schematic, findings, leaks, and the form of a zone."""
    terms, under = reckoning.terms, reckoning.dossier.under
    frame = reckoning.dossier.mechanics.separate_frame
    here = fitted_zones(separate_frame=frame)
    return {
        "dossier": reckoning.dossier,
        "terms": terms,
        "stand_downs": reckoning.stand_downs,
        "drawing": Markup("").join(
            Markup(under_schematic(zones_shown(reckoning), chosen, terms, separate_frame=frame, upright=upright))
            for upright in (False, True)
        ),
        "signs": [(Markup(sign), name) for sign, name in zone_legend()],
        "chosen": chosen,
        "zones": [(key, terms.say(zone.name)) for key, zone in here.items()],
        "open": [key for key in here if not _settled(under.zones.get(key))],
        "found": [zone_line(one, terms) for one in reckoning.under.zones],
        "leaks": [(leak_line(one, terms), _again(one)) for one in reckoning.under.leaks],
        "said": [(seen.entry.id, body_words(seen.body, terms)[1]) for looks in under.looks.values() for seen in looks],
        "leaks_said": [
            (seen.entry.id, body_words(seen.body, terms)[1]) for looks in under.leaks.values() for seen in looks
        ],
        "grades": list(RustGrade),
        "coatings": list(Coating),
        "damages": list(kinds.UnderDamage),
        "repairs": list(kinds.RepairSign),
        "pipes": list(kinds.Pipes),
        "exhausts": list(kinds.Exhaust),
        "fluids": [kinds.LeakFluid.UNKNOWN, *list(kinds.LeakFluid)[:-1]],
        "stages": [*list(kinds.Stage)[1:], kinds.Stage.NONE],
        "clear": list(kinds.ZoneClear),
        "unobserved": [(one.because, one.parts) for one in reckoning.unobserved],
        "config": json.dumps({"inspection": str(reckoning.dossier.inspection)}),
    }  # fmt: skip


def _settled(seen: Seen[UnderZone] | None) -> bool:
    """Whether a zone was looked at, or said to be hidden."""
    return seen is not None and (seen.body.looked or bool(seen.body.not_visible))


def _again(one: LeakFound) -> str:
    """What a second look at a leak begins with."""
    return json.dumps({"fluid": one.fluid.value, "origin": one.origin, "zone": one.zone})


def under_fragments(reckoning: Reckoning) -> dict[str, str]:
    """Schematic, list, stand-downs."""
    context = under_context(reckoning)
    return {
        "under_drawing": fragment("under/_drawing.html", **context),
        "under_list": fragment("under/_list.html", **context),
        "standing": fragment("round/_standing.html", **context),
    }


@router.get("/inspections/{inspection}/under")
def show_under(request: Request, reckoning: ReckoningHere, zone: str = "") -> Response:
    """The underside; `zone` is chosen in the form."""
    chosen = zone if zone in zones() else ""
    return page(request, "under/station.html", tab="under", **under_context(reckoning, chosen))


def _fragments(reckoning: Reckoning, asked: Asked, now: datetime) -> dict[str, str]:
    return under_fragments(reckoning)


station_page(
    StationPage("under", "Under", Phase.AT_THE_VEHICLE, 60, router, _fragments,
                covers={"under": lambda zone: f"under?zone={zone}"},
                shows={"under.": lambda _, body: f"under?zone={getattr(body, 'zone', '')}", "leak.": "under"})
)  # fmt: skip
