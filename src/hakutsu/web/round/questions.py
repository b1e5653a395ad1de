"""Settling hints and questions, from the round."""

from __future__ import annotations

from uuid import UUID

from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import RedirectResponse, Response
from pydantic import ValidationError

from hakutsu.entries import Draft
from hakutsu.entries.general import Settled, Strike
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.rendering import page
from hakutsu.web.round.context import round_context

router = APIRouter()


@router.post("/inspections/{inspection}/round/settle")
async def settle(request: Request, inspection: UUID, desk: DeskHere, reckoning: ReckoningHere) -> Response:
    """Answer a hint or question; one that is settled already, in another window maybe, keeps its first answer."""
    form = {key: str(value).strip() for key, value in (await request.form()).items()}
    general = reckoning.dossier.general
    asked = {str(key): key for key in general.questions}
    if form.get("of") not in asked:
        raise HTTPException(404, "There is no such question; it may have been taken back.")
    typed = {"answer": form.get("answer", ""), "source": form.get("source", ""), "hearsay": "hearsay" in form}
    settled = general.answers.get(asked[form["of"]])
    if settled is not None and settled[1].answer != typed["answer"]:
        first = f"It was settled meanwhile: “{settled[1].answer}”. Open it again to answer otherwise."
        raise HTTPException(409, f"{first} You wrote: “{typed['answer']}”.")
    try:
        body = Settled.model_validate({"of": form["of"], **typed})
    except ValidationError:
        fault = "Say what it turned out to be, in up to 2,000 characters, and from where in up to 200."
        context = round_context(reckoning, desk.now()) | {"settling": {"of": form["of"], "fault": fault, **typed}}
        return page(request, "round/round.html", status=422, tab="round", fault="", **context)
    if settled is None:
        desk.logbook.append(inspection, [Draft.write("general.settled", body, desk.now())], desk.author)
    return RedirectResponse(f"/inspections/{inspection}/{'desk' if form.get('back') == 'desk' else 'round'}", 303)


@router.post("/inspections/{inspection}/round/open")
async def open_again(request: Request, inspection: UUID, desk: DeskHere, reckoning: ReckoningHere) -> Response:
    """Take an answer back: the question is open again."""
    answer = str((await request.form()).get("answer", ""))
    standing = {str(entry.id): entry.id for entry, _ in reckoning.dossier.general.answers.values()}
    if answer in standing:
        strike = Draft.write("general.strike", Strike(because="opened again"), desk.now(), strikes=standing[answer])
        desk.logbook.append(inspection, [strike], desk.author)
    return RedirectResponse(f"/inspections/{inspection}/round", 303)
