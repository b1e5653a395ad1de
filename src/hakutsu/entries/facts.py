"""Small entries about the vehicle itself: one fact at a time, what it is fitted with, and where a part comes from."""

from __future__ import annotations

import re
from typing import Annotated, Any, Self

from pydantic import Field, StringConstraints, ValidationError, model_validator

from hakutsu.entries.bounds import KeyOf, Several
from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.mechanics import Mechanics

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Value = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)]
FACTS = tuple(name for name in Mechanics.model_fields if name not in ("also_fitted", "not_fitted"))


def _first_day(value: bool | float | str) -> object:
    """A date of first use that was told as a year or a month: its middle, so that the age errs least."""
    said = f"{value:.0f}" if isinstance(value, float) else value
    if isinstance(said, str) and re.fullmatch(r"\d{4}", said):
        return f"{said}-07-01"
    return f"{said}-15" if isinstance(said, str) and re.fullmatch(r"\d{4}-\d{2}", said) else said


class Source(Keyed):
    """Where a fact about the vehicle comes from."""

    SEEN = "seen", "seen on the vehicle"
    PAPERS = "papers", "from the papers"
    SELLER = "seller", "said by the seller"
    ADVERT = "advert", "from the advert"
    UNKNOWN = "unknown", "not told"


@entry_kind("vehicle.fact")
class Fact(Body):
    """One fact of the vehicle, by the name it has among the mechanical facts, such as `odometer_km` or `first_used`.

    `value` is a key, a date, a number in km or bar, or yes or no; empty where the fact is not known after all. One that
    `corrects` takes the place of what was said before; otherwise it is a mention beside the others, held against them.
    """

    fact: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$")]
    value: bool | Annotated[float, Field(ge=-1e9, le=1e9)] | Value = ""
    source: Source = Source.UNKNOWN
    corrects: bool = False
    note: Note = ""

    @model_validator(mode="after")
    def _holds(self) -> Self:
        if self.fact not in FACTS:
            raise ValueError(f"“{self.fact}” is no fact that is known; there are {', '.join(FACTS)}")
        self.applied(Mechanics())
        return self

    def applied(self, mechanics: Mechanics) -> Mechanics:
        """These facts with this one in its place.

        Raises
        ------
        ValueError
            If the value is none that the fact can have.
        """
        facts: dict[str, Any] = mechanics.model_dump(mode="json", exclude_defaults=True)
        facts.pop(self.fact, None)
        if self.value != "":
            facts[self.fact] = _first_day(self.value) if self.fact == "first_used" else self.value
        try:
            return Mechanics.model_validate(facts)
        except ValidationError as error:
            raise ValueError(error.errors()[0]["msg"]) from error


Fitting = Annotated[Several[Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$")]], KeyOf("thing to be fitted")]


@entry_kind("vehicle.fitted")
class Fitted(Body):
    """What this vehicle has and has not, by key: things to try, parts with a life or grade, looks at the engine."""

    there: Fitting = ()
    absent: Fitting = ()
    note: Note = ""

    @model_validator(mode="after")
    def _one_answer(self) -> Self:
        both = sorted(set(self.there) & set(self.absent))
        if both:
            raise ValueError(f"{', '.join(both)}: either there or not")
        if not self.there and not self.absent:
            raise ValueError("say what is there, or what is not")
        return self


class PartOrigin(Keyed):
    """Where a part comes from, apart from how it is."""

    ORIGINAL = "original"
    RENEWED = "renewed"
    RESTORED = "restored"
    REPRODUCTION = "reproduction"
    SWAPPED = "swapped", "from another vehicle"
    UNKNOWN = "unknown", "not known"


@entry_kind("vehicle.origin")
class OriginSaid(Body):
    """Where a part comes from: original, renewed, restored, a reproduction, from another vehicle; when, and the proof.

    `part` is named freely, "radiator" or "all four doors"; the entry's place says where it lies.
    """

    part: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    origin: PartOrigin
    when: Annotated[str, StringConstraints(pattern=r"^((18|19|20|21)\d{2}(-(0[1-9]|1[0-2]))?)?$")] = ""
    proof: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    source: Source = Source.UNKNOWN
    note: Note = ""


@entry_kind("vehicle.restored")
class Restored(Body):
    """What was restored, as a list in the words it was told in; when, by whom, and the proof."""

    what: Annotated[
        tuple[Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)], ...],
        Field(min_length=1, max_length=60),
    ]
    when: Annotated[str, StringConstraints(pattern=r"^((18|19|20|21)\d{2}(-(0[1-9]|1[0-2]))?)?$")] = ""
    by_whom: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    proof: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    source: Source = Source.UNKNOWN
    note: Note = ""
