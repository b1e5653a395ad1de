"""Functions tried, what is fitted, and lamps on the dashboard."""

from __future__ import annotations

from typing import Annotated, Self

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.bounds import KeyOf
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.equipment import OWN
from hakutsu.vehicle.keyed import Keyed

Key = Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("equipment")]
Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]

Name = Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)]


def named(item: str, name: str) -> None:
    """See that a thing the list does not know has a name.

    Raises
    ------
    ValueError
        If it has none.
    """
    if item == OWN and not any(one.isalnum() for one in name):
        raise ValueError("name what the list does not know")


class Result(Keyed):
    """What one try showed."""

    WORKS = "works"
    BUT = "but", "works, but"
    PARTLY = "partly"
    FAILS = "fails"
    NOT_FOR_ME = "not_for_me", "could not operate"
    NOT_TESTED = "not_tested", "not tested"


@entry_kind("function.tried", version=2, upgrades={1: to_keys})
class Tried(Body):
    """One try of one thing: what it showed; `but` how (noisy, slow, unlike its twin); how many of how many; why not.

    A thing that the list does not know is `own`, with the `name` the inspector gives it.
    """

    item: Key
    result: Result
    name: Name = ""
    but: Note = ""
    working: Annotated[int, Field(ge=0, le=99)] | None = None
    of: Annotated[int, Field(ge=1, le=99)] | None = None

    @model_validator(mode="after")
    def _says_enough(self) -> Self:
        named(self.item, self.name)
        if self.result in (Result.BUT, Result.NOT_TESTED) and not self.but:
            raise ValueError("say what is unlike it should be" if self.result is Result.BUT else "say why not")
        if self.working is not None and self.of is not None and self.working > self.of:
            raise ValueError("more work than there are")
        return self

    def causes(self) -> tuple[str, ...]:
        return ("no_belt",) if self.item.startswith("front_belt") and self.result is Result.FAILS else ()


@entry_kind("function.fitted")
class FittedSaid(Body):
    """A thing is there, or not, on this vehicle."""

    item: Key
    there: bool
    name: Name = ""

    @model_validator(mode="after")
    def _named(self) -> Self:
        named(self.item, self.name)
        return self


class LampKind(Keyed):
    """What a lamp on the dashboard is."""

    FAULT = "fault"
    REMINDER = "reminder"
    OUR_DOING = "our_doing", "our doing"


@entry_kind("function.lamp", version=2, upgrades={1: to_keys})
class Lamp(Body):
    """A lamp that stays on: which, its kind; `red` forbids driving when it is a fault."""

    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
    kind: LampKind = LampKind.FAULT
    red: bool = False
    note: Note = ""

    def causes(self) -> tuple[str, ...]:
        return ("red_lamp",) if self.red and self.kind is LampKind.FAULT else ()
