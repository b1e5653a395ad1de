"""The one way in: clients append entries here, and read them back."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from fastapi import APIRouter, HTTPException
from pydantic import BaseModel, Field

from hakutsu.entries import Draft
from hakutsu.logbook import Acknowledged, Refused
from hakutsu.web.desk import DeskHere, ReckoningHere
from hakutsu.web.film.context import PROFILE, film_fragments

router = APIRouter()


class Sent(BaseModel):
    """Drafts a client sends, and the page it wants back in fragments."""

    entries: list[Draft] = Field(max_length=2000)
    view: str = ""
    panel: str | None = None
    drawing: str = PROFILE


@router.post("/inspections/{inspection}/entries")
def append(inspection: UUID, sent: Sent, desk: DeskHere) -> dict[str, Any]:
    """Append drafts; the answer names every id as acknowledged or refused, with fragments of the asked view."""
    try:
        answers = desk.logbook.append(inspection, sent.entries, desk.author)
    except LookupError as error:
        raise HTTPException(404, "There is no inspection at this address.") from error
    reply: dict[str, Any] = {
        "acknowledged": [str(answer.id) for answer in answers if isinstance(answer, Acknowledged)],
        "refused": [
            {"id": str(answer.id), "field": answer.field, "message": answer.message}
            for answer in answers
            if isinstance(answer, Refused)
        ],
    }
    if sent.view == "film":
        reply["fragments"] = film_fragments(desk.reckoning(inspection), sent.panel, sent.drawing)
    return reply


@router.get("/inspections/{inspection}/entries")
def entries(reckoning: ReckoningHere) -> list[dict[str, Any]]:
    """All entries as JSON, in the order of the logbook, struck ones marked."""
    dossier = reckoning.dossier
    return [{**entry.model_dump(mode="json"), "struck": entry.id in dossier.struck} for entry in dossier.entries]
