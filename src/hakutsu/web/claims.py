"""Claims of advert and seller: written down one by one, or proposed from a pasted advert and accepted or dropped."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import RedirectResponse, Response
from pydantic import ValidationError

from hakutsu.core.claims import LONGEST_ADVERT, propose
from hakutsu.entries import Draft
from hakutsu.entries.claims import Claim, Claimant, ClaimKind
from hakutsu.entries.general import Strike
from hakutsu.reckoning import Reckoning
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.rendering import page
from hakutsu.web.station import Phase, StationPage, station_page

router = APIRouter()


def _context(reckoning: Reckoning, **more: Any) -> dict[str, Any]:
    return {
        "dossier": reckoning.dossier,
        "claims": reckoning.dossier.claims.said,
        "kinds": list(ClaimKind),
        "claimants": list(Claimant),
        "advert": "",
        "proposals": None,
        "fault": "",
        "words": "",
        **more,
    }


@router.get("/inspections/{inspection}/claims")
def show_claims(request: Request, reckoning: ReckoningHere) -> Response:
    """What was claimed, and where an advert can be pasted."""
    return page(request, "claims.html", tab="claims", **_context(reckoning))


@router.post("/inspections/{inspection}/claims/advert")
async def read_advert(request: Request, reckoning: ReckoningHere) -> Response:
    """Propose claims from a pasted text; nothing is noted yet."""
    text = str((await request.form()).get("advert", ""))
    if len(text) > LONGEST_ADVERT:
        fault = f"At most {LONGEST_ADVERT:,} characters; this has {len(text):,}. Paste the part that claims something."
        return page(request, "claims.html", status=422, tab="claims", **_context(reckoning, advert=text, fault=fault))
    known = {(claim.words.lower(), claim.kind) for _, claim in reckoning.dossier.claims.said}
    proposals = [one for one in propose(text) if (one.words.lower(), one.kind) not in known]
    return page(request, "claims.html", tab="claims", **_context(reckoning, advert=text, proposals=proposals))


@router.post("/inspections/{inspection}/claims")
async def note_claims(request: Request, inspection: UUID, desk: DeskHere, reckoning: ReckoningHere) -> Response:
    """Note one claim as typed, or every proposal that was accepted."""
    form = await request.form()
    accepted = [str(one).partition("|") for one in form.getlist("accept")]
    said: list[dict[str, Any]] = [{"kind": kind, "words": words} for kind, _, words in accepted]
    if not accepted:
        said = [{key: str(value) for key, value in form.items()}]
    try:
        claims = [Claim.model_validate(one) for one in said]
    except ValidationError:
        context = _context(
            reckoning, fault="A claim takes its words, up to 400 characters.", words=form.get("words", "")
        )
        return page(request, "claims.html", status=422, tab="claims", **context)
    now = desk.now()
    desk.logbook.append(inspection, [Draft.write("claim.said", one, now) for one in claims], desk.author)
    return RedirectResponse(f"/inspections/{inspection}/claims", 303)


@router.post("/inspections/{inspection}/claims/{claim}/drop")
def drop_claim(inspection: UUID, claim: UUID, desk: DeskHere, _: ReckoningHere) -> Response:
    """Strike a claim."""
    desk.logbook.append(inspection, [Draft.write("general.strike", Strike(), desk.now(), strikes=claim)], desk.author)
    return RedirectResponse(f"/inspections/{inspection}/claims", 303)


station_page(StationPage("claims", "Claims", Phase.PREPARE, 20, router, shows={"claim.": "claims"}))
