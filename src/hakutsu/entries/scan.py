"""Entries of the scan station: what the control units of a vehicle said, read or noted by hand."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import BaseModel, BeforeValidator, ConfigDict, Field, StringConstraints, model_validator

from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.keyed import Keyed

Word = Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)]
Text = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Code = Annotated[str, StringConstraints(pattern=r"^[PCBU][0-3][0-9A-F]{3}(-[0-9A-F]{2})?$")]
Hex = Annotated[str, StringConstraints(pattern=r"^[0-9A-F]{1,16}$")]
Memory = Literal["stored", "pending", "permanent"]
Monitor = Literal["complete", "incomplete", "not supported"]
Many = Field(max_length=400)


class Part(BaseModel):
    """Part of what was read: frozen, no key that nobody reads."""

    model_config = ConfigDict(frozen=True, extra="forbid")


class CodeRead(Part):
    """A code, the memories it stands in, and its ISO 14229 status where it has one."""

    code: Code
    memory: Annotated[tuple[Memory, ...], Field(max_length=3)]
    status: Hex | None = None


class FreezeFrame(Part):
    """What was running when a code was stored; values by name, in the unit of the name."""

    code: Code | None
    frame: Annotated[int, Field(ge=0, le=255)] = 0
    values: Annotated[dict[Word, float | Word | None], Field(max_length=60)] = {}


class SinceCleared(Part):
    """Warm-ups, distance [km] and minutes of running since the memory was cleared, as the unit counts them."""

    warm_ups: Annotated[int, Field(ge=0, le=255)] | None = None
    km: Annotated[int, Field(ge=0, le=65_535)] | None = None
    minutes: Annotated[int, Field(ge=0, le=65_535)] | None = None


class MonitorResult(Part):
    """A test the unit ran on itself: raw counts; `passed` is none where it has not run."""

    mid: Hex
    tid: Hex
    value: Annotated[int, Field(ge=-32_768, le=65_535)]
    min: Annotated[int, Field(ge=-32_768, le=65_535)]
    max: Annotated[int, Field(ge=-32_768, le=65_535)]
    passed: bool | None


class Stored(Part):
    """On how many something holds, of how many that were looked at."""

    on: Annotated[int, Field(ge=0, le=100_000)]
    of: Annotated[int, Field(ge=1, le=100_000)]


class UnitRead(Part):
    """What one control unit said; none where it could not be read, empty where it has nothing of the kind.

    `untested`: tests of ISO 14229 that have not completed since the memory was cleared, of all there are.
    """

    address: Hex
    name: Word | None = None
    vin: Word | None = None
    calibration_ids: Annotated[tuple[Word, ...], Many] | None = ()
    cvns: Annotated[tuple[Hex, ...], Many] | None = ()
    lamp: bool | None = None
    codes: Annotated[tuple[CodeRead, ...], Many] | None = ()
    readiness: Annotated[dict[Word, Monitor], Field(max_length=20)] = {}
    today: Annotated[dict[Word, Monitor], Field(max_length=20)] = {}
    freeze_frames: Annotated[tuple[FreezeFrame, ...], Many] = ()
    since_cleared: SinceCleared = SinceCleared()
    monitors: Annotated[tuple[MonitorResult, ...], Many] = ()
    untested: Stored | None = None
    counters: Annotated[tuple[Annotated[int, Field(ge=0, le=65_535)], ...], Many] = ()
    live: Annotated[dict[Word, float | Word | None], Field(max_length=60)] = {}
    problems: Annotated[tuple[Text, ...], Many] = ()


class Link(Part):
    """The link that was read over: bit rate [bit/s], none where the interface has its own; bits of identifiers."""

    bitrate: Literal[500_000, 250_000] | None
    identifiers: Literal[11, 29]


@entry_kind("scan.read")
class ScanRead(Body):
    """A vehicle read over a link; `simulated`: by the stand-in, for practice; it stays marked for ever."""

    link: Link
    modules: Annotated[tuple[UnitRead, ...], Field(max_length=300)]
    problems: Annotated[tuple[Text, ...], Many] = ()
    simulated: bool = False


@entry_kind("scan.tally")
class ScanTally(Body):
    """On how many vehicles each unit held codes, of how many that were read: the inspector's own tally, from finished
    vehicles of the same name, as known when this one was read.
    """

    units: Annotated[dict[Hex, Stored], Field(max_length=300)]


class KeyPosition(Keyed):
    """How far the key was turned when a reader was used."""

    ON = "on", "key on, engine off"
    RUNNING = "running", "engine running"
    UNKNOWN = "unknown", "not noted"


class ModuleNoted(Part):
    """What somebody's reader said of one unit: codes, words, or only how many."""

    module: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
    codes: Annotated[tuple[Code, ...], Field(max_length=60)] = ()
    words: Text = ""
    count: Annotated[int, Field(ge=0, le=200)] | None = None

    @model_validator(mode="after")
    def _something(self) -> Self:
        if not self.codes and not self.words and self.count is None:
            raise ValueError("codes, words, or how many there are")
        return self


@entry_kind("scan.by_hand")
class ScanByHand(Body):
    """A reader's result typed in: which tool, what vehicle it was told, key position and minutes it took."""

    modules: Annotated[tuple[ModuleNoted, ...], Field(min_length=1, max_length=60)]
    tool: Word = ""
    told: Word = ""
    key: KeyPosition = KeyPosition.UNKNOWN
    minutes: Annotated[float, Field(ge=0, le=600)] | None = None


class NotScanned(Keyed):
    """Why no memory was read."""

    NO_LINK = "no_link", "no link on this vehicle"
    NO_READER = "no_reader", "no reader with me"
    REFUSED = "refused", "the seller does not allow it"
    NO_ELECTRONICS = "no_electronics", "no electronics to read"


@entry_kind("scan.none")
class ScanNone(Body):
    """No memory was read, which is a result: why, and whether a warning lamp is lit all the same."""

    why: NotScanned
    lamp_lit: bool = False
    note: Text = ""


class LampSeen(Keyed):
    """A lamp as it was seen."""

    LIT = "lit"
    DARK = "dark"
    NOT_LOOKED = "not_looked", "not looked"


@entry_kind("scan.lamp")
class EngineLamp(Body):
    """The engine lamp as it was seen, key on and running."""

    key_on: LampSeen = LampSeen.NOT_LOOKED
    running: LampSeen = LampSeen.NOT_LOOKED


def _upper(said: object) -> object:
    return said.strip().upper() if isinstance(said, str) else said


@entry_kind("scan.plate")
class PlateRead(Body):
    """The identification number as it stands on the vehicle; I, O and Q are not used in one (ISO 3779)."""

    vin: Annotated[str, BeforeValidator(_upper), StringConstraints(max_length=17, pattern=r"^[A-HJ-NPR-Z0-9]{17}$")]


@entry_kind("scan.seller_work")
class SellerWork(Body):
    """Work done on the vehicle by the seller during the visit: by whom, on which part, and whether there is an invoice.

    What was started, looked at and read counts only after it; memory cleared then is innocent.
    """

    part: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
    who: Word = ""
    invoice: bool = False
