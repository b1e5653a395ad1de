"""The one way in: clients append entries here, and read them back."""

from __future__ import annotations

from typing import Annotated, Any
from uuid import UUID

from fastapi import APIRouter, HTTPException, Query
from pydantic import BaseModel, Field, ValidationError

from hakutsu.core.runsheet import steps
from hakutsu.entries import Draft, kinds
from hakutsu.logbook import Acknowledged, Refused
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.rendering import rail_fragment
from hakutsu.web.station import Asked, fragments_of

router = APIRouter()
MOST_ENTRIES = 2000


class Sent(BaseModel):
    """Drafts a client sends."""

    entries: list[dict[str, Any]] = Field(max_length=MOST_ENTRIES)


@router.post("/inspections/{inspection}/entries")
def append(inspection: UUID, sent: Sent, desk: DeskHere) -> dict[str, Any]:
    """Append drafts; the answer names every id as acknowledged or refused. What follows of them is asked for apart."""
    drafts, not_read = _read(sent.entries)
    forbidden = _forbidden(inspection, drafts, desk)
    try:
        allowed = [draft for draft in drafts if draft.id not in forbidden]
        answers = [*desk.logbook.append(inspection, allowed, desk.author), *forbidden.values()]
    except LookupError as error:
        raise HTTPException(404, "There is no inspection at this address.") from error
    refused = [
        {"id": str(answer.id), "field": answer.field, "message": answer.message}
        for answer in answers
        if isinstance(answer, Refused)
    ]
    return {
        "acknowledged": [str(answer.id) for answer in answers if isinstance(answer, Acknowledged)],
        "refused": [*not_read, *refused],
    }


@router.get("/inspections/{inspection}/fragments")
def fragments(reckoning: ReckoningHere, desk: DeskHere, asked: Annotated[Asked, Query()]) -> dict[str, str]:
    """The moving parts of a page as the logbook stands."""
    now = desk.now()
    inside = asked.place if asked.view == "place" else asked.room
    room = f"{asked.view}/{inside}" if inside else asked.view
    return rail_fragment(reckoning, now, room) | fragments_of(reckoning, asked, now)


def _read(sent: list[dict[str, Any]]) -> tuple[list[Draft], list[dict[str, str]]]:
    """Drafts as they were sent, and those that are none, each by itself: a bad one takes no other with it."""
    drafts, refused = [], []
    for number, one in enumerate(sent, 1):
        try:
            draft = Draft.model_validate(one)
        except ValidationError as error:
            first = error.errors()[0]
            where = ".".join(str(part) for part in first["loc"])
            said = first["msg"].removeprefix("Value error, ")
            if where == "id":
                raise HTTPException(422, f"entry {number} has no id: {said}") from error
            refused.append({"id": str(one.get("id", ""))[:60], "field": where, "message": said})
            continue
        if (kind := kinds().get(draft.kind)) is not None and kind.by_upload:
            refused.append({"id": str(draft.id), "field": "kind", "message": "a picture comes with its file"})
            continue
        drafts.append(draft)
    return drafts, refused


def _forbidden(inspection: UUID, drafts: list[Draft], desk: DeskHere) -> dict[UUID, Refused]:
    """Steps that an open stand-down forbids to begin, refused whichever way they come in."""
    begun = [draft for draft in drafts if draft.kind == "step.begun"]
    if not begun or not desk.logbook.holds(inspection):
        return {}
    reckoning = desk.reckoning(inspection)
    found = {}
    for draft in begun:
        step = steps().get(str(draft.body.get("step")))
        blocked = reckoning.blocking(step.activity) if step else []
        if blocked:
            words = desk.reckoning(inspection).terms.say(
                "; ".join(f"{one.cause.name}. {one.cause.caution}" for one in blocked)
            )
            found[draft.id] = Refused(draft.id, "step", f"a stand-down forbids it: {words}")
    return found


@router.get("/inspections/{inspection}/entries")
def entries(reckoning: ReckoningHere) -> list[dict[str, Any]]:
    """All entries as JSON, in the order of the logbook, struck ones marked."""
    dossier = reckoning.dossier
    return [{**entry.model_dump(mode="json"), "struck": entry.id in dossier.struck} for entry in dossier.entries]
