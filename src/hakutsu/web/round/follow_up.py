"""Second looks, and limits that findings cause: shown, taken, dropped."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response
from pydantic import ValidationError

from hakutsu.core.follow_up import ProposedLimit, SecondLook
from hakutsu.entries import Draft
from hakutsu.entries.follow_up import LookedAgain, Outcome, ProposalDropped
from hakutsu.entries.general import Limit, Station
from hakutsu.reckoning import Reckoning
from hakutsu.report.wording import body_words
from hakutsu.web.desk import DeskHere, ReckoningHere

router = APIRouter()


def _said(reckoning: Reckoning, one: SecondLook | ProposedLimit) -> dict[str, Any]:
    kind, words = body_words(one.body, reckoning.terms)
    return {"one": one, "kind": kind, "words": words, "where": reckoning.terms.place(one.entry.place)}


def follow_up_context(reckoning: Reckoning, looks: list[SecondLook], within: list[str] | None = None) -> dict[str, Any]:
    """Open second looks, those due first, and proposed limits; with `within` only those at these places."""

    def here(one: SecondLook | ProposedLimit) -> bool:
        return within is None or one.entry.place in within

    open_looks = sorted((one for one in looks if one.open and here(one)), key=lambda one: not one.due)
    return {
        "again": [_said(reckoning, one) for one in open_looks],
        "outcomes": list(Outcome),
        "proposed": [_said(reckoning, one) for one in reckoning.proposed_limits if here(one)],
    }


def _back(form: dict[str, str], inspection: UUID) -> Response:
    room = form.get("back", "round")
    safe = room if room.replace("/", "").replace("_", "").isalnum() else "round"
    safe = "gaps?finishing=yes" if safe == "gaps" else safe
    return RedirectResponse(f"/inspections/{inspection}/{safe}", 303)


@router.post("/inspections/{inspection}/again")
async def look_again(request: Request, inspection: UUID, desk: DeskHere, reckoning: ReckoningHere) -> Response:
    """Note what a second look showed."""
    form = {key: str(value).strip() for key, value in (await request.form()).items()}
    wanted = {str(one.entry.id): one for one in reckoning.second_looks(desk.now())}
    if form.get("of") not in wanted:
        raise HTTPException(404, "Nothing is to be looked at again there; it may have been taken back.")
    entry = wanted[form["of"]].entry
    try:
        body = LookedAgain.model_validate(
            {"of": entry.id, "outcome": form.get("outcome"), "text": form.get("text", "")}
        )
    except ValidationError as error:
        raise HTTPException(422, "Choose what you saw, and write at most 400 characters.") from error
    draft = Draft.write("general.looked_again", body, desk.now(), place=entry.place)
    desk.logbook.append(inspection, [draft], desk.author)
    return _back(form, inspection)


@router.post("/inspections/{inspection}/proposals")
async def answer_proposal(request: Request, inspection: UUID, desk: DeskHere, reckoning: ReckoningHere) -> Response:
    """Take a proposed limit, or drop it; one that was answered already, in another window maybe, stays as it is."""
    form = {key: str(value).strip() for key, value in (await request.form()).items()}
    open_ones = {(str(one.entry.id), one.rule): one for one in reckoning.proposed_limits}
    one = open_ones.get((form.get("of", ""), form.get("rule", "")))
    if one is not None:
        draft = _taken(one, desk) if form.get("act") == "take" else _dropped(one, desk)
        desk.logbook.append(inspection, [draft], desk.author)
    return _back(form, inspection)


def _taken(one: ProposedLimit, desk: DeskHere) -> Draft:
    body = Limit(station=Station.GENERAL, because=one.hides, caused_by=one.entry.id, rule=one.rule, instead=one.instead)
    return Draft.write("general.limit", body, desk.now(), place=one.entry.place)


def _dropped(one: ProposedLimit, desk: DeskHere) -> Draft:
    body = ProposalDropped(of=one.entry.id, rule=one.rule)
    return Draft.write("general.proposal_dropped", body, desk.now(), place=one.entry.place)
