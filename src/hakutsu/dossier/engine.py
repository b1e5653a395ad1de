"""Fold of the engine run, air-conditioning, battery and pack."""

from __future__ import annotations

from dataclasses import dataclass, field
from uuid import uuid5

from hakutsu.dossier.body import Seen
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.dossier.hazards import HazardsDossier, KeptHazard
from hakutsu.entries.engine import Air, Battery, EngineLook, EngineSample, EngineStart, Pack
from hakutsu.entries.envelope import Entry
from hakutsu.entries.fluids import Fluid
from hakutsu.entries.hazards import HazardRaised

STOP_C, NEAR_STOP_C = 118.0, 108.0
OVERHEATING = "overheating"


@dataclass(slots=True)
class EngineDossier:
    """The newest run: its start, samples and looks; the newest of air, battery and pack."""

    start: Seen[EngineStart] | None = None
    samples: list[Seen[EngineSample]] = field(default_factory=list)
    looks: list[Seen[EngineLook]] = field(default_factory=list)
    air: Seen[Air] | None = None
    battery: Seen[Battery] | None = None
    pack: Seen[Pack] | None = None
    fluids: dict[str, Seen[Fluid]] = field(default_factory=dict)


@fold("engine.start")
def _start(gathering: Gathering, entry: Entry, body: EngineStart) -> None:
    engine = gathering.station(EngineDossier)
    engine.start, engine.samples, engine.looks = Seen(entry, body), [], []


@fold("engine.sample")
def _sample(gathering: Gathering, entry: Entry, body: EngineSample) -> None:
    """Samples of the run; 118 °C raises a stand-down once the reading before it was nearly as hot."""
    engine = gathering.station(EngineDossier)
    before = [one.body.coolant_c for one in engine.samples if one.body.coolant_c is not None]
    engine.samples.append(Seen(entry, body))
    hot = body.coolant_c is not None and body.coolant_c >= STOP_C
    if hot and before and before[-1] >= NEAR_STOP_C:
        raised = gathering.station(HazardsDossier).raised
        if not any(one.body.cause == OVERHEATING and one.cleared is None for one in raised.values()):
            id = uuid5(entry.id, OVERHEATING)
            raised[id] = KeptHazard(id, entry.at, HazardRaised(cause=OVERHEATING))


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
    gathering.station(EngineDossier).fluids[body.fluid] = Seen(entry, body)
