"""What nobody has touched, in walk order, with one tap for the usual reasons; asked before finishing."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.dossier import Covered, Dossier
from hakutsu.entries import Draft
from hakutsu.entries.general import Limit, Station
from hakutsu.vehicle.terms import PLAIN, Terms
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.rendering import page
from hakutsu.web.round.follow_up import follow_up_context

router = APIRouter()
REASONS = ("no time", "dirty or wet", "covered or locked", "no light", "not allowed")
LONGEST = 400


@dataclass(frozen=True, slots=True)
class Gap:
    """Something the protocol expects that nobody has touched: a place to look at, or a panel's film."""

    key: str
    station: Station
    place: str
    words: str


def gaps(dossier: Dossier, terms: Terms = PLAIN) -> list[Gap]:
    """Every gap in walk order."""
    found = []
    for one in dossier.place_coverage():
        name = terms.place(one.place)
        if one.looked is Covered.OPEN:
            found.append(Gap(one.place, Station.GENERAL, name, "looked over"))
        for panel in one.panels:
            if panel.expected and panel.state is Covered.OPEN:
                said = f"film on {terms.panel(panel.panel)}: {panel.taken} of {panel.expected}"
                found.append(Gap(panel.panel, Station.FILM, name, said))
        for part in one.parts:
            if part.state is Covered.OPEN:
                found.append(Gap(part.part, Station.GENERAL, name, f"{part.check.name}: {terms.place(part.part)}"))
    return found


@router.get("/inspections/{inspection}/gaps")
def show_gaps(
    request: Request, reckoning: ReckoningHere, desk: DeskHere, finishing: str = "", fault: str = ""
) -> Response:
    """What have I not touched?"""
    return page(
        request,
        "round/gaps.html",
        tab="round",
        dossier=reckoning.dossier,
        terms=reckoning.terms,
        gaps=gaps(reckoning.dossier, reckoning.terms),
        reasons=REASONS,
        back_to="gaps",
        **follow_up_context(reckoning, reckoning.second_looks(desk.now())),
        finishing=bool(finishing),
        fault=fault,
    )


@router.post("/inspections/{inspection}/gaps")
async def close_gaps(request: Request, inspection: UUID, desk: DeskHere, reckoning: ReckoningHere) -> Response:
    """Turn gaps into limits with a reason: one of them, or all that are left."""
    form = await request.form()
    because = (str(form.get("because", "")) or str(form.get("own", ""))).strip()
    finishing = str(form.get("finishing", ""))
    chosen = set(map(str, form.getlist("gap")))
    found = [gap for gap in gaps(reckoning.dossier) if f"{gap.station}:{gap.key}" in chosen or "all" in chosen]
    if not because or len(because) > LONGEST or not found:
        return show_gaps(request, reckoning, desk, finishing, "Say why, in up to 400 characters, and for which gap.")
    now = desk.now()
    drafts = [
        Draft.write("general.limit", Limit(station=gap.station, because=because), now, place=gap.key) for gap in found
    ]
    desk.logbook.append(inspection, drafts, desk.author)
    here = f"/inspections/{inspection}/gaps"
    return RedirectResponse(f"{here}?finishing=yes" if finishing else here, 303)
