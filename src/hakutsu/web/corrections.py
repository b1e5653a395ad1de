"""Several entries at once: taken back, or moved to the vehicle they belong to; both logbooks keep what was written."""

from __future__ import annotations

import re
from typing import Annotated
from uuid import UUID, uuid4

from fastapi import APIRouter, Form, HTTPException, Request
from fastapi.responses import RedirectResponse, Response

from hakutsu.entries import Draft, kinds
from hakutsu.entries.envelope import Entry
from hakutsu.entries.general import Strike
from hakutsu.logbook import Refused
from hakutsu.web.desk import DeskHere

router = APIRouter()
_ID = re.compile(r"[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}")
Ticked = Annotated[list[UUID] | None, Form()]


def movable(entry: Entry) -> bool:
    """Whether an entry may go to another vehicle: one of what was seen there, that refers to no other."""
    kind = kinds().get(entry.kind)
    about = entry.kind.startswith("inspection.") or entry.strikes is not None
    return kind is not None and not kind.by_upload and not about and not _ID.search(str(entry.body))


@router.post("/inspections/{inspection}/logbook/corrections")
def correct(
    request: Request, inspection: UUID, desk: DeskHere, entry: Ticked = None, to: Annotated[str, Form()] = ""
) -> Response:
    """Take back every ticked entry; with `to` they are written into that inspection first."""
    dossier = desk.reckoning(inspection).dossier
    chosen = [one for one in dossier.entries if one.id in set(entry or ()) and one.id not in dossier.struck]
    if not chosen:
        raise HTTPException(409, "Tick at least one entry that stands; go back, and tick it.")
    because, stays = "", list[str]()
    if to:
        name, chosen, stays = _moved(chosen, inspection, to, desk)
        because = f"moved to {name}"
    drafts = [Draft.write("general.strike", Strike(because=because), desk.now(), strikes=one.id) for one in chosen]
    desk.logbook.append(inspection, drafts, desk.author)
    if stays:
        raise HTTPException(
            409, f"{len(chosen)} moved. {len(stays)} stay here, which the other does not take: {stays[0]}"
        )
    return RedirectResponse(f"/inspections/{inspection}/logbook", 303)


def _moved(chosen: list[Entry], inspection: UUID, to: str, desk: DeskHere) -> tuple[str, list[Entry], list[str]]:
    """Write entries into another inspection: its vehicle's name, those it took, and why it did not take others."""
    try:
        other = UUID(to)
    except ValueError:
        other = inspection
    if other == inspection or not desk.logbook.holds(other):
        raise HTTPException(404, "There is no such inspection to move them to.")
    stuck = sum(not movable(one) for one in chosen)
    if stuck:
        raise HTTPException(
            409, f"{stuck} of them belong to this inspection, or to others of its entries. Nothing was moved."
        )
    fields = set(Draft.model_fields) - {"id"}
    drafts = [Draft.model_validate({**one.model_dump(include=fields), "id": uuid4()}) for one in chosen]
    replies = desk.logbook.append(other, drafts, desk.author)
    refused = {reply.id: reply.message for reply in replies if isinstance(reply, Refused)}
    took = [one for one, draft in zip(chosen, drafts, strict=True) if draft.id not in refused]
    return desk.reckoning(other).dossier.vehicle.name, took, list(refused.values())
