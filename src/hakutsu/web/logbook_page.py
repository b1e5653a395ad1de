"""The logbook of an inspection, entry by entry, in words."""

from __future__ import annotations

from fastapi import APIRouter, Request
from fastapi.responses import Response

from hakutsu.report.wording import body_words
from hakutsu.web.desk import ReckoningHere
from hakutsu.web.rendering import page

router = APIRouter()


@router.get("/inspections/{inspection}/logbook")
def show_logbook(request: Request, reckoning: ReckoningHere) -> Response:
    """Every entry, newest last, struck ones crossed out."""
    dossier, terms = reckoning.dossier, reckoning.terms
    lines = [
        (entry, *body_words(entry.parsed(), terms), terms.place(entry.place), entry.id in dossier.struck)
        for entry in dossier.entries
    ]
    numbers = {entry.id: entry.seq for entry in dossier.entries}
    return page(request, "logbook.html", dossier=dossier, lines=lines, numbers=numbers, tab="logbook")
