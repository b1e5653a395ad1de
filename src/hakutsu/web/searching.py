"""Search over all inspections."""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Callable, Mapping
from functools import partial
from threading import Event
from uuid import UUID

from fastapi import APIRouter, Request
from fastapi.responses import Response
from sqlalchemy.exc import DBAPIError

from hakutsu import __version__
from hakutsu.logbook.derived import Kept
from hakutsu.logbook.trouble import words
from hakutsu.reckoning import terms
from hakutsu.report.searching import LONGEST_SEARCH, Found, Words, glanced_words, parts_of, search, words_of
from hakutsu.web.desk import Desk, DeskHere
from hakutsu.web.rendering import page
from hakutsu.web.station import shown_at

MOST, SHOWN = 20, 50
SECONDS = 1.0  # so long may a search make words that are not up to date; others are made in the background
PAUSE = 1.0
RENEWING = "search words"
GLANCED = "typed words only"
FEW = 40  # so many are made in full without a glance before
QUIET = 20.0  # one that goes on is made anew when nothing came for so long, or when somebody searches [s]
router = APIRouter()


def _find(desk: Desk, asked: str) -> tuple[list[Found], int]:
    """What of the newest inspections that hold every word is shown, and how many hold them."""
    until = time.monotonic() + SECONDS
    try:
        stale = _stale(desk)
        for inspection, key in _newest(desk, stale) if len(stale) <= FEW else ():
            if time.monotonic() <= until:
                _make(desk, inspection, key)
            elif inspection not in desk.words_kept:  # no time left: what was typed is found at least
                _glance(desk, inspection)
    except DBAPIError as error:  # what was found by words before is found still
        desk.background.ended[RENEWING] = f"the database {words(error)}"
    holding, count = desk.logbook.derived.holding(parts_of(asked), SHOWN)
    every = [one for kept in holding if (one := search(Words.model_validate(kept), asked)) is not None]
    found = [one for one in every if desk.logbook.holds(one.words.inspection)]
    return sorted(found, key=lambda one: not one.itself), count if count > SHOWN else len(found)


def _stale(desk: Desk) -> dict[UUID, str]:
    """Inspections whose words are not up to date, with the key they are to be made under."""
    shown = terms(desk.settings).model_dump_json()
    kept = desk.words_kept
    keys = {one: f"{end.hash} {shown} {__version__}" for one, end in desk.logbook.ends().items()}
    return {one: key for one, key in keys.items() if kept.get(one) != key}


def _newest(desk: Desk, stale: Mapping[UUID, str]) -> list[tuple[UUID, str]]:
    """The same, those opened last first."""
    opened = desk.logbook.all_opened_at() if len(stale) > 1 else {}
    return sorted(stale.items(), key=lambda one: opened.get(one[0], ""), reverse=True)


def _make(desk: Desk, inspection: UUID, key: str) -> None:
    """Make the words of an inspection anew."""
    made = desk.attempt(inspection, partial(_made, desk, key))
    kept = made if isinstance(made, Kept) else Kept(inspection, key, "", {})
    desk.logbook.derived.keep([kept])
    desk.words_kept[inspection] = key


def _glance(desk: Desk, inspection: UUID) -> None:
    """Give an inspection that has no words yet those that were typed, so that it is found until its own are made."""
    words = glanced_words(inspection, [row.draft for row in desk.logbook.rows(inspection)])
    opened_at = desk.logbook.opened_at(inspection)
    desk.logbook.derived.keep([Kept(inspection, GLANCED, words.text, words.model_dump(mode="json"), opened_at)])
    desk.words_kept[inspection] = GLANCED


class _Quiet:
    """Which of those that are not up to date nobody works on."""

    def __init__(self) -> None:
        self._since: dict[tuple[UUID, str], float] = {}

    def of(self, stale: Mapping[UUID, str], kept: Mapping[UUID, str], now: float) -> dict[UUID, str]:
        """Those without words, and those that have been as they are for a while."""
        self._since = {one: self._since.get(one, now) for one in stale.items()}
        ripe = {one for (one, _), since in self._since.items() if now - since >= QUIET}
        return {one: key for one, key in stale.items() if one in ripe or one not in kept or kept[one] == GLANCED}


def _some(work: deque[Callable[[], None]], until: float) -> None:
    """Do the first of what there is to do, until a time."""
    while work:
        work.popleft()()
        if time.monotonic() > until:
            return


def renew(desk: Desk, stopped: Event) -> None:
    """Keep the words of every inspection up to date until it is stopped: first at a glance, then in full."""
    quiet = _Quiet()
    desk.turns.after_the_first(stopped)
    while not stopped.is_set():
        try:
            stale = _newest(desk, quiet.of(_stale(desk), desk.words_kept, time.monotonic()))
            glanced = [one for one, _ in stale if one not in desk.words_kept] if len(stale) > FEW else []
            work = deque[Callable[[], None]](partial(_glance, desk, one) for one in glanced)
            work.extend(partial(_make, desk, one, key) for one, key in stale)
            while work and not stopped.is_set():
                with desk.turns.behind(stopped) as until:
                    _some(work, until)
        except DBAPIError as error:
            desk.background.ended[RENEWING] = f"the database {words(error)}"
        stopped.wait(PAUSE)


def _made(desk: Desk, key: str, inspection: UUID) -> Kept:
    reckoning = desk.at_hand(inspection) or desk.reckoned(inspection)
    opened_at = desk.logbook.opened_at(inspection)
    if reckoning.dossier.opening.vehicle is None:
        return Kept(inspection, key, "", {}, opened_at)  # opened, but its first entry never arrived
    made = words_of(reckoning, shown_at)
    return Kept(inspection, key, made.text, made.model_dump(mode="json"), opened_at)


@router.get("/search")
def show_search(request: Request, desk: DeskHere, q: str = "") -> Response:
    """What holds every word asked for: vehicles and buyers first, then findings."""
    asked = " ".join(q.split())
    fault = f"At most {LONGEST_SEARCH} characters; this has {len(asked):,}." if len(asked) > LONGEST_SEARCH else ""
    found, count = ([], 0) if fault or not asked else _find(desk, asked)
    context = {"asked": asked[:LONGEST_SEARCH], "found": found, "count": count, "most": MOST, "fault": fault,
               "ended": desk.background.ended.get(RENEWING, "")}  # fmt: skip
    return page(request, "search.html", status=422 if fault else 200, **context)
