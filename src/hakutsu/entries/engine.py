"""The engine run, air-conditioning, battery and pack: what is read, in the order it is read."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Self

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.bounds import Several
from hakutsu.entries.registry import Body, entry_kind, to_keys
from hakutsu.vehicle.heat import heat_limits
from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.mechanics import Chemistry

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Celsius = Annotated[float, Field(ge=-50, le=180)]
Volts = Annotated[float, Field(ge=0, le=60)]
Seconds = Annotated[float, Field(ge=0, le=600)]
Share = Annotated[float, Field(ge=0, le=1)]


class Smoke(Keyed):
    """What comes from the tailpipe."""

    UNKNOWN = "unknown", "not looked at"
    NONE = "none"
    SOME = "some", "some, its colour was not told"
    WATER = "water", "thin white, vanishing"
    WHITE_SWEET = "white_sweet", "lasting white, sweet"
    WHITE_ACRID = "white_acrid", "lasting white, acrid"
    BLUE_START = "blue_start", "blue at the start"
    BLUE_LOAD = "blue_load", "blue under load"
    BLUE_OVERRUN = "blue_overrun", "blue on the overrun"
    BLUE_BOOST = "blue_boost", "blue on boost"
    BLACK = "black"
    GREY = "grey"


class Clears(Keyed):
    """Whether smoke goes away."""

    UNKNOWN = "unknown", "not told"
    CLEARS = "clears"
    STAYS = "stays"


class Ended(Keyed):
    """Whether a noise is over."""

    UNKNOWN = "unknown", "not told"
    ENDED = "ended"
    STILL = "still", "still there"


class Fumes(Keyed):
    """Crankcase fumes at the filler or breather."""

    UNKNOWN = "unknown", "not looked at"
    NONE = "none"
    WISPS = "wisps"
    PUFFING = "puffing"


class Effect(Keyed):
    """Whether a step of the start procedure did anything."""

    UNKNOWN = "unknown", "not told"
    WORKED = "worked", "had its effect"
    NONE = "none", "had no effect"


class When(Keyed):
    """When a look was taken."""

    RUNNING = "running", "while it runs"
    AFTER_DRIVE = "after_drive", "after the drive"


@entry_kind("engine.start", version=2, upgrades={1: to_keys})
class EngineStart(Body):
    """The first start: procedure and its effect, cranking [s], jump start, noise and its seconds, smoke. A run begins
    with it.
    """

    procedure: Note = ""
    effect: Effect = Effect.UNKNOWN
    cranking_s: Seconds | None = None
    jump_started: bool = False
    noise: Note = ""
    noise_s: Seconds | None = None
    noise_is: Ended = Ended.UNKNOWN
    smoke: Smoke = Smoke.UNKNOWN
    smoke_is: Clears = Clears.UNKNOWN
    coolant_c: Celsius | None = None
    note: Note = ""


@entry_kind("engine.sample")
class EngineSample(Body):
    """A reading of the run: minute since the start where it was noted, coolant [°C], speed [1/min], oil pressure [bar],
    vent [°C].
    """

    minute: Annotated[float, Field(ge=0, le=240)] | None = None
    coolant_c: Celsius | None = None
    rpm: Annotated[float, Field(ge=0, le=9000)] | None = None
    oil_bar: Annotated[float, Field(ge=0, le=12)] | None = None
    vent_c: Celsius | None = None
    fan: bool = False
    by_link: bool = False
    note: Note = ""


@entry_kind("engine.look", version=2, upgrades={1: to_keys})
class EngineLook(Body):
    """A look while it runs or after the drive: fumes, smoke, noise and its seconds, and what stops it at once."""

    when: When = When.RUNNING
    fumes: Fumes = Fumes.UNKNOWN
    smoke: Smoke = Smoke.UNKNOWN
    smoke_is: Clears = Clears.UNKNOWN
    noise: Note = ""
    noise_s: Seconds | None = None
    noise_is: Ended = Ended.UNKNOWN
    steam: bool = False
    red_zone: bool = False
    oil_lamp: bool = False
    note: Note = ""

    def causes(self) -> tuple[str, ...]:
        hot = ("overheating",) if self.steam or self.red_zone else ()
        return hot + (("oil_pressure",) if self.oil_lamp else ())


@entry_kind("engine.idle")
class EngineIdle(Body):
    """Speeds [1/min] at idle, one after the other at so many a second [Hz]; under which conditions."""

    rpm: Annotated[tuple[Annotated[float, Field(ge=0, le=9000)], ...], Field(min_length=1, max_length=4000)]
    hertz: Annotated[float, Field(gt=0, le=1000)] = 1.0
    warm: bool = False
    switched: bool = False
    carburettor: bool = False
    by_link: bool = False
    note: Note = ""


class BaySign(Keyed):
    """Signs of work and neglect under the bonnet."""

    BOLTS = "bolts", "panel bolts turned"
    INNER_WING = "inner_wing", "inner wing not as made"
    INSULATION = "insulation", "bonnet insulation missing or new"
    WIRING = "wiring", "wiring repaired"
    PULLEY = "pulley", "pulley out of line"
    CLAMPS = "clamps", "battery clamps loose or corroded"
    CAP = "cap", "cap missing or not its own"
    FILTER = "filter", "air filter full"
    CHARGE_JOINT = "charge_joint", "oil at a charge-air joint"
    SEAM = "seam", "radiator seam stained"
    VACUUM = "vacuum", "vacuum line cracked or off"
    SWOLLEN = "swollen", "hose swollen"


@entry_kind("engine.bay", version=2, upgrades={1: to_keys})
class Bay(Body):
    """What is seen under the bonnet beside fluids and graded parts; an empty list is looked, nothing found."""

    signs: Several[BaySign] = ()
    side: Annotated[str, StringConstraints(pattern=r"^(left|right)?$")] = ""
    note: Note = ""

    @model_validator(mode="after")
    def _once(self) -> Self:
        if len(set(self.signs)) != len(self.signs):
            raise ValueError("a sign is named once")
        return self


def heat_confirmed(readings: Sequence[tuple[float, float, bool]]) -> bool:
    """Whether the newest readings stop the engine: minute, coolant [°C], fan running, in the order of time.

    At the stop limit, or past the lower one and rising with the fan running. One reading may be wrong: it counts when
    read again at once and both agree, when two before it lead up to it by no more than an engine can heat, or when
    three in a row are hot and agree. Source: values of the trade; what confirms a reading is our own.
    """
    if len(readings) < 2:
        return False
    last, before = readings[-1], readings[-2]
    if (
        min(last[1], before[1]) >= heat_limits().stop_c
        and _alike(readings[-2:])
        and (len(readings) == 2 or last[0] - before[0] <= heat_limits().at_once_min)
    ):
        return True
    return len(readings) >= 3 and _led_up_to(readings[-3:])


def _led_up_to(three: Sequence[tuple[float, float, bool]]) -> bool:
    (m1, c1, _), (m2, c2, fan_before), (m3, c3, fan) = three
    rising = fan_before and fan and c3 >= heat_limits().rising_c and c3 - c1 >= heat_limits().rise_c
    if c3 < heat_limits().stop_c and not rising:
        return False
    leads = all(c3 - before <= heat_limits().steepest_c_min * max(1.0, m3 - at) for at, before in ((m2, c2), (m1, c1)))
    return leads or (min(c1, c2, c3) >= heat_limits().rising_c and _alike(three))


def _alike(readings: Sequence[tuple[float, float, bool]]) -> bool:
    hot = [one for _, one, _ in readings]
    return max(hot) - min(hot) <= heat_limits().alike_c


def heat_suspected(reading: tuple[float, float, bool]) -> bool:
    """Whether one reading alone asks to be read again at once."""
    _, coolant_c, fan = reading
    return coolant_c >= heat_limits().stop_c or (fan and coolant_c >= heat_limits().rising_c)


@entry_kind("engine.air")
class Air(Body):
    """Air-conditioning: air at intake and vent [°C], humidity (0 to 1), air outside [°C], after so many minutes; or the
    heater alone [°C].
    """

    intake_c: Celsius | None = None
    vent_c: Celsius | None = None
    minutes: Annotated[float, Field(ge=0, le=120)] | None = None
    humidity: Share | None = None
    outside_c: Celsius | None = None
    called: bool = True
    heater_c: Celsius | None = None
    engine_warm: bool = False
    note: Note = ""

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if self.vent_c is None and self.heater_c is None:
            raise ValueError("a temperature at the vent, cooling or heating")
        return self


@entry_kind("engine.battery")
class Battery(Body):
    """Starter battery: voltage at rest with its conditions, cranking, charging; conductance against rated."""

    rest_v: Volts | None = None
    rested_h: Annotated[float, Field(ge=0, le=2000)] | None = None
    surface_off: bool = False
    asleep: bool = False
    agm: bool = False
    six: bool = False
    crank_v: Volts | None = None
    air_c: Celsius | None = None
    charging_v: Volts | None = None
    smart: bool = False
    measured: Annotated[float, Field(ge=0, le=5000)] | None = None
    rated: Annotated[float, Field(gt=0, le=5000)] | None = None
    note: Note = ""


@entry_kind("engine.pack", version=2, upgrades={1: to_keys})
class Pack(Body):
    """High-voltage pack by scan or display: health (0 to 1), spread of cells [mV] at a charge (0 to 1), full cycles."""

    health: Share | None = None
    spread_mv: Annotated[float, Field(ge=0, le=5000)] | None = None
    charged: Share | None = None
    chemistry: Chemistry = Chemistry.UNKNOWN
    cycles: Annotated[float, Field(ge=0, le=20_000)] | None = None
    note: Note = ""
