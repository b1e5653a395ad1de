"""The variant a vehicle is said to be: its features and weak points as they are found."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, StringConstraints

from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.library import FeatureRow, FilmUm, Key, WeakRow, Words

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]


@entry_kind("variant.taken")
class VariantTaken(Body):
    """The variant the vehicle is said to be, with what the library knew of it on that day: features, weak points,
    colours by code, letters of dated marks by name, notes on fault codes, what its factory sprays [µm].
    """

    key: Key
    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    features: Annotated[tuple[FeatureRow, ...], Field(max_length=60)] = ()
    weak: Annotated[tuple[WeakRow, ...], Field(max_length=60)] = ()
    colours: dict[Words, Words] = Field(default_factory=dict, max_length=200)
    letters: dict[Words, Words] = Field(default_factory=dict, max_length=40)
    codes: dict[Words, Words] = Field(default_factory=dict, max_length=200)
    film_um: tuple[FilmUm, FilmUm] | None = None


class Result(Keyed):
    """How a feature was found."""

    AGREES = "agrees"
    DISAGREES = "disagrees"
    HIDDEN = "hidden", "cannot be seen"
    REPLACED = "replaced", "part replaced: says nothing"


@entry_kind("variant.feature")
class FeatureSeen(Body):
    """A feature by its key: how it was found, and what was found."""

    feature: Key
    result: Result
    found: Note = ""


class WeakResult(Keyed):
    """What became of a weak point."""

    FOUND = "found"
    NONE = "none", "looked, not found"
    ABSENT = "absent", "absent by design"


@entry_kind("variant.weak")
class WeakSeen(Body):
    """A weak point by its key, and what was found of it."""

    weak: Key
    result: WeakResult
    note: Note = ""
