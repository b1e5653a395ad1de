"""Numbers, dates and distances as they were read on the vehicle and in its papers, and what registers answered."""

from __future__ import annotations

from typing import Annotated, Self

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.bounds import Day, KeyOf, Several, Sha256
from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.papers import Code, NumberPlace, RecordSource

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Number = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40)]
Short = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)]


class Fixed(Keyed):
    """How a mark is fixed, or what was done to it."""

    ORIGINAL = "original", "as the works fixed it"
    DISTURBED = "disturbed", "fixings disturbed"
    PAINTED_OVER = "painted_over", "painted over"
    GROUND = "ground", "ground or filed"
    UNLIKE_FONTS = "unlike_fonts", "unlike letters or depth"


@entry_kind("papers.number")
class NumberRead(Body):
    """The identity number as it was read at one place, character by character; ``?`` is one that was not read.

    `from_picture`: read again from a picture, at the desk; `picture` which.
    """

    where: NumberPlace
    text: Number
    fixed: Several[Fixed] = ()
    from_picture: bool = False
    picture: Sha256 | None = None
    note: Note = ""

    @model_validator(mode="after")
    def _holds(self) -> Self:
        if not any(one.isalnum() for one in self.text):
            raise ValueError("nothing of it was read: leave a limit instead")
        return self


class Made(Keyed):
    """How an engine number stands there."""

    STAMPED = "stamped"
    CAST = "cast"
    PAPERS = "papers", "in the papers"


@entry_kind("papers.engine_number")
class EngineNumber(Body):
    """The number of the engine, stamped, cast or by the papers; `ends`: the marks before and after it are there."""

    made: Made
    text: Number
    ends: bool | None = None
    note: Note = ""


class CodeOf(Keyed):
    """What a code is of."""

    COLOUR = "colour"
    TRIM = "trim"


class Agrees(Keyed):
    """Whether a code agrees with what is seen."""

    UNKNOWN = "unknown", "not compared"
    AGREES = "agrees", "agrees with what is seen"
    DIFFERS = "differs", "something else is seen"


class Inside(Keyed):
    """The colour inside the shuts, where another one is seen outside."""

    UNKNOWN = "unknown", "not looked at"
    OLD = "old", "the old colour shows there"
    SAME = "same", "the same as outside"


@entry_kind("papers.code")
class CodeRead(Body):
    """A colour or trim code, and how it stands to what is seen; `explained`: by whom or what, where it differs."""

    of: CodeOf
    text: Short = ""
    seen: Agrees = Agrees.UNKNOWN
    inside: Inside = Inside.UNKNOWN
    explained: Short = ""


@entry_kind("papers.lot")
class LotNumber(Body):
    """Lot or stock number under which the vehicle that was inspected is offered."""

    text: Number


@entry_kind("papers.mark")
class DatedMark(Body):
    """A dated mark: what carries it (a key of marks), its kind of code, the text as it stands there, and the table it
    is read by: letters, or what the dots count from.
    """

    mark: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("dated mark")]
    code: Code = Code.PLAIN
    text: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=30)]
    table: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    note: Note = ""


class DistanceUnit(Keyed):
    """The unit of a record."""

    KM = "km"
    MI = "mi", "miles"


@entry_kind("papers.distance")
class DistanceRecord(Body):
    """A dated reading of the distance: as the record shows it, ``?`` for a digit that cannot be read.

    `on` may be a year or a month; a stamp without a day judges distance only. `dial_digits`: how many the dial shows.
    """

    on: Day = ""
    value: Annotated[str, StringConstraints(strip_whitespace=True, pattern=r"^[\d?]{1,7}$")]
    unit: DistanceUnit = DistanceUnit.KM
    source: RecordSource
    dial_digits: Annotated[int, Field(ge=4, le=7)] | None = None
    by: Short = ""

    @model_validator(mode="after")
    def _holds(self) -> Self:
        if self.value.count("?") > 2 or not any(one.isdigit() for one in self.value):
            raise ValueError("more than two digits are not read: leave it out")
        return self


class Answer(Keyed):
    """What a register answered."""

    CLEAR = "clear", "nothing noted"
    NOTED = "noted", "something noted"
    NO_ANSWER = "no_answer", "no answer"


@entry_kind("papers.asked")
class RegisterAsked(Body):
    """A register that was asked: what it answered, and of whom it was asked."""

    register_key: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("register")]
    answer: Answer
    of: Short = ""
    note: Note = ""
