"""Kinds of entry that hold at every station."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Self
from uuid import UUID

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.registry import Body, entry_kind

Number = Annotated[float, Field(ge=-1e9, le=1e9)]
Said = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=2000)]
Words = Annotated[str, StringConstraints(strip_whitespace=True, max_length=2000)]


class Station(StrEnum):
    """Subjects of an inspection that an entry can belong to."""

    FILM = "film"
    GENERAL = "general"
    OUTSIDE = "outside"
    CORNERS = "corners"
    UNDER = "under"
    ENGINE = "engine"
    FUNCTIONS = "functions"
    CABIN = "cabin"
    SCAN = "scan"
    ROAD = "road"
    PAPERS = "papers"


@entry_kind("general.seen")
class Seen(Body):
    """A remark: something seen, in words; a number may be given as a range from `low` to `high` in `unit`."""

    station: Station = Station.GENERAL
    text: Said
    low: Number | None = None
    high: Number | None = None
    unit: Annotated[str, StringConstraints(strip_whitespace=True, max_length=20)] = ""

    @model_validator(mode="after")
    def _range_rises(self) -> Self:
        if (self.low is None) != (self.high is None):
            raise ValueError("a range needs both ends")
        if self.low is not None and self.high is not None and self.low > self.high:
            raise ValueError("the lower end of a range comes first")
        return self


@entry_kind("general.nothing_found")
class NothingFound(Body):
    """Looked, nothing found. At the film station: looked, and there is nothing a gauge could read; outside, `text` says
    what was looked for.
    """

    station: Station
    text: Words = ""


@entry_kind("general.limit")
class Limit(Body):
    """Could not be checked, because.

    One that is `partly` leaves some of it looked at, `hides` says what not. A limit caused by a finding names its entry
    and the rule that proposed it, and what may be done `instead`.
    """

    station: Station
    because: Said
    partly: bool = False
    hides: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = ""
    caused_by: UUID | None = None
    rule: Annotated[str, StringConstraints(max_length=60)] = ""
    instead: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = ""


@entry_kind("general.intervention")
class Intervention(Body):
    """Something opened, wiped, cleaned or moved; with whose leave, and whether it was put back."""

    station: Station = Station.GENERAL
    done: Said
    with_leave_of: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    put_back: bool = True


@entry_kind("general.not_fitted")
class NotFitted(Body):
    """This vehicle has no such thing: neither a gap nor a limit."""

    station: Station = Station.GENERAL
    what: Said


@entry_kind("general.did_not_work")
class DidNotWork(Body):
    """Did not work for the inspector, who may not know how it is done: no fault yet, a question to the seller."""

    station: Station = Station.GENERAL
    what: Said


@entry_kind("general.hint")
class Hint(Body):
    """Something that does not fit; what it may mean; which check would settle it."""

    seen: Said
    may_mean: Annotated[str, StringConstraints(strip_whitespace=True, max_length=2000)] = ""
    settled_by: Annotated[str, StringConstraints(strip_whitespace=True, max_length=2000)] = ""


@entry_kind("general.more_alike")
class MoreAlike(Body):
    """More like what was noted (entry `of`, where it names one), not listed one by one: at least so many."""

    station: Station = Station.GENERAL
    what: Said
    at_least: Annotated[int, Field(ge=1, le=10_000)]
    of: UUID | None = None


@entry_kind("general.ask_seller")
class AskSeller(Body):
    """A question to the seller; the answer is hearsay until something settles it."""

    question: Said


@entry_kind("general.for_desk")
class ForDesk(Body):
    """Something to look up, look at large, or ask, later at the desk.

    `picture` is a picture's name or number on a camera, `shows` the entry of one that is here.
    """

    question: Said
    picture: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)] = ""
    shows: UUID | None = None


@entry_kind("general.do_not_know")
class DoNotKnow(Body):
    """Looked at, and not known: a result that keeps its question open and never turns into fine."""

    station: Station = Station.GENERAL
    what: Said


@entry_kind("general.settled")
class Settled(Body):
    """Closes a hint or answers a question, named by `of`: the answer, where it comes from, and whether by hearsay."""

    of: UUID
    answer: Said
    source: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    hearsay: bool = False


@entry_kind("general.strike")
class Strike(Body):
    """Takes back the entry named in the envelope's `strikes`; both stay readable."""

    because: Words = ""
