"""The inspector's own library: variants with features, weak points, intervals, colours; its file, and its schema."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Annotated, Any, Self

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, ValidationError, model_validator

from hakutsu.vehicle.keyed import Keyed

VERSION = 1
MOST_BYTES = 2_000_000
DEEPEST = 12
Key = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_]{0,39}$")]
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Words = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Year = Annotated[int, Field(ge=1886, le=2199)]
FilmUm = Annotated[float, Field(ge=0, le=5000)]
Month = Annotated[str, StringConstraints(pattern=r"^(\d{4}(-(0[1-9]|1[0-2]))?)?$")]


class Weight(Keyed):
    """What carries a feature, the most telling first."""

    NUMBER = "number", "trim coded by a number"
    STAMP = "stamp"
    CASTING = "casting"
    BOLTED = "bolted", "bolted part"
    BADGE = "badge"


class _Kept(BaseModel):
    model_config = ConfigDict(extra="forbid", frozen=True)


class FeatureRow(_Kept):
    """A feature: what is expected, what carries it, from and to which build month, the assembly it belongs to (which
    counts once when it was swapped), and features it shuts out.
    """

    key: Key
    name: Name
    expected: Name
    weight: Weight = Weight.BOLTED
    since: Month = ""
    until: Month = ""
    assembly: Key | None = None
    excludes: Annotated[tuple[Key, ...], Field(max_length=20)] = ()

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.since and self.until and self.since[:4] > self.until[:4]:
            raise ValueError(f"{self.key}: ends before it begins")
        return self


class WeakRow(_Kept):
    """A known weak point, where it is looked at, and what is seen where it has come."""

    key: Key
    name: Name
    place: Annotated[str, StringConstraints(max_length=40)] = ""
    shows: Words = ""


class IntervalRow(_Kept):
    """An interval of the maker's plan by distance [km] and time [months]."""

    item: Key
    km: Annotated[float, Field(gt=0, le=1_000_000)] | None = None
    months: Annotated[float, Field(gt=0, le=600)] | None = None

    @model_validator(mode="after")
    def _has_one(self) -> Self:
        if self.km is None and self.months is None:
            raise ValueError(f"{self.item} has no interval: give a distance, a time, or both")
        return self


class VariantRow(_Kept):
    """A variant: what it is, the one it is a kind of (`of`: what is not said here is taken from it), and what is known.

    `years` first and last; `film_um` what its factory sprays [µm]; `letters` tables of dated marks by name; `codes`
    notes on fault codes; `colours` by code.
    """

    name: Name
    make: Words = ""
    model: Words = ""
    of: Key | None = None
    years: tuple[Year, Year] | None = None
    bodies: Annotated[tuple[Key, ...], Field(max_length=20)] = ()
    drive: Words = ""
    features: Annotated[tuple[FeatureRow, ...], Field(max_length=60)] = ()
    weak: Annotated[tuple[WeakRow, ...], Field(max_length=60)] = ()
    plan: Annotated[tuple[IntervalRow, ...], Field(max_length=40)] = ()
    colours: Annotated[dict[str, Name], Field(max_length=200)] = {}
    film_um: tuple[FilmUm, FilmUm] | None = None
    letters: Annotated[dict[str, Words], Field(max_length=40)] = {}
    codes: Annotated[dict[str, Words], Field(max_length=200)] = {}

    def fits(self, body: str, year: int | None) -> bool:
        """Whether a vehicle of this body, first used in this year, may be one; one may be sold a year later."""
        in_time = self.years is None or year is None or self.years[0] <= year <= self.years[1] + 1
        return in_time and (not self.bodies or body in self.bodies)


class LibraryFile(_Kept):
    """A library as a file."""

    version: int = VERSION
    variants: Annotated[dict[Key, VariantRow], Field(max_length=500)] = {}

    @model_validator(mode="after")
    def _holds(self) -> Self:
        if self.version != VERSION:
            raise ValueError(f"version {self.version} is not known here; this reads version {VERSION}")
        for key in self.variants:
            self.line(key)
        return self

    def line(self, key: str) -> list[VariantRow]:
        """A variant and all it is a kind of, the nearest first.

        Raises
        ------
        ValueError
            If one of them is not there, or they lead back to one of themselves.
        """
        found: list[str] = []
        at: str | None = key
        while at is not None:
            if at not in self.variants:
                raise ValueError(f"{found[-1] if found else key} is a kind of {at}, which is not in the file")
            if at in found or len(found) > DEEPEST:
                raise ValueError(f"a loop: {' is a kind of '.join([*found, at])}")
            found.append(at)
            at = self.variants[at].of
        return [self.variants[one] for one in found]

    def whole(self, key: str) -> VariantRow:
        """A variant with what it takes from those it is a kind of; its own rows go before theirs of the same key."""
        line = self.line(key)
        first = line[0]
        return first.model_copy(update={
            "features": _merged([one.features for one in line]), "weak": _merged([one.weak for one in line]),
            "plan": tuple({row.item: row for one in reversed(line) for row in one.plan}.values()),
            "colours": {code: name for one in reversed(line) for code, name in one.colours.items()},
            "letters": {name: said for one in reversed(line) for name, said in one.letters.items()},
            "codes": {code: said for one in reversed(line) for code, said in one.codes.items()},
            "film_um": next((one.film_um for one in line if one.film_um), None),
            "make": next((one.make for one in line if one.make), ""),
            "model": next((one.model for one in line if one.model), ""),
            "bodies": next((one.bodies for one in line if one.bodies), ()),
            "years": next((one.years for one in line if one.years), None),
            "drive": next((one.drive for one in line if one.drive), ""),
        })  # fmt: skip


def _merged(lists: list[tuple[Any, ...]]) -> tuple[Any, ...]:
    return tuple({row.key: row for rows in reversed(lists) for row in rows}.values())


class BadLibrary(ValueError):
    """A file that is no library of this kind; `faults` names everything that is wrong with it."""

    def __init__(self, faults: list[str]) -> None:
        super().__init__("; ".join(faults))
        self.faults = faults


def read_library(data: bytes) -> LibraryFile:
    """Read a library file.

    Raises
    ------
    BadLibrary
        With every fault, each with where it stands.
    """
    if len(data) > MOST_BYTES:
        raise BadLibrary([f"larger than {MOST_BYTES:,} bytes"])
    try:
        said = json.loads(data)
    except (ValueError, RecursionError) as error:
        raise BadLibrary([f"no JSON: {error}"]) from error
    if not isinstance(said, dict):
        raise BadLibrary(["no object with version and variants"])
    try:
        return LibraryFile.model_validate(said)
    except ValidationError as error:
        raise BadLibrary(list(_faults(error))) from error


def _faults(error: ValidationError) -> Iterator[str]:
    for one in error.errors():
        where = ".".join(str(part) for part in one["loc"])
        words = one["msg"].removeprefix("Value error, ")
        yield f"{where}: {words}" if where else words


def library_schema() -> dict[str, Any]:
    """JSON Schema of a library file."""
    return LibraryFile.model_json_schema()
