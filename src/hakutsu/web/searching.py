"""Search over all inspections."""

from __future__ import annotations

from threading import Event
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import Response
from sqlalchemy.exc import DBAPIError

from hakutsu import __version__
from hakutsu.logbook.trouble import words
from hakutsu.logbook.words import Kept
from hakutsu.reckoning import terms
from hakutsu.report.searching import LONGEST_SEARCH, Found, Words, parts_of, search, words_of
from hakutsu.web.desk import Desk, DeskHere
from hakutsu.web.rendering import page
from hakutsu.web.station import shown_at

MOST, AT_ONCE = 20, 5
RENEWING = "search words"
router = APIRouter()


def _find(desk: Desk, asked: str) -> list[Found]:
    try:
        renew(desk)
    except DBAPIError as error:  # what was found by words before is found still
        desk.background.ended[RENEWING] = f"the database {words(error)}"
    holding = desk.logbook.words.holding(parts_of(asked))
    found = [one for kept in holding if (one := search(Words.model_validate(kept), asked)) is not None]
    return sorted(found, key=lambda one: not one.itself)


def renew(desk: Desk, stopped: Event | None = None) -> None:
    """Make the words anew of every inspection that changed, or is shown in other words, since they were made.

    Run at the start of the server as well, so that no search after an update waits for all of them; `stopped` ends it.
    """
    if desk.logbook.read_only:
        return  # what was found by words before is found still
    kept, shown = desk.logbook.words.keys(), terms(desk.settings).model_dump_json()
    keys = {one: f"{tip} {shown} {__version__}" for one, tip in desk.logbook.tips().items()}
    stale = [inspection for inspection, key in keys.items() if kept.get(inspection) != key]
    for start in range(0, len(stale), AT_ONCE):
        if stopped is not None and stopped.is_set():
            return
        some = stale[start : start + AT_ONCE]
        made = [desk.attempt(one, lambda inspection: _made(desk, inspection, keys[inspection])) for one in some]
        kept_words = [
            one if isinstance(one, Kept) else Kept(id, keys[id], "", {}) for id, one in zip(some, made, strict=True)
        ]
        desk.logbook.words.keep(kept_words)


def _made(desk: Desk, inspection: UUID, key: str) -> Kept:
    reckoning = desk.reckoned(inspection)
    if reckoning.dossier.opening.vehicle is None:
        return Kept(inspection, key, "", {})  # opened, but its first entry never arrived
    words = words_of(reckoning, shown_at)
    return Kept(inspection, key, words.text, words.model_dump(mode="json"))


@router.get("/search")
def show_search(request: Request, desk: DeskHere, q: str = "") -> Response:
    """What holds every word asked for: vehicles and buyers first, then findings."""
    asked = " ".join(q.split())
    fault = f"At most {LONGEST_SEARCH} characters; this has {len(asked):,}." if len(asked) > LONGEST_SEARCH else ""
    found = [] if fault or not asked else _find(desk, asked)
    context = {"asked": asked[:LONGEST_SEARCH], "found": found, "most": MOST, "fault": fault,
               "ended": desk.background.ended.get(RENEWING, "")}  # fmt: skip
    return page(request, "search.html", status=422 if fault else 200, **context)
