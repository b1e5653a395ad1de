"""Fold of the entries that hold at every station and place."""

from __future__ import annotations

from dataclasses import dataclass, field
from uuid import UUID

from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.general import (
    AskSeller,
    DidNotWork,
    DoNotKnow,
    ForDesk,
    Hint,
    Limit,
    MoreAlike,
    NotFitted,
    NothingFound,
    Seen,
    Settled,
    Station,
)

Question = AskSeller | ForDesk | Hint | DidNotWork | DoNotKnow


@dataclass(frozen=True, slots=True)
class Kept:
    """An entry that stands, with its body."""

    entry: Entry
    body: Seen | NothingFound | Limit | NotFitted | Question


@dataclass(slots=True)
class General:
    """What was said at each place, and the questions that are still open or were answered.

    `nothing` holds by place or part where somebody looked and found nothing, `stated` all that was said so of a
    station; `every_limit` all limits of stations other than film, those that lie nowhere among them.
    """

    at: dict[str, list[Kept]] = field(default_factory=dict)
    nothing: dict[str, Kept] = field(default_factory=dict)
    limits: dict[str, Kept] = field(default_factory=dict)
    every_limit: list[Kept] = field(default_factory=list)
    stated: list[Kept] = field(default_factory=list)
    more: list[tuple[Entry, MoreAlike]] = field(default_factory=list)
    questions: dict[UUID, Kept] = field(default_factory=dict)
    answers: dict[UUID, tuple[Entry, Settled]] = field(default_factory=dict)

    def open(self, kind: type[Question]) -> list[Kept]:
        """Questions of a kind that nothing has settled yet, in the order of the logbook."""
        return [kept for key, kept in self.questions.items() if isinstance(kept.body, kind) and key not in self.answers]

    def limited(self, station: Station) -> bool:
        """True when something of a station is said not to have been checked."""
        return any(isinstance(one.body, Limit) and one.body.station is station for one in self.every_limit)

    def looked_at(self, place: str) -> bool:
        """True when anything was seen, found to be nothing, or not known at a place."""
        return place in self.nothing or any(not isinstance(kept.body, Limit) for kept in self.at.get(place, ()))


def _keep(gathering: Gathering, entry: Entry, body: Seen | NothingFound | Limit | NotFitted | Question) -> None:
    general = gathering.station(General)
    kept = Kept(entry, body)
    if entry.place:
        general.at.setdefault(entry.place, []).append(kept)
    if isinstance(body, Question):
        general.questions[entry.id] = kept


@fold("general.seen")
def _seen(gathering: Gathering, entry: Entry, body: Seen) -> None:
    _keep(gathering, entry, body)
    # A find contradicts an earlier "nothing" at the same place; that entry stays readable in the logbook.
    if entry.place:
        gathering.station(General).nothing.pop(entry.place, None)


@fold("general.nothing_found")
def _nothing(gathering: Gathering, entry: Entry, body: NothingFound) -> None:
    general = gathering.station(General)
    if body.station in (Station.FILM, Station.OUTSIDE):
        return
    if entry.place:
        general.nothing[entry.place] = Kept(entry, body)
    if not entry.place or body.station is not Station.GENERAL:
        general.stated.append(Kept(entry, body))


@fold("general.limit")
def _limit(gathering: Gathering, entry: Entry, body: Limit) -> None:
    if body.station is Station.FILM or body.caused_by is not None:
        return
    general = gathering.station(General)
    general.every_limit.append(Kept(entry, body))
    if entry.place and not body.partly:
        general.limits[entry.place] = Kept(entry, body)
    _keep(gathering, entry, body)


@fold("general.more_alike")
def _more(gathering: Gathering, entry: Entry, body: MoreAlike) -> None:
    gathering.station(General).more.append((entry, body))


@fold("general.not_fitted")
def _not_fitted(gathering: Gathering, entry: Entry, body: NotFitted) -> None:
    _keep(gathering, entry, body)


@fold("general.did_not_work")
@fold("general.hint")
@fold("general.ask_seller")
@fold("general.for_desk")
@fold("general.do_not_know")
def _question(gathering: Gathering, entry: Entry, body: Question) -> None:
    _keep(gathering, entry, body)


@fold("general.settled")
def _settled(gathering: Gathering, entry: Entry, body: Settled) -> None:
    gathering.station(General).answers[body.of] = (entry, body)
