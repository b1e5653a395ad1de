"""Entries of the film station: the gauge in use, its readings, and surveys read from a file."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated, Self
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, StringConstraints, model_validator

from hakutsu.entries.bounds import KeyOf
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.vocabulary import CoverKind, MagnetGrade, ReadingStatus, Substrate, Unit, Work

MOST_UM = 25_000.0
MOST_COUNT = 10_000_000
Fraction = Annotated[float, Field(ge=0, le=1)]
Film = Annotated[float, Field(gt=0, le=MOST_UM)]


class Source(StrEnum):
    """Where a reading came from."""

    TYPED = "typed"
    FILE = "file"
    GAUGE = "gauge"


@entry_kind("film.gauge")
class GaugeInUse(Body):
    """The film gauge in use from here on: its display unit and step, and the limit of its range, in µm."""

    name: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)] = "Film gauge"
    unit: Unit = Unit.UM
    step_um: Annotated[float, Field(gt=0, le=100)] = 1.0
    limit_um: Annotated[float, Field(ge=100, le=MOST_UM)] = 2000.0


@entry_kind("film.reading", at="panel")
class Reading(Body):
    """One gauge reading on the panel named by the envelope's place.

    `value_um` is the number shown [µm], absent for `none`, optional for `over`. `step_um` and `limit_um` are the
    gauge's display step and range limit [µm] when it was taken. `edge` marks shut faces and hems, which stay out of
    the model. `retest_of` is the entry whose surprise this reading repeats. `simulated`: from the
    stand-in gauge, for practice; it stays marked for ever.
    """

    value_um: Film | None = None
    status: ReadingStatus = ReadingStatus.OK
    u: Fraction | None = None
    v: Fraction | None = None
    unit: Unit = Unit.UM
    step_um: Annotated[float, Field(gt=0, le=100)] | None = None
    limit_um: Annotated[float, Field(gt=0, le=MOST_UM)] | None = None
    substrate: Substrate | None = None
    edge: bool = False
    retest_of: UUID | None = None
    source: Source = Source.TYPED
    simulated: bool = False

    @model_validator(mode="after")
    def _status_fits_value(self) -> Self:
        if self.status is ReadingStatus.OK and self.value_um is None:
            raise ValueError("a reading needs its number")
        if self.status is ReadingStatus.NONE and self.value_um is not None:
            raise ValueError("“no reading” carries no number")
        if (self.u is None) != (self.v is None):
            raise ValueError("a position needs both u and v")
        return self


@entry_kind("film.cue", at="panel")
class CueLookedFor(Body):
    """A cue of eye or hand that was looked for on a panel: there or not, and in which light."""

    cue: Annotated[str, StringConstraints(min_length=1, max_length=40, pattern=r"^[a-z_]+$"), KeyOf("film cue")]
    there: bool
    light: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)] = ""
    note: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = ""


@entry_kind("film.magnet", at="panel")
class MagnetTried(Body):
    """How firmly a magnet held on a panel, at a spot where one was noted."""

    grade: MagnetGrade
    u: Fraction | None = None
    v: Fraction | None = None

    @model_validator(mode="after")
    def _whole_position(self) -> Self:
        if (self.u is None) != (self.v is None):
            raise ValueError("a position needs both u and v")
        return self


@entry_kind("film.cover", at="panel", version=2, upgrades={1: to_keys})
class CoverFelt(Body):
    """Protection film or wrap felt for on a panel: which, and its thickness [µm] where known."""

    kind: CoverKind
    thickness_um: Annotated[float, Field(gt=0, le=1000)] | None = None

    @model_validator(mode="after")
    def _nothing_has_no_thickness(self) -> Self:
        if self.kind is CoverKind.NOTHING and self.thickness_um is not None:
            raise ValueError("where no edge was felt there is no thickness")
        return self


class VerifiedWhen(StrEnum):
    """At which end of a survey a gauge was verified."""

    START = "start"
    END = "end"


class Shim(Body):
    """One check of a gauge: the reference [µm], 0 for the bare plate, and what it showed [µm]."""

    reference_um: Annotated[float, Field(ge=0, le=MOST_UM)]
    shown_um: Annotated[float, Field(gt=-500, le=MOST_UM)]


@entry_kind("film.verification")
class Verification(Body):
    """The gauge was held on a bare plate and on shims, before or after the survey."""

    when: VerifiedWhen
    gauge: Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)] = ""
    checks: Annotated[tuple[Shim, ...], Field(min_length=1, max_length=12)]


@entry_kind("film.imported")
class Imported(Body):
    """A film survey was read from a file: how many rows were kept and how many were left out as bad."""

    file: Annotated[str, StringConstraints(max_length=255)]
    sha256: Annotated[str, StringConstraints(max_length=64)]
    survey: Annotated[str, StringConstraints(max_length=200)] = ""
    rows: Annotated[int, Field(ge=0, le=MOST_COUNT)]
    left_out: Annotated[int, Field(ge=0, le=MOST_COUNT)] = 0


class FilmOfVehicle(BaseModel):
    """Film of the untouched panels of a vehicle finished before: level [µm], spread between panels (standard deviation
    of the logarithm) and unevenness within a panel (standard deviation over mean).
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    level_um: Film
    spread: Annotated[float, Field(gt=0, le=2)]
    unevenness: Annotated[float, Field(gt=0, le=2)]


Length = Annotated[float, Field(gt=0, le=500)]


@entry_kind("film.reflection", at="panel")
class Reflection(Body):
    """How far off print can just be read in a panel's paint [cm]: the same print on every panel."""

    distance_cm: Annotated[float, Field(ge=5, le=1_000)]


@entry_kind("film.mapped", at="panel")
class MappedRepair(Body):
    """A repair under the paint, mapped by hand: its length and width [cm]."""

    length_cm: Length
    width_cm: Length


@entry_kind("film.workmanship", at="panel")
class WorkmanshipSeen(Body):
    """Grades of a repaint's workmanship: flatness, preparation, edges, trim; at least one of them."""

    flatness: Work | None = None
    preparation: Work | None = None
    edges: Work | None = None
    trim: Work | None = None

    @model_validator(mode="after")
    def _something(self) -> Self:
        if not any((self.flatness, self.preparation, self.edges, self.trim)):
            raise ValueError("grade at least one of flatness, preparation, edges and trim")
        return self


@entry_kind("film.own_vehicles")
class OwnVehicles(Body):
    """What vehicles of the same make and colour, finished before, taught of factory film: as known from here on.

    `left_out`: the inspector wants this vehicle judged without them.
    """

    vehicles: Annotated[tuple[FilmOfVehicle, ...], Field(max_length=500)] = ()
    left_out: bool = False
