"""The engine run, air-conditioning, battery and pack: what is read, in the order it is read."""

from __future__ import annotations

from enum import StrEnum
from typing import Annotated

from pydantic import Field, StringConstraints

from hakutsu.entries.registry import Body, entry_kind

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Celsius = Annotated[float, Field(ge=-50, le=180)]
Volts = Annotated[float, Field(ge=0, le=60)]
Seconds = Annotated[float, Field(ge=0, le=600)]
Share = Annotated[float, Field(ge=0, le=1)]


class Smoke(StrEnum):
    """What comes from the tailpipe."""

    UNKNOWN = "not looked at"
    NONE = "none"
    WATER = "thin white, vanishing"
    WHITE_SWEET = "lasting white, sweet"
    WHITE_ACRID = "lasting white, acrid"
    BLUE_START = "blue at the start"
    BLUE_LOAD = "blue under load"
    BLACK = "black"
    GREY = "grey"


class Fumes(StrEnum):
    """Crankcase fumes at the filler or breather."""

    UNKNOWN = "not looked at"
    NONE = "none"
    WISPS = "wisps"
    PUFFING = "puffing"


@entry_kind("engine.start")
class EngineStart(Body):
    """The first start: procedure, cranking [s], jump start, noise and its seconds, smoke. A run begins with it."""

    procedure: Note = ""
    cranking_s: Seconds | None = None
    jump_started: bool = False
    noise: Note = ""
    noise_s: Seconds | None = None
    smoke: Smoke = Smoke.UNKNOWN
    coolant_c: Celsius | None = None
    note: Note = ""


@entry_kind("engine.sample")
class EngineSample(Body):
    """A reading of the run: minute since the start, coolant [°C], speed [1/min], oil pressure [bar], vent [°C]."""

    minute: Annotated[float, Field(ge=0, le=240)]
    coolant_c: Celsius | None = None
    rpm: Annotated[float, Field(ge=0, le=9000)] | None = None
    oil_bar: Annotated[float, Field(ge=0, le=12)] | None = None
    vent_c: Celsius | None = None
    fan: bool = False
    note: Note = ""


@entry_kind("engine.look")
class EngineLook(Body):
    """A look while it runs: fumes, smoke, and what stops it at once."""

    fumes: Fumes = Fumes.UNKNOWN
    smoke: Smoke = Smoke.UNKNOWN
    steam: bool = False
    red_zone: bool = False
    oil_lamp: bool = False
    note: Note = ""

    def causes(self) -> tuple[str, ...]:
        hot = ("overheating",) if self.steam or self.red_zone else ()
        return hot + (("oil_pressure",) if self.oil_lamp else ())


@entry_kind("engine.air")
class Air(Body):
    """Air-conditioning after 5 to 10 min: air at intake and vent [°C], humidity (0 to 1), air outside [°C]."""

    intake_c: Celsius
    vent_c: Celsius
    humidity: Share | None = None
    outside_c: Celsius | None = None
    called: bool = True
    heater_c: Celsius | None = None
    engine_warm: bool = False
    note: Note = ""


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


@entry_kind("engine.pack")
class Pack(Body):
    """High-voltage pack by scan or display: health (0 to 1), spread of cells [mV] at a charge (0 to 1), full cycles."""

    health: Share | None = None
    spread_mv: Annotated[float, Field(ge=0, le=5000)] | None = None
    charged: Share | None = None
    chemistry: Annotated[str, StringConstraints(pattern=r"^(not known|NMC|LFP)$")] = "not known"
    cycles: Annotated[float, Field(ge=0, le=20_000)] | None = None
    note: Note = ""
