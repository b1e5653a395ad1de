"""What drives, carries and stops a vehicle, its distance and its placard: what a life is reckoned from."""

from __future__ import annotations

from datetime import date
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.vocabulary import Keys

Size = Annotated[str, StringConstraints(strip_whitespace=True, max_length=40)]
Name = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60)]
Bar = Annotated[float, Field(gt=0, le=12)]
UNKNOWN = "unknown"
OLDEST, LATEST = date(1880, 1, 1), date(2199, 12, 31)  # from the first motor vehicles on


class Power(Keyed):
    """What moves it."""

    UNKNOWN = "unknown", "not known"
    PETROL = "petrol"
    DIESEL = "diesel"
    HYBRID = "hybrid"
    ELECTRIC = "electric"


class Drive(Keyed):
    """The axle that is driven."""

    UNKNOWN = "unknown", "not known"
    FRONT = "front"
    REAR = "rear"
    ALL = "all"


class Gearbox(Keyed):
    """How it changes gear."""

    UNKNOWN = "unknown", "not known"
    MANUAL = "manual"
    AUTOMATIC = "automatic"
    SINGLE = "single", "single speed"


class Chemistry(Keyed):
    """What the cells of a high-voltage pack are made of."""

    UNKNOWN = "unknown", "not known"
    NMC = "nmc", "NMC"
    LFP = "lfp", "LFP"


class Timing(Keyed):
    """What drives the camshaft."""

    UNKNOWN = "unknown", "not known"
    BELT = "belt"
    CHAIN = "chain"
    NONE = "neither"


class RearAxle(Keyed):
    """How the rear wheels are carried."""

    UNKNOWN = "unknown", "not known"
    INDEPENDENT = "independent"
    BEAM = "beam", "beam axle"
    RIGID = "rigid", "rigid axle"


class BrakeKind(Keyed):
    """What stops the wheels of an axle."""

    UNKNOWN = "unknown", "not known"
    DISC = "discs"
    DRUM = "drums"


class FrontAxle(Keyed):
    """How the front wheels are carried."""

    UNKNOWN = "unknown", "not known"
    INDEPENDENT = "independent"
    RIGID = "rigid", "rigid axle"


class Pivots(Keyed):
    """What the front wheels turn on."""

    UNKNOWN = "unknown", "not known"
    BALL_JOINTS = "ball_joints", "ball joints"
    KING_PINS = "king_pins", "king pins"


class SteeringGear(Keyed):
    """What turns them."""

    UNKNOWN = "unknown", "not known"
    RACK = "rack", "rack and pinion"
    BOX = "box", "steering box"


class FuelSystem(Keyed):
    """How fuel comes into the engine."""

    UNKNOWN = "unknown", "not known"
    CARBURETTOR = "carburettor"
    INJECTION = "injection"


class Ignition(Keyed):
    """What times the spark."""

    UNKNOWN = "unknown", "not known"
    POINTS = "points", "contact points"
    ELECTRONIC = "electronic"


class Supply(Keyed):
    """Voltage of the electrical system."""

    UNKNOWN = "unknown", "not known"
    SIX = "six", "6 V"
    TWELVE = "twelve", "12 V"
    TWENTY_FOUR = "twenty_four", "24 V"


class Parts(Keyed):
    """How parts for it are to be had."""

    UNKNOWN = "unknown", "not known"
    STOCKED = "stocked"
    SLOW = "slow", "slow to come"
    USED_ONLY = "used_only", "used only"


class Mechanics(BaseModel):
    """Mechanical facts of one vehicle; what is not known stays so.

    `first_used` is when it was first registered, `odometer_km` what its distance meter shows. Sizes and pressures [bar]
    are those of the placard. `separate_frame`: body and frame are two; `map_thermostat`: the engine's computer moves
    its thermostat; `seized`: its fixings are seized or corroded all over; `two_stage_oil`: its oil pump lowers pressure
    by design. `also_fitted` and `not_fitted` name parts of the life tables.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    make: Name = ""
    model: Name = ""
    variant: Name = ""
    first_used: Annotated[date, Field(ge=OLDEST, le=LATEST)] | None = None
    odometer_km: Annotated[float, Field(ge=0, le=3_000_000)] | None = None
    power: Power = Power.UNKNOWN
    drive: Drive = Drive.UNKNOWN
    gearbox: Gearbox = Gearbox.UNKNOWN
    timing: Timing = Timing.UNKNOWN
    rear_axle: RearAxle = RearAxle.UNKNOWN
    rear_brakes: BrakeKind = BrakeKind.UNKNOWN
    front_axle: FrontAxle = FrontAxle.UNKNOWN
    front_brakes: BrakeKind = BrakeKind.UNKNOWN
    front_pivots: Pivots = Pivots.UNKNOWN
    steering_gear: SteeringGear = SteeringGear.UNKNOWN
    fuel_system: FuelSystem = FuelSystem.UNKNOWN
    ignition: Ignition = Ignition.UNKNOWN
    supply: Supply = Supply.UNKNOWN
    parts: Parts = Parts.UNKNOWN
    seized: bool = False
    stainless_exhaust: bool = False
    separate_frame: bool = False
    map_thermostat: bool = False
    two_stage_oil: bool = False
    front_size: Size = ""
    rear_size: Size = ""
    front_bar: Bar | None = None
    rear_bar: Bar | None = None
    also_fitted: Keys = ()
    not_fitted: Keys = ()

    @property
    def regenerative(self) -> bool:
        """True when its motor brakes too."""
        return self.power in (Power.HYBRID, Power.ELECTRIC)

    @property
    def year(self) -> int | None:
        """The year of its first use; none where that is not known."""
        return self.first_used.year if self.first_used else None

    def age_years(self, now: date) -> float | None:
        """Years since it was first used; none where that is not known or lies ahead."""
        if self.first_used is None:
            return None
        return max(0.0, (now - self.first_used).days / 365.25)
