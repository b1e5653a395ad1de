"""What the rules make of the engine run, air-conditioning, battery and pack."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import ClassVar

from hakutsu.core.engine.after import AgainAfter, after_drive
from hakutsu.core.engine.air import AirVerdict, Cooling, air_found, cooling, heater
from hakutsu.core.engine.by_feel import air_by_hand_found, ear_found, needle_found
from hakutsu.core.engine.doubts import RunSoFar
from hakutsu.core.engine.electric import (
    Level,
    Said,
    battery_found,
    cell_spread,
    charging,
    conductance,
    cranking,
    pack_found,
    pack_health,
    rest_voltage,
)
from hakutsu.core.engine.fluids import FluidFound, fluid_table, fluids_found
from hakutsu.core.engine.idle import IdleVerdict, Idling, idle_verdict
from hakutsu.core.engine.oil import OilReading, OilVerdict, oil_verdict
from hakutsu.core.engine.start import bay_found, looks_found, start_found, stood_found
from hakutsu.core.engine.warm_up import Sample, Warming, WarmUp, WarmUpVerdict, judge_fit, warm_up
from hakutsu.core.estimate import Estimate
from hakutsu.core.findings import Finding, found
from hakutsu.core.limitations import proven_cold
from hakutsu.dossier import EngineDossier
from hakutsu.dossier.memo import kept, kept_as_value
from hakutsu.dossier.road import drove
from hakutsu.entries.corners import Grade
from hakutsu.entries.engine import Bay, BaySign, Pack
from hakutsu.entries.envelope import Entry
from hakutsu.entries.under import Leak
from hakutsu.reckoning.station import StationRules
from hakutsu.vehicle.mechanics import UNKNOWN, FuelSystem, Power, Supply

BAY_PLACE = "bay"
WARMED = {Warming.COLD: "engine.runs_cold", Warming.HOT: "engine.runs_hot", Warming.STOP: "engine.must_stop",
          Warming.HIGH: "engine.runs_high"}  # fmt: skip
BATTERY = {Level.GOOD: Grade.SOUND, Level.WATCH: Grade.WORN, Level.BAD: Grade.FAILED}
BAY = {BaySign.SEAM: ("radiator", Grade.WORN), BaySign.SWOLLEN: ("coolant_hoses", Grade.FAILING),
       BaySign.PULLEY: ("auxiliary_belt", Grade.FAILING)}  # fmt: skip


def _seen(findings: Iterable[Finding], *entries: Entry | None) -> list[Finding]:
    """Findings resting on entries."""
    return [one.seen_in(*(entry.id for entry in entries if entry is not None)) for one in findings]


def _leak(leak: Leak) -> str:
    return f"{leak.fluid}: {leak.origin.casefold()}"


class EngineReckoned(StationRules):
    """Everything computed from the engine station."""

    key: ClassVar[str] = "engine"

    @property
    def _engine(self) -> EngineDossier:
        return self._reckoning.dossier.engine

    def findings(self) -> list[Finding]:
        """Of standing, run, bay, fluids, air, battery and pack."""
        return [*self.run_found, *self.by_feel_found, *self.bay_found, *self.fluids_found, *self.electric_found]

    @property
    def outside_c(self) -> float | None:
        """Air where it stands [°C], as noted on arrival."""
        arrival = self._reckoning.dossier.day.arrival
        return arrival.surroundings_c if arrival is not None else None

    @kept_as_value
    def bay_looked(self) -> Bay | None:
        """What was last noted of the engine bay."""
        return self._engine.bay.body if self._engine.bay else None

    @kept_as_value
    def pack_read(self) -> Pack | None:
        """What was last read of the high-voltage pack."""
        return self._engine.pack.body if self._engine.pack else None

    @kept_as_value
    def samples(self) -> list[Sample]:
        """Coolant readings of the run that tells most."""
        return [
            Sample(one.body.minute, one.body.coolant_c, one.body.fan)
            for one in self._engine.told.samples
            if one.body.coolant_c is not None and one.body.minute is not None
        ]

    @kept_as_value
    def start_c(self) -> float | None:
        """Coolant before the start [°C], as noted with it or on arrival."""
        start = self._engine.told.start
        noted = start.body.coolant_c if start else None
        arrival = self._reckoning.dossier.day.arrival
        return arrival.engine_c if noted is None and arrival is not None and self.cold is not None else noted

    @kept
    def warm_up(self) -> WarmUp | None:
        """The fitted course, or none from too few samples."""
        return warm_up(self.samples, self.start_c)

    @kept
    def verdict(self) -> WarmUpVerdict:
        """What the run says so far."""
        facts = self._reckoning.dossier.mechanics
        diesel, mapped = facts.power is Power.DIESEL, facts.map_thermostat
        return judge_fit(
            self.samples, self.warm_up, outside_c=self.outside_c, diesel=diesel, map_controlled=mapped
        )  # fmt: skip

    @property
    def cold(self) -> bool | None:
        """Whether the engine was proven cold by a separate thermometer; none where nobody measured."""
        arrival = self._reckoning.dossier.day.arrival
        return proven_cold(arrival) if arrival is not None else None

    def so_far(self, now: datetime) -> RunSoFar:
        """Readings of the present run, and how long it has run."""
        run = self._engine.now
        read = [(one.body.minute, one.body.coolant_c) for one in run.samples if one.body.minute is not None]
        started = run.start.entry.at if run.start else None
        return RunSoFar(read, None if started is None else (now - started).total_seconds() / 60)

    @kept
    def oil(self) -> OilVerdict | None:
        """What oil pressures say; a reading without coolant is as hot as the one before it."""
        read, last = list[OilReading](), None
        for run in self._engine.runs:
            for one in sorted((seen.body for seen in run.samples), key=lambda body: body.minute or 0.0):
                last = one.coolant_c if one.coolant_c is not None else last
                if one.oil_bar is not None and one.rpm is not None:
                    read.append(OilReading(one.rpm, one.oil_bar, last))
            last = None
        return oil_verdict(read, two_stage=self._reckoning.dossier.mechanics.two_stage_oil)

    @kept
    def idle(self) -> IdleVerdict | None:
        """What the newest speeds at idle say."""
        if not self._engine.idles:
            return None
        body = self._engine.idles[-1].body
        carburettor = self._reckoning.dossier.mechanics.fuel_system is FuelSystem.CARBURETTOR
        return idle_verdict(
            body.rpm, body.hertz, warm=body.warm, switched=body.switched, carburettor=body.carburettor or carburettor
        )  # fmt: skip

    @kept_as_value
    def run_found(self) -> list[Finding]:
        """What standing, the start, looks, idle and oil pressure say."""
        day, engine = self._reckoning.dossier.day, self._engine
        told = _seen(stood_found(day.arrival), day.arrived) if day.arrival is not None else []
        for run in engine.runs:
            told += _seen(start_found(run.start.body), run.start.entry) if run.start else []
        told += _seen(looks_found(one.body for one in engine.looks), *(one.entry for one in engine.looks))
        sampled = [one.entry for one in engine.samples]
        if self.idle is not None and self.idle.idling in (Idling.ROUGH, Idling.HUNTING):
            code = f"engine.idle_{self.idle.idling.value}"
            idles = f"idles {self.idle.idling}"
            told += _seen([found(code, BAY_PLACE, idles, (self.idle.words,))], engine.idles[-1].entry)
        if self.oil is not None and self.oil.code:
            told += _seen([found(self.oil.code, BAY_PLACE, self.oil.words)], *sampled)
        if self.samples and self.verdict.warming in WARMED:
            words = f"{self.verdict.warming}: {self.verdict.words}"
            told += _seen([found(WARMED[self.verdict.warming], BAY_PLACE, words)], *sampled)
        return told

    @property
    def limiting(self) -> list[Finding]:
        """Dead needles."""
        return self.by_feel_found

    @kept_as_value
    def by_feel_found(self) -> list[Finding]:
        """What ear and needle say."""
        told: list[Finding] = []
        for ear in self._engine.ears:
            told += _seen(ear_found(ear.body), ear.entry)
        for needle in self._engine.needles:
            told += _seen(needle_found(needle.body), needle.entry)
        return told

    @kept_as_value
    def bay_found(self) -> list[Finding]:
        """What signs under the bonnet say."""
        return _seen(bay_found(self._engine.bay.body), self._engine.bay.entry) if self._engine.bay else []

    @kept_as_value
    def fluids_found(self) -> list[Finding]:
        """What the fluids say."""
        looks = self._engine.fluid_looks
        return [
            finding for one in self.fluids
            for finding in _seen([one.finding], *(seen.entry for key in one.fluids for seen in looks.get(key, ())))
        ]  # fmt: skip

    @kept_as_value
    def electric_found(self) -> list[Finding]:
        """What air-conditioning, heater, battery and pack say."""
        told: list[Finding] = []
        if self._engine.air is not None:
            told += _seen(air_found(self.air, self.heats), self._engine.air.entry)
        if self._engine.air_by_hand is not None:
            by_hand = self._engine.air_by_hand
            told += _seen(air_by_hand_found(by_hand.body, self.outside_c), by_hand.entry)
        if self._engine.battery is not None:
            told += _seen(battery_found(self.battery), self._engine.battery.entry)
        if self._engine.pack is not None:
            told += _seen(pack_found(self.pack[0], self._engine.pack.body.health), self._engine.pack.entry)
        return told

    @kept
    def after_drive(self) -> list[AgainAfter]:
        """What is looked at again after the drive, and what is still to be."""
        dossier, engine = self._reckoning.dossier, self._engine
        return after_drive(
            drove(dossier),
            [(one.entry.at, one.body) for one in engine.looks],
            [(one.entry.at, one.body) for one in engine.samples],
            [(one.entry.at, one.body) for one in engine.idles],
            [(_leak(looks[-1].body), [seen.entry.at for seen in looks]) for looks in dossier.under.leaks.values()],
        )

    def part_grades(self) -> dict[str, tuple[Grade, str]]:
        """What measurements make of parts with a life, by piece, with the reason."""
        found: dict[str, tuple[Grade, str]] = {}
        if self.samples and self.verdict.warming is Warming.COLD:
            found["thermostat"] = (Grade.FAILING, f"{self.verdict.words}, or the gauge is wrong")
        body = self._engine.battery.body if self._engine.battery else None
        if body is not None and body.measured is not None and body.rated is not None:
            said = conductance(body.measured, body.rated)
            found["battery"] = (BATTERY[said.level], said.words)
        if body is not None and body.charging_v is not None:
            said = charging(body.charging_v, smart=body.smart, six=self.six_volt)
            if said.level in (Level.GOOD, Level.FAULT):
                found["alternator"] = (Grade.SOUND if said.level is Level.GOOD else Grade.FAILING, said.words)
        if self.air is not None and self.air.cooling in (Cooling.HEALTHY, Cooling.WEAK):
            found["air_charge"] = (Grade.SOUND if self.air.cooling is Cooling.HEALTHY else Grade.WORN, self.air.cooling)
        for sign, (part, grade) in BAY.items():
            if self._engine.bay is not None and sign in self._engine.bay.body.signs:
                found[part] = (grade, str(sign))
        burnt = [one.finding.words for one in self.fluids if one.fluids == ("transmission",) and one.finding.settles]
        if burnt:
            found["gearbox_automatic"] = (Grade.WORN, burnt[0])
        return found

    @kept_as_value
    def fluids(self) -> list[FluidFound]:
        """What the fluids say, together where they count together."""
        looks = {key: [one.body for one in every] for key, every in self._engine.fluid_looks.items()}
        return fluids_found(looks, self._reckoning.rules.winter_c)

    @property
    def fluid_keys(self) -> list[str]:
        """Fluids this vehicle has, as far as that is known."""
        mechanics, table = self._reckoning.dossier.mechanics, fluid_table()["fluid"]
        power = mechanics.power.value
        return [key for key, row in table.items() if power == UNKNOWN or power in row.get("fits", (power,))]

    @kept
    def air(self) -> AirVerdict | None:
        """What the vent says."""
        if self._engine.air is None:
            return None
        body = self._engine.air.body
        if body.vent_c is None:
            return None
        if body.intake_c is None:
            return AirVerdict(Cooling.INCONCLUSIVE, None, "the air taken in was not measured")
        return cooling(
            body.intake_c, body.vent_c, body.humidity, outside_c=body.outside_c, called=body.called,
            minutes=body.minutes,
        )  # fmt: skip

    @property
    def heats(self) -> bool | None:
        """Whether the heater heats; none on a cold engine, or where nobody measured."""
        body = self._engine.air.body if self._engine.air else None
        if body is None or body.heater_c is None:
            return None
        return heater(body.heater_c, engine_warm=body.engine_warm)

    @property
    def six_volt(self) -> bool:
        """Whether its system has 6 V, by its facts or as noted with the battery."""
        noted = self._engine.battery is not None and self._engine.battery.body.six
        return noted or self._reckoning.dossier.mechanics.supply is Supply.SIX

    @kept
    def battery(self) -> list[Said]:
        """What each number of the battery says."""
        if self._engine.battery is None:
            return []
        body, found = self._engine.battery.body, []
        if body.rest_v is not None:
            found.append(
                rest_voltage(body.rest_v, rested_h=body.rested_h, surface_off=body.surface_off, asleep=body.asleep,
                             agm=body.agm, six=self.six_volt)
            )  # fmt: skip
        air = body.air_c if body.air_c is not None else self.outside_c
        if body.crank_v is not None and air is not None:
            found.append(cranking(body.crank_v, air, six=self.six_volt))
        if body.charging_v is not None:
            found.append(charging(body.charging_v, smart=body.smart, six=self.six_volt))
        if body.measured is not None and body.rated is not None:
            found.append(conductance(body.measured, body.rated))
        return found

    @kept
    def pack(self) -> tuple[list[Said], Estimate | None]:
        """What the cells say, and the health to be expected at this age."""
        if self._engine.pack is None:
            return [], None
        body = self._engine.pack.body
        said = []
        if body.spread_mv is not None:
            said.append(cell_spread(body.spread_mv, body.charged, body.chemistry))
        age = self._reckoning.dossier.mechanics.age_years(self._reckoning.corners.on)
        expected = pack_health(age, body.cycles or 0.0) if age is not None else None
        return said, expected
