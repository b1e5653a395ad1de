"""What drives, carries and stops a vehicle, its distance and its placard: what a life is reckoned from."""

from __future__ import annotations

from datetime import date
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from hakutsu.vehicle.keyed import Keyed
from hakutsu.vehicle.vocabulary import Keys

Size = Annotated[str, StringConstraints(strip_whitespace=True, max_length=40)]
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


class RearBrakes(Keyed):
    """What stops the rear wheels."""

    UNKNOWN = "unknown", "not known"
    DISC = "discs"
    DRUM = "drums"


class Mechanics(BaseModel):
    """Mechanical facts of one vehicle; what is not known stays so.

    `first_used` is when it was first registered, `odometer_km` what its distance meter shows. Sizes and pressures [bar]
    are those of the placard. `separate_frame`: body and frame are two; `map_thermostat`: the engine's computer moves
    its thermostat. `also_fitted` and `not_fitted` name parts of the life tables.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    first_used: Annotated[date, Field(ge=OLDEST, le=LATEST)] | None = None
    odometer_km: Annotated[float, Field(ge=0, le=3_000_000)] | None = None
    power: Power = Power.UNKNOWN
    drive: Drive = Drive.UNKNOWN
    gearbox: Gearbox = Gearbox.UNKNOWN
    timing: Timing = Timing.UNKNOWN
    rear_axle: RearAxle = RearAxle.UNKNOWN
    rear_brakes: RearBrakes = RearBrakes.UNKNOWN
    stainless_exhaust: bool = False
    separate_frame: bool = False
    map_thermostat: bool = False
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

    def age_years(self, now: date) -> float | None:
        """Years since it was first used; none where that is not known or lies ahead."""
        if self.first_used is None:
            return None
        return max(0.0, (now - self.first_used).days / 365.25)
