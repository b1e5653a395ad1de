"""What the rules make of the engine run, air-conditioning, battery and pack."""

from __future__ import annotations

from functools import cached_property
from typing import TYPE_CHECKING

from hakutsu.core.engine.air import AirVerdict, cooling, heater
from hakutsu.core.engine.electric import (
    Chemistry,
    Said,
    cell_spread,
    charging,
    conductance,
    cranking,
    pack_health,
    rest_voltage,
)
from hakutsu.core.engine.fluids import FluidFound, fluid_table, fluids_found
from hakutsu.core.engine.warm_up import Sample, WarmUp, WarmUpVerdict, judge, warm_up
from hakutsu.core.estimate import Estimate
from hakutsu.vehicle.mechanics import UNKNOWN, Power

if TYPE_CHECKING:
    from hakutsu.reckoning import Reckoning

SMOKE = {
    "lasting white, sweet": "coolant is burnt: look at the coolant too",
    "lasting white, acrid": "unburnt fuel",
    "blue at the start": "oil past the valve seals",
    "blue under load": "oil past the rings",
    "black": "too much fuel",
    "grey": "rich, or transmission fluid",
}


class EngineReckoned:
    """Everything computed from the engine station."""

    def __init__(self, reckoning: Reckoning) -> None:
        self._reckoning = reckoning
        self._engine = reckoning.dossier.engine

    @property
    def outside_c(self) -> float | None:
        """Air where it stands [°C], as noted on arrival."""
        arrival = self._reckoning.dossier.day.arrival
        return arrival.surroundings_c if arrival is not None else None

    @property
    def samples(self) -> list[Sample]:
        """Coolant readings of the run."""
        return [
            Sample(one.body.minute, one.body.coolant_c, one.body.fan)
            for one in self._engine.samples
            if one.body.coolant_c is not None
        ]

    @property
    def _start_c(self) -> float | None:
        return self._engine.start.body.coolant_c if self._engine.start else None

    @cached_property
    def warm_up(self) -> WarmUp | None:
        """The fitted course, or none from too few samples."""
        return warm_up(self.samples, self._start_c)

    @cached_property
    def verdict(self) -> WarmUpVerdict:
        """What the run says so far."""
        power = self._reckoning.dossier.corners.mechanics.power
        return judge(
            self.samples, start_c=self._start_c, outside_c=self.outside_c, diesel=power is Power.DIESEL
        )  # fmt: skip

    @cached_property
    def smoke(self) -> list[str]:
        """What smoke seen may mean."""
        seen = [one.body.smoke for one in self._engine.looks]
        if self._engine.start:
            seen.insert(0, self._engine.start.body.smoke)
        return [f"{one} smoke: {SMOKE[one]}" for one in dict.fromkeys(map(str, seen)) if one in SMOKE]

    @cached_property
    def fluids(self) -> list[FluidFound]:
        """What the fluids say, together where they count together."""
        looks = {key: one.body for key, one in self._engine.fluids.items()}
        return fluids_found(looks, self._reckoning.rules.winter_c)

    @property
    def fluid_keys(self) -> list[str]:
        """Fluids this vehicle has, as far as that is known."""
        mechanics, table = self._reckoning.dossier.corners.mechanics, fluid_table()["fluid"]
        power = str(mechanics.power)
        return [key for key, row in table.items() if power == UNKNOWN or power in row.get("fits", (power,))]

    @cached_property
    def air(self) -> AirVerdict | None:
        """What the vent says."""
        if self._engine.air is None:
            return None
        body = self._engine.air.body
        return cooling(body.intake_c, body.vent_c, body.humidity, outside_c=body.outside_c, called=body.called)

    @property
    def heats(self) -> bool | None:
        """Whether the heater heats; none on a cold engine, or where nobody measured."""
        body = self._engine.air.body if self._engine.air else None
        if body is None or body.heater_c is None:
            return None
        return heater(body.heater_c, engine_warm=body.engine_warm)

    @cached_property
    def battery(self) -> list[Said]:
        """What each number of the battery says."""
        if self._engine.battery is None:
            return []
        body, found = self._engine.battery.body, []
        if body.rest_v is not None:
            found.append(
                rest_voltage(body.rest_v, rested_h=body.rested_h, surface_off=body.surface_off, asleep=body.asleep,
                             agm=body.agm, six=body.six)
            )  # fmt: skip
        air = body.air_c if body.air_c is not None else self.outside_c
        if body.crank_v is not None and air is not None:
            found.append(cranking(body.crank_v, air))
        if body.charging_v is not None:
            found.append(charging(body.charging_v, smart=body.smart))
        if body.measured is not None and body.rated is not None:
            found.append(conductance(body.measured, body.rated))
        return found

    @cached_property
    def pack(self) -> tuple[list[Said], Estimate | None]:
        """What the cells say, and the health to be expected at this age."""
        if self._engine.pack is None:
            return [], None
        body = self._engine.pack.body
        said = []
        if body.spread_mv is not None:
            said.append(cell_spread(body.spread_mv, body.charged, Chemistry(body.chemistry)))
        age = self._reckoning.dossier.corners.mechanics.age_years(self._reckoning.corners.on)
        expected = pack_health(age, body.cycles or 0.0) if age is not None else None
        return said, expected
