"""Service papers: what was done when, the maker's plan, tests with advisories, owners, keys, cover."""

from __future__ import annotations

from typing import Annotated, Self

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.bounds import Day, KeyOf, Several
from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.library import IntervalRow
from hakutsu.vehicle.service import ByWhom, ProofOf

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Short = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)]
Km = Annotated[float, Field(ge=0, le=3_000_000)]
Item = Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("scheduled item")]
Items = Annotated[Several[Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$")]], KeyOf("scheduled item")]


@entry_kind("service.done")
class ServiceDone(Body):
    """A service or repair: when, at which distance [km], by whom, what proves it, and what was done.

    `whole`: a service by the plan, so that what was due then was done. `number` is that of an invoice.
    """

    on: Day = ""
    at_km: Km | None = None
    by: ByWhom = ByWhom.UNKNOWN
    proof: ProofOf = ProofOf.STAMP
    items: Items = ()
    whole: bool = False
    number: Short = ""
    note: Note = ""

    @model_validator(mode="after")
    def _says_when(self) -> Self:
        if not self.on and self.at_km is None:
            raise ValueError("say when, or at which distance")
        return self


class PlanRow(IntervalRow):
    """A row of a plan: an item that is known here, and its interval by distance [km] and time [months]."""

    item: Item


@entry_kind("service.plan")
class Plan(Body):
    """The maker's plan for this vehicle, as it is told or taken from the library; a row corrects that of its item."""

    name: Short = ""
    rows: Annotated[tuple[PlanRow, ...], Field(min_length=1, max_length=40)]


@entry_kind("service.countdown")
class Countdown(Body):
    """What the dashboard says is left to the next service: distance [km, negative if overdue], days."""

    remaining_km: Annotated[float, Field(ge=-100_000, le=100_000)] | None = None
    remaining_days: Annotated[float, Field(ge=-4000, le=4000)] | None = None

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if self.remaining_km is None and self.remaining_days is None:
            raise ValueError("say how far, or how many days")
        return self


class Passed(Keyed):
    """How a test ended."""

    PASSED = "passed"
    FAILED = "failed"


@entry_kind("service.test")
class TestHeld(Body):
    """A periodic test: when, at which distance [km], how it ended, and until when it holds."""

    on: Day
    at_km: Km | None = None
    ended: Passed = Passed.PASSED
    until: Day = ""
    note: Note = ""


@entry_kind("service.advisory")
class Advisory(Body):
    """What a test advised of, in its words and by topic; its place is where on the vehicle."""

    on: Day = ""
    topic: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("advisory")]
    words: Note = ""


class Counts(Keyed):
    """What a number of owners counts."""

    UNKNOWN = "unknown", "not told what it counts"
    FORMER = "former", "former keepers"
    ALL = "all", "the present one too"


@entry_kind("service.owners")
class Owners(Body):
    """Owners by a document, and what that number counts."""

    count: Annotated[int, Field(ge=0, le=99)]
    counts: Counts = Counts.UNKNOWN
    document: Short = ""


@entry_kind("service.keys")
class Keys(Body):
    """Keys that are there, and how many of them work."""

    there: Annotated[int, Field(ge=0, le=20)]
    work: Annotated[int, Field(ge=0, le=20)] | None = None
    note: Note = ""

    @model_validator(mode="after")
    def _holds(self) -> Self:
        if self.work is not None and self.work > self.there:
            raise ValueError("more keys work than are there")
        return self


class CoverKind(Keyed):
    """Kinds of cover."""

    WARRANTY = "warranty", "maker’s warranty"
    EXTENDED = "extended", "extended warranty"
    CERTIFIED = "certified", "certified programme of a dealer"


@entry_kind("service.cover")
class Cover(Body):
    """A warranty or programme: by whom, until when and which distance [km], whether it goes over to a buyer, proof."""

    kind: CoverKind = CoverKind.WARRANTY
    by: Short = ""
    until: Day = ""
    until_km: Km | None = None
    transferable: bool | None = None
    proof: Short = ""
