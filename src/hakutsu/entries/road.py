"""The road test: what stands before it, how far it got, what was noticed, and what is measured on it and after it."""

from __future__ import annotations

from typing import Annotated, Self

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.bounds import KeyOf, Several
from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.road import Level, road_signs

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Short = Annotated[str, StringConstraints(strip_whitespace=True, max_length=40)]
Kmh = Annotated[float, Field(ge=0, le=300)]
Km = Annotated[float, Field(ge=0, le=3_000_000)]
Rpm = Annotated[float, Field(ge=0, le=20_000)]
Clock = Annotated[str, StringConstraints(pattern=r"^([01]\d|2[0-3]):[0-5]\d$")]


class Settled(Keyed):
    """Whether something that has to be so before a drive is so."""

    UNKNOWN = "unknown", "not told"
    YES = "yes"
    NO = "no"


class Fuel(Keyed):
    """Fuel, or charge, aboard."""

    UNKNOWN = "unknown", "not told"
    ENOUGH = "enough"
    LITTLE = "little"
    GAUGE_DEAD = "gauge_dead", "gauge dead: none assumed"


NEEDED = ("permission", "plates", "insurance", "belts", "lamps")


@entry_kind("road.before")
class Before(Body):
    """What has to be so before it is driven on a road: permission of the owner, plates and a valid test, insurance for
    who drives, a belt for who sits in it, and the lamps, horn and wipers that the law wants.
    """

    permission: Settled = Settled.UNKNOWN
    plates: Settled = Settled.UNKNOWN
    insurance: Settled = Settled.UNKNOWN
    belts: Settled = Settled.UNKNOWN
    lamps: Settled = Settled.UNKNOWN
    fuel: Fuel = Fuel.UNKNOWN
    note: Note = ""

    def causes(self) -> tuple[str, ...]:
        raised = {"no_papers": ("permission", "plates", "insurance"), "no_belt": ("belts",), "no_lamps": ("lamps",)}
        return tuple(cause for cause, needs in raised.items() if any(getattr(self, one) is Settled.NO for one in needs))


class Drove(Keyed):
    """Who drove."""

    UNKNOWN = "unknown", "not told"
    INSPECTOR = "inspector", "the inspector"
    SELLER = "seller", "the seller"
    HELPER = "helper", "a helper"
    NOBODY = "nobody"


class Heard(Keyed):
    """Where it was heard from."""

    UNKNOWN = "unknown", "not told"
    DRIVER = "driver", "the driver’s seat"
    PASSENGER = "passenger", "the passenger’s seat"
    OUTSIDE = "outside"
    TOLD = "told", "told by others: hearsay"


class Ended(Keyed):
    """Why it went no further."""

    BOXED_IN = "boxed_in", "boxed in"
    LEAK = "leak", "a leak"
    INSURANCE = "insurance"
    TRAFFIC = "traffic"
    SURFACE = "surface"
    LAW = "law"
    FUEL = "fuel"
    ALONE = "alone", "alone: driving and writing"
    SELLER_DRIVES = "seller_drives", "the seller drives"
    FAULT = "fault", "a fault on the way"
    TYRES = "tyres", "old or cracked tyres"
    DONE = "done", "everything was done"


class Surface(Keyed):
    """What it was driven on."""

    SMOOTH = "smooth"
    COARSE = "coarse"
    PATCHED = "patched"
    COBBLES = "cobbles"
    GRAVEL = "gravel"
    WET = "wet"


@entry_kind("road.drive")
class DriveDone(Body):
    """A drive: level reached, who drove, heard from where, why it ended; when [HH:MM], dial at start and end [km],
    top speed [km/h], gears reached, surfaces, whether it was warm before and whether somebody came along.
    """

    level: Level
    drove: Drove = Drove.UNKNOWN
    heard: Heard = Heard.UNKNOWN
    ended: Several[Ended] = ()
    began: Clock | None = None
    until: Clock | None = None
    minutes: Annotated[float, Field(ge=0, le=600)] | None = None
    km_start: Km | None = None
    km_end: Km | None = None
    top_kmh: Kmh | None = None
    gears: Short = ""
    surfaces: Several[Surface] = ()
    alone: bool | None = None
    warm_before: bool = False
    note: Note = ""

    @model_validator(mode="after")
    def _goes_forward(self) -> Self:
        if self.began and self.until and self.until < self.began:
            raise ValueError("it ended before it began")
        if self.km_start is not None and self.km_end is not None and self.km_end < self.km_start:
            raise ValueError("the dial ran backwards: see which of the two figures is wrong")
        return self

    @property
    def lasted(self) -> float | None:
        """Minutes, as told or from the clock."""
        if self.minutes is not None or not (self.began and self.until):
            return self.minutes
        hours, minutes = (int(self.until[at]) - int(self.began[at]) for at in (slice(0, 2), slice(3, 5)))
        return 60.0 * hours + minutes


class Felt(Keyed):
    """Where it is felt."""

    UNKNOWN = "unknown", "not told"
    RIM = "rim", "at the rim"
    SEAT = "seat", "at the seat"
    PEDAL = "pedal", "at the pedal"
    FLOOR = "floor", "at the floor"


class Way(Keyed):
    """Along which ways of the road it was tried."""

    UNKNOWN = "unknown", "not told"
    ONE = "one", "one direction only"
    BOTH = "both", "both ways along the road"


