"""Fold of the engine run, air-conditioning, battery and pack."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from hakutsu.dossier.body import Seen
from hakutsu.dossier.coverage import Wanted, expects
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.dossier.hazards import raise_once
from hakutsu.entries.by_feel import AirByHand, ByEar, Needle
from hakutsu.entries.engine import (
    Air,
    Battery,
    Bay,
    EngineIdle,
    EngineLook,
    EngineSample,
    EngineStart,
    Pack,
    heat_confirmed,
)
from hakutsu.entries.envelope import Entry
from hakutsu.entries.fluids import Fluid
from hakutsu.vehicle.engine import expected_looks
from hakutsu.vehicle.quick import quick
from hakutsu.vehicle.vocabulary import Protocol

if TYPE_CHECKING:
    from hakutsu.dossier import Dossier


OVERHEATING = "overheating"
LEAST_READINGS = 5


@dataclass(slots=True)
class Run:
    """One run of the engine: its start, where that was noted, and its samples."""

    start: Seen[EngineStart] | None = None
    samples: list[Seen[EngineSample]] = field(default_factory=list)

    @property
    def coolant(self) -> list[tuple[float, float, bool]]:
        """Coolant readings in the order of time: minute, degrees [°C], fan running."""
        told = [
            (self._minute(seen), seen.body.coolant_c, seen.body.fan)
            for seen in self.samples if seen.body.coolant_c is not None
        ]  # fmt: skip
        return sorted(told, key=lambda one: one[0])

    def _minute(self, seen: Seen[EngineSample]) -> float:
        """The minute of a reading: as it was noted, else by when it was written down after the start."""
        if seen.body.minute is not None:
            return seen.body.minute
        begun = (self.start or self.samples[0]).entry.at
        return max(0.0, (seen.entry.at - begun).total_seconds() / 60)


@dataclass(slots=True)
class EngineDossier:
    """Every run, looks and idle speeds of all of them; the newest of air, battery, pack and bay."""

    runs: list[Run] = field(default_factory=lambda: [Run()])
    looks: list[Seen[EngineLook]] = field(default_factory=list)
    idles: list[Seen[EngineIdle]] = field(default_factory=list)
    bay: Seen[Bay] | None = None
    air: Seen[Air] | None = None
    battery: Seen[Battery] | None = None
    pack: Seen[Pack] | None = None
    fluid_looks: dict[str, list[Seen[Fluid]]] = field(default_factory=dict)
    needles: list[Seen[Needle]] = field(default_factory=list)
    ears: list[Seen[ByEar]] = field(default_factory=list)
    air_by_hand: Seen[AirByHand] | None = None

    @property
    def fluids(self) -> dict[str, Seen[Fluid]]:
        """The newest look at each fluid, by its key."""
        return {key: looks[-1] for key, looks in self.fluid_looks.items()}

    @property
    def now(self) -> Run:
        """The present run."""
        return self.runs[-1]

    @property
    def told(self) -> Run:
        """The run that tells most of warming up: the present one once it has readings enough, else the fullest; a
        restart takes nothing back of what was read before it.
        """
        if len(self.now.coolant) >= LEAST_READINGS:
            return self.now
        return max(reversed(self.runs), key=lambda run: len(run.coolant))

    @property
    def start(self) -> Seen[EngineStart] | None:
        """The newest start."""
        return next((run.start for run in reversed(self.runs) if run.start is not None), None)

    @property
    def samples(self) -> list[Seen[EngineSample]]:
        """Samples of every run."""
        return [one for run in self.runs for one in run.samples]

    def looked_at(self, key: str) -> bool:
        """Whether something the station expects, by its key, was looked at."""
        there = {
            "bay": self.bay, "start": self.start, "idle": self.idles, "air": self.air or self.air_by_hand,
            "battery": self.battery,
            "pack": self.pack, "warm_up": len(self.told.coolant) >= LEAST_READINGS,
        }  # fmt: skip
        return bool(there[key]) if key in there else key.removeprefix("fluid_") in self.fluids


@fold("engine.start")
def _start(gathering: Gathering, entry: Entry, body: EngineStart) -> None:
    engine = gathering.station(EngineDossier)
    if engine.now.start is None and not engine.now.samples:
        engine.now.start = Seen(entry, body)
    else:
        engine.runs.append(Run(Seen(entry, body)))


@fold("engine.sample")
def _sample(gathering: Gathering, entry: Entry, body: EngineSample) -> None:
    """Samples of the run; heat that further readings confirm raises a stand-down."""
    engine = gathering.station(EngineDossier)
    engine.now.samples.append(Seen(entry, body))
    if body.coolant_c is not None and heat_confirmed(engine.now.coolant):
        raise_once(gathering, entry, OVERHEATING)


@fold("engine.idle")
def _idle(gathering: Gathering, entry: Entry, body: EngineIdle) -> None:
    gathering.station(EngineDossier).idles.append(Seen(entry, body))


@fold("engine.bay")
def _bay(gathering: Gathering, entry: Entry, body: Bay) -> None:
    gathering.station(EngineDossier).bay = Seen(entry, body)


@fold("engine.look")
def _look(gathering: Gathering, entry: Entry, body: EngineLook) -> None:
    gathering.station(EngineDossier).looks.append(Seen(entry, body))


@fold("engine.air")
def _air(gathering: Gathering, entry: Entry, body: Air) -> None:
    gathering.station(EngineDossier).air = Seen(entry, body)


@fold("engine.battery")
def _battery(gathering: Gathering, entry: Entry, body: Battery) -> None:
    gathering.station(EngineDossier).battery = Seen(entry, body)


@fold("engine.pack")
def _pack(gathering: Gathering, entry: Entry, body: Pack) -> None:
    gathering.station(EngineDossier).pack = Seen(entry, body)


@fold("fluid.looked")
def _fluid(gathering: Gathering, entry: Entry, body: Fluid) -> None:
    """A later look takes the place of an earlier one in the same state only: cold, warm and running are three looks."""
    looks = gathering.station(EngineDossier).fluid_looks.setdefault(body.fluid, [])
    looks[:] = [*(one for one in looks if one.body.state is not body.state), Seen(entry, body)]


@fold("engine.needle")
def _needle(gathering: Gathering, entry: Entry, body: Needle) -> None:
    gathering.station(EngineDossier).needles.append(Seen(entry, body))


@fold("engine.by_ear")
def _ear(gathering: Gathering, entry: Entry, body: ByEar) -> None:
    gathering.station(EngineDossier).ears.append(Seen(entry, body))


@fold("engine.air_by_hand")
def _air_by_hand(gathering: Gathering, entry: Entry, body: AirByHand) -> None:
    gathering.station(EngineDossier).air_by_hand = Seen(entry, body)


@expects("engine", "Engine")
def _looks(dossier: Dossier) -> Iterator[Wanted]:
    """Fluids, what is under the bonnet, the run, air, battery and pack; quick what its form asks for."""
    protocol = dossier.opening.brief.protocol
    mechanics = dossier.mechanics
    looks = expected_looks(
        mechanics.power.value, thorough=protocol is Protocol.THOROUGH, year=mechanics.year,
        absent=mechanics.not_fitted, there=mechanics.also_fitted,
    )  # fmt: skip
    for one in looks:
        if protocol is not Protocol.QUICK or one.key in quick(dossier.opening.brief.quick).engine:
            yield Wanted(one.place, f"engine_{one.key}", dossier.engine.looked_at(one.key))
