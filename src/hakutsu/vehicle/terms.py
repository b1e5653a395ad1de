"""How things are said: which of the two vocabularies, which names of the sides, which units, which clock."""

from __future__ import annotations

import re
from datetime import datetime
from functools import cache
from typing import cast
from zoneinfo import ZoneInfo

from pydantic import BaseModel, ConfigDict

from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.engine import engine_looks
from hakutsu.vehicle.equipment import equipment
from hakutsu.vehicle.panels import Side, panels
from hakutsu.vehicle.parts import parts
from hakutsu.vehicle.places import places
from hakutsu.vehicle.quantities import QUANTITIES, Quantity, Scale, scales
from hakutsu.vehicle.road import road_looks
from hakutsu.vehicle.scan import SCAN_LOOKS
from hakutsu.vehicle.table_models import WordsTable
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.under import zones
from hakutsu.vehicle.units import show
from hakutsu.vehicle.vocabulary import Names, SideNames, SteeringSide, Unit

_SIDE = re.compile(r"\{(left|right)\}")
_PLACE = re.compile(r"\{place (\w+)\}")
_QUANTITY = re.compile(rf"\{{({'|'.join(QUANTITIES)}) (-?[\d.]+)\}}")


@cache
def _american() -> tuple[re.Pattern[str], dict[str, str]]:
    words: dict[str, str] = read_table("vehicle", "words", WordsTable)["american"]
    longest_first = sorted(words, key=len, reverse=True)
    return re.compile(rf"\b({'|'.join(map(re.escape, longest_first))})\b", re.IGNORECASE), words


AXLES = ("front", "rear")


@cache
def _other_names() -> dict[str, str]:
    """Names of what is neither place, part nor panel: of cabin, functions, engine, and zones of the underside."""
    found = {f"cabin_{key}": one.name for key, one in cabin_parts().items()}
    found |= {"cabin_all_looked": "smells, moisture, signs", "cabin_all_inventory": "what belongs to it"} | SCAN_LOOKS
    found |= {f"engine_{key}": one.name for key, one in engine_looks().items()}
    found |= road_looks()
    found |= {f"function_{key}": one.name for key, one in equipment().items()}
    found |= {key: one.name for key, one in cabin_parts().items()}
    found |= {"identity": "identity", "engine_number": "engine number", "dates": "dates", "records": "distance"}
    found |= {one: one for one in ("service", "tests", "owners", "keys", "variant")} | {"cover": "warranty"}
    found |= {f"axle_{one}": f"{one} axle" for one in AXLES} | {"wheels": "all four corners"}
    return found | {key: one.name for key, one in zones().items()}


class Terms(BaseModel):
    """Words and units for one reader.

    `names` and `sides` choose among the vocabularies; `steering` is the vehicle's, `kerb` the side of the road its rule
    set drives on. `film` is the unit for film, `readings` that for single readings (none: each as it was taken).
    Distances are stored in km, depths of tread, pads and discs in mm, temperatures in °C, pressures in bar; `zone` is
    the name of a time zone (IANA) for clock times.
    """

    model_config = ConfigDict(frozen=True)

    names: Names = Names.BRITISH
    sides: SideNames = SideNames.OWN
    steering: SteeringSide | None = None
    kerb: Side = "left"
    film: Unit = Unit.UM
    readings: Unit | None = None
    distance: str = "km"
    depth: str = "mm"
    temperature: str = "c"
    pressure: str = "bar"
    zone: str = "UTC"

    def side(self, own: Side) -> str:
        """A side of the vehicle: its own left or right, or as the vocabulary calls it.

        The kerb side is the nearside in the first vocabulary; the second goes by where the driver sits, and falls back
        on left and right where that is not known.
        """
        if self.sides is SideNames.OWN:
            return own
        if self.names is Names.BRITISH:
            return "nearside" if own == self.kerb else "offside"
        if self.steering is None:
            return own
        return "driver’s side" if own == self.steering.value else "passenger side"

    def say(self, text: str) -> str:
        """A text of the program in this reader's words: sides for `{left}` and `{right}`, quantities such as
        `{temperature 118}` (stored units), `{place wheel_front_left}`, words of the vocabulary.
        """
        sided = _SIDE.sub(lambda found: self.side("left" if found[1] == "left" else "right"), str(text))
        sided = _PLACE.sub(lambda found: self.place(found[1]), sided)
        told = _QUANTITY.sub(lambda found: self.scale(cast(Quantity, found[1])).words(float(found[2])), sided)
        if self.names is Names.BRITISH:
            return told
        pattern, words = _american()

        def other(found: re.Match[str]) -> str:
            word = words[found[0].lower()]
            return word[0].upper() + word[1:] if found[0][0].isupper() else word

        return pattern.sub(other, told)

    def panel(self, key: str) -> str:
        """The trade's name of a panel, its side behind it."""
        panel = panels()[key]
        word = panel.british if self.names is Names.BRITISH else panel.american
        return f"{word}, {self.side(panel.side)}" if panel.side else word

    def place(self, key: str | None) -> str:
        """A place, a panel or another part as the trade names it; nothing for none."""
        if key is None:
            return ""
        if key in places():
            return self.say(places()[key].name)
        if key in parts():
            return self.say(parts()[key].name)
        named = _other_names().get(key)
        if named is not None:
            return self.say(named)
        return self.panel(key) if key in panels() else key

    def film_words(self, um: float, *, with_unit: bool = True) -> str:
        """A film thickness [µm] in this reader's unit."""
        return show(um, self.film, with_unit=with_unit)

    def scale(self, quantity: Quantity) -> Scale:
        """The unit of a quantity."""
        return scales(quantity)[getattr(self, quantity)]

    def quantity(self, quantity: Quantity, stored: float) -> str:
        """A stored number of a quantity, with its unit."""
        return self.scale(quantity).words(stored)

    def local(self, at: datetime) -> datetime:
        """A moment on this reader's clock."""
        return at.astimezone(ZoneInfo(self.zone))

    def clock(self, at: datetime) -> str:
        """A time of day, such as 16:30."""
        return f"{self.local(at):%H:%M}"

    def moment(self, at: datetime) -> str:
        """Day and time with the zone they are in."""
        return f"{self.local(at):%-d %b %Y, %H:%M %Z}"


PLAIN = Terms()