class Side(Keyed):
    """To which side, or turning which way."""

    UNKNOWN = "unknown", "not told"
    LEFT = "left"
    RIGHT = "right"


class Since(Keyed):
    """Since when it is there."""

    UNKNOWN = "unknown", "not told"
    COLD = "cold", "only cold"
    WARM = "warm", "only warm"
    ALWAYS = "always", "from the start"


Band = tuple[float, float]


@entry_kind("road.noticed")
class Noticed(Body):
    """Something noticed on the drive, by its key: in which band of speed [km/h] or revs [1/min], to which side, felt
    where, along which ways, in which gear, after how many seconds [s], since when. `doubtful`: the road was too bad.
    """

    sign: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("road sign")]
    kmh: tuple[Kmh, Kmh] | None = None
    rpm: tuple[Rpm, Rpm] | None = None
    side: Side = Side.UNKNOWN
    felt: Felt = Felt.UNKNOWN
    ways: Way = Way.UNKNOWN
    gear: Short = ""
    seconds: Annotated[float, Field(ge=0, le=60)] | None = None
    since: Since = Since.UNKNOWN
    doubtful: bool = False
    note: Note = ""

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.sign not in road_signs():
            raise ValueError("nothing that may be noticed has that name")
        for band in (self.kmh, self.rpm):
            if band is not None and band[0] > band[1]:
                raise ValueError("the lowest is above the highest")
        return self


@entry_kind("road.rest")
class RestFine(Body):
    """Of a subject nothing else was noticed at the level reached; or it could not be told: the road was too bad."""

    subject: Annotated[str, StringConstraints(pattern=r"^[a-z_]{2,40}$"), KeyOf("road subject")]
    doubtful: bool = False
    note: Note = ""


class Linkage(Keyed):
    """How the clutch is worked."""

    UNKNOWN = "unknown", "not known"
    CABLE = "cable"
    HYDRAULIC = "hydraulic"


class Slip(Keyed):
    """The slip test: a high gear, load."""

    UNKNOWN = "unknown", "not done"
    HOLDS = "holds"
    SLIPS = "slips"


@entry_kind("road.clutch")
class ClutchTried(Body):
    """The clutch: free play [mm], where it bites as a share of the travel from the floor (0 to 1), linkage, whether it
    adjusts itself, parts cleanly, and the slip test.
    """

    free_play_mm: Annotated[float, Field(ge=0, le=100)] | None = None
    bites: Annotated[float, Field(ge=0, le=1)] | None = None
    linkage: Linkage = Linkage.UNKNOWN
    self_adjusting: bool = False
    clean: bool | None = None
    slip: Slip = Slip.UNKNOWN
    note: Note = ""

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if self.free_play_mm is None and self.bites is None and self.clean is None and self.slip is Slip.UNKNOWN:
            raise ValueError("say free play, where it bites, or how the slip test went")
        return self


@entry_kind("road.dial")
class DialRead(Body):
    """What the speedometer showed against satellite speed [km/h], both steady."""

    shown_kmh: Annotated[float, Field(gt=0, le=300)]
    true_kmh: Annotated[float, Field(gt=0, le=300)]


@entry_kind("road.distance")
class DistanceRead(Body):
    """What the dial counted over a known distance [km]."""

    shown_km: Annotated[float, Field(ge=0, le=1000)]
    true_km: Annotated[float, Field(gt=0, le=1000)]


class Spot(Keyed):
    """What was pointed at."""

    HUB = "hub"
    DISC = "disc", "disc or drum"
    RIM = "rim"


@entry_kind("road.hub", at="wheel")
class HubRead(Body):
    """The temperature of a hub, disc or rim after the drive, by infrared [°C]; the entry's time is when."""

    temp_c: Annotated[float, Field(ge=-40, le=800)]
    spot: Spot = Spot.HUB


Number = Annotated[float, Field(ge=0, le=1e7)]
Share = Annotated[float, Field(ge=0, le=1)]


class Told(Body):
    """A candidate of a recorded vibration: source, frequency [Hz], probability."""

    source: Short
    hz: Number
    probability: Share


class Tone(Body):
    """A tone of a record: frequency [Hz], peak amplitude [m/s²]."""

    hz: Number
    amplitude: Number


@entry_kind("road.vibration", by_upload=True)
class VibrationRecorded(Body):
    """A record of acceleration, matched: what was stated (speed [km/h], rolling circumference [m], final drive, engine
    speed [1/min]), what was found, and the spectrum as it is drawn ([Hz], [m/s²]).
    """

    file: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120)] = ""
    kmh: Kmh
    rolling_m: Annotated[float, Field(ge=0.5, le=5)]
    final_drive: Annotated[float, Field(ge=1, le=12)] | None = None
    rpm: Rpm | None = None
    felt: Felt = Felt.UNKNOWN
    rate_hz: Number
    usable_hz: Number
    peaks: Annotated[tuple[Tone, ...], Field(max_length=8)] = ()
    candidates: Annotated[tuple[Told, ...], Field(max_length=16)] = ()
    none: Share
    warnings: Annotated[tuple[Note, ...], Field(max_length=8)] = ()
    hz: Annotated[tuple[Number, ...], Field(max_length=400)] = ()
    amplitude: Annotated[tuple[Number, ...], Field(max_length=400)] = ()
