"""What an inspector tells by feel, ear and needle: no number, and still an observation."""

from __future__ import annotations

from typing import Annotated, Self

from pydantic import Field, StringConstraints, model_validator

from hakutsu.entries.bounds import Several
from hakutsu.entries.registry import Body, entry_kind
from hakutsu.vehicle.keyed import Keyed

Note = Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)]
Share = Annotated[float, Field(ge=0, le=1)]


class NeedleOf(Keyed):
    """What a needle shows."""

    TEMPERATURE = "temperature"
    OIL = "oil", "oil pressure"
    CHARGE = "charge", "charging"
    FUEL = "fuel"
    VACUUM = "vacuum"


class Moment(Keyed):
    """When it was read."""

    UNKNOWN = "unknown", "not told when"
    COLD = "cold", "cold"
    CRUISING = "cruising"
    HOT = "hot", "hot at idle"


class Steadiness(Keyed):
    """How a needle moves."""

    UNKNOWN = "unknown", "not told"
    STEADY = "steady"
    WANDERS = "wanders"
    JUMPS = "jumps"
    DEAD = "dead", "does not move at all"


@entry_kind("engine.needle")
class Needle(Body):
    """A needle on a dial without figures: where it stands on its scale, from and to (0 to 1); how it moves."""

    of: NeedleOf
    when: Moment = Moment.UNKNOWN
    share: tuple[Share, Share] | None = None
    steady: Steadiness = Steadiness.UNKNOWN
    note: Note = ""

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if self.share is not None and self.share[0] > self.share[1]:
            raise ValueError("the lowest is above the highest")
        if self.share is None and self.steady is Steadiness.UNKNOWN:
            raise ValueError("say where it stands, or how it moves")
        return self


class Sounds(Keyed):
    """How an engine runs, by ear."""

    SMOOTH = "smooth", "runs smoothly"
    SLIGHT_MISS = "slight_miss", "a slight miss"
    HUNTS = "hunts", "hunts at idle"
    STRUGGLES_COLD = "struggles_cold", "struggles when cold"
    HESITATES = "hesitates", "hesitates when revved"
    REVS_FREELY = "revs_freely", "revs freely"
    KNOCKS = "knocks"
    TAPS = "taps", "taps at the top end"
    WHINES = "whines"


@entry_kind("engine.by_ear")
class ByEar(Body):
    """How the engine runs by ear and feel, cold or hot."""

    sounds: Annotated[Several[Sounds], Field(min_length=1)]
    when: Moment = Moment.UNKNOWN
    note: Note = ""


class Cooled(Keyed):
    """Air-conditioning by hand at the vent."""

    UNKNOWN = "unknown", "not tried"
    COLD = "cold"
    COOL = "cool"
    NOT_DIFFERENT = "not_different", "not different from the air outside"
    BUTTON_DEAD = "button_dead", "button dead"


class Compressor(Keyed):
    """The compressor, by ear and eye."""

    UNKNOWN = "unknown", "not watched"
    ENGAGES = "engages"
    CYCLES = "cycles", "cycles rapidly"
    NEVER = "never", "never engages"


class Heats(Keyed):
    """The heater by hand."""

    UNKNOWN = "unknown", "not tried"
    HOT = "hot"
    WARM = "warm", "no more than warm"
    COLD = "cold"
    COLD_ENGINE = "cold_engine", "cold, the engine is cold too"


@entry_kind("engine.air_by_hand")
class AirByHand(Body):
    """Air-conditioning, compressor and heater by hand and ear, where nobody held a thermometer."""

    cooled: Cooled = Cooled.UNKNOWN
    compressor: Compressor = Compressor.UNKNOWN
    heats: Heats = Heats.UNKNOWN
    note: Note = ""

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        tried = (self.cooled, self.compressor, self.heats)
        if all(one.value == "unknown" for one in tried):
            raise ValueError("say what was tried: cooling, compressor or heater")
        return self
