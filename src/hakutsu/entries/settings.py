"""Settings: of the account, and what one inspection has otherwise. Stored values are SI and do not change with them."""

from __future__ import annotations

from decimal import Decimal
from functools import cache, cached_property
from typing import Annotated, Literal, Self
from zoneinfo import available_timezones

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, field_validator, model_validator

from hakutsu.entries.bounds import KeyOf
from hakutsu.entries.day import Walk
from hakutsu.entries.opening import Currency, Price
from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.quantities import scales
from hakutsu.vehicle.rules import rule_sets
from hakutsu.vehicle.vocabulary import Names, Protocol, SideNames, Unit

Amount = Annotated[float, Field(ge=0, le=100_000)]
Host = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9.:-]{1,253}$", max_length=253)]
Rate = Annotated[Price, Field(gt=0, le=10_000)]


@cache
def time_zones() -> frozenset[str]:
    """Names of all time zones known to this installation (IANA)."""
    return frozenset(available_timezones())


Film = Annotated[float, Field(gt=0, le=5_000)]
Make = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]


class FilmBand(BaseModel):
    """The inspector's own band of film [µm]: up to the first factory, between doubtful, above the second refinished."""

    model_config = ConfigDict(frozen=True)

    low_um: Film
    high_um: Film

    @model_validator(mode="after")
    def _rising(self) -> Self:
        if self.low_um > self.high_um:
            raise ValueError("the lowest is above the highest")
        return self


class JobFigures(BaseModel):
    """Hours of labour [h] and materials [the account's currency] of a job, lowest and highest of what is usual."""

    model_config = ConfigDict(frozen=True)

    hours: tuple[Amount, Amount]
    materials: tuple[Amount, Amount]

    @model_validator(mode="after")
    def _rising(self) -> Self:
        if self.hours[0] > self.hours[1] or self.materials[0] > self.materials[1]:
            raise ValueError("the lowest is above the highest")
        return self


class LifeFigures(BaseModel):
    """The inspector's own figures of a part: characteristic life, or interval, by distance [1,000 km] and time [years],
    and the shape of its wear-out where it has one.
    """

    model_config = ConfigDict(frozen=True)

    km: Annotated[float, Field(gt=0, le=5_000)] | None = None
    years: Annotated[float, Field(gt=0, le=100)] | None = None
    beta: Annotated[float, Field(ge=0.5, le=10)] | None = None

    @model_validator(mode="after")
    def _some_clock(self) -> Self:
        if self.km is None and self.years is None:
            raise ValueError("a life by distance, by time, or both")
        return self


def _known(kind: str, value: str | None, known: object) -> str | None:
    if value is not None and value not in known:  # type: ignore[operator]
        raise ValueError(f"“{value}” is no {kind} that is known")
    return value


class _Checked(BaseModel):
    @field_validator("distance", "depth", "temperature", "pressure", check_fields=False)
    @classmethod
    def _unit(cls, value: str | None, info: object) -> str | None:
        return _known("unit", value, scales(info.field_name))  # type: ignore[attr-defined]

    @field_validator("zone", check_fields=False)
    @classmethod
    def _zone(cls, value: str | None) -> str | None:
        return _known("time zone", value, time_zones())

    @field_validator("rules", check_fields=False)
    @classmethod
    def _rules(cls, value: str | None) -> str | None:
        return _known("rule set", value, rule_sets())


@entry_kind("inspection.settings")
class Overrides(Body, _Checked):
    """What one inspection has otherwise than its account; none is as the account has it. A later one replaces it."""

    names: Names | None = None
    sides: SideNames | None = None
    film: Unit | None = None
    distance: str | None = None
    depth: str | None = None
    temperature: str | None = None
    pressure: str | None = None
    zone: str | None = None
    rules: str | None = None
    labour_rate: Rate | None = None
    costs: Annotated[dict[str, JobFigures], Field(max_length=300), KeyOf("job")] = {}
    lives: Annotated[dict[str, LifeFigures], Field(max_length=300), KeyOf("part with a life")] = {}


class Settings(_Checked):
    """Settings of the account.

    `film_school` is how film is judged unless the finish says otherwise, `film_band` and, by make, `film_bands` what
    the school *fixed* goes by. `film` none shows film in the unit of the gauge in use. Currency, protocol and walk
    are what a new inspection begins with: an inspection has its own in its brief and walk.
    """

    model_config = ConfigDict(frozen=True)

    names: Names = Names.BRITISH
    sides: SideNames = SideNames.OWN
    film: Unit | None = None
    distance: str = "km"
    depth: str = "mm"
    temperature: str = "c"
    pressure: str = "bar"
    zone: str = "UTC"
    rules: str = "general_left"
    labour_rate: Rate = Decimal(65)
    costs: dict[str, JobFigures] = {}
    lives: dict[str, LifeFigures] = {}
    currency: Currency = "EUR"
    protocol: Protocol = Protocol.STANDARD
    walk: Walk = Walk()
    film_school: Literal["own", "fixed", "restored"] | None = None  # none: that of the declared finish
    film_band: FilmBand | None = None
    film_bands: Annotated[dict[Make, FilmBand], Field(max_length=60)] = {}
    film_learn: bool = True  # from finished inspections of the same make and colour
    link_hosts: Annotated[tuple[Host, ...], Field(max_length=20)] = ()  # machines a gauge or adapter may hang on

    @cached_property
    def key(self) -> str:
        """These settings as text, to keep results by."""
        return self.model_dump_json()

    def band_for(self, vehicle: str) -> tuple[float, float] | None:
        """The inspector's band [µm] for a vehicle by its name: that of its make, else that of all; none for ours."""
        name = vehicle.casefold()
        makes = (make for make in self.film_bands if name == (one := make.casefold()) or name.startswith(f"{one} "))
        make = max(makes, key=len, default=None)
        band = self.film_bands[make] if make else self.film_band
        return (band.low_um, band.high_um) if band else None

    def overridden(self, said: Overrides) -> Settings:
        """These settings with what one inspection has otherwise."""
        changed = {name: value for name in Overrides.model_fields if (value := getattr(said, name)) is not None}
        own = {"costs": {**self.costs, **said.costs}, "lives": {**self.lives, **said.lives}}
        return self.model_copy(update={**changed, **own})
