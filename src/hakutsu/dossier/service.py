"""Fold of service papers."""

from __future__ import annotations

from dataclasses import dataclass, field

from hakutsu.dossier.body import Seen
from hakutsu.dossier.folding import Gathering, fold
from hakutsu.entries.envelope import Entry
from hakutsu.entries.service import Advisory, Countdown, Cover, Keys, Owners, Plan, PlanRow, ServiceDone, TestHeld


@dataclass(slots=True)
class ServiceDossier:
    """What the papers say was done, in the order of the logbook; rows of the plan by their item."""

    done: list[Seen[ServiceDone]] = field(default_factory=list)
    plan: dict[str, PlanRow] = field(default_factory=dict)
    plans: list[Seen[Plan]] = field(default_factory=list)
    countdown: Seen[Countdown] | None = None
    tests: list[Seen[TestHeld]] = field(default_factory=list)
    advisories: list[Seen[Advisory]] = field(default_factory=list)
    owners: list[Seen[Owners]] = field(default_factory=list)
    keys: Seen[Keys] | None = None
    covers: list[Seen[Cover]] = field(default_factory=list)


@fold("service.done")
def _done(gathering: Gathering, entry: Entry, body: ServiceDone) -> None:
    gathering.station(ServiceDossier).done.append(Seen(entry, body))


@fold("service.plan")
def _plan(gathering: Gathering, entry: Entry, body: Plan) -> None:
    service = gathering.station(ServiceDossier)
    service.plans.append(Seen(entry, body))
    service.plan |= {one.item: one for one in body.rows}


@fold("service.countdown")
def _countdown(gathering: Gathering, entry: Entry, body: Countdown) -> None:
    gathering.station(ServiceDossier).countdown = Seen(entry, body)


@fold("service.test")
def _test(gathering: Gathering, entry: Entry, body: TestHeld) -> None:
    gathering.station(ServiceDossier).tests.append(Seen(entry, body))


@fold("service.advisory")
def _advisory(gathering: Gathering, entry: Entry, body: Advisory) -> None:
    gathering.station(ServiceDossier).advisories.append(Seen(entry, body))


@fold("service.owners")
def _owners(gathering: Gathering, entry: Entry, body: Owners) -> None:
    gathering.station(ServiceDossier).owners.append(Seen(entry, body))


@fold("service.keys")
def _keys(gathering: Gathering, entry: Entry, body: Keys) -> None:
    gathering.station(ServiceDossier).keys = Seen(entry, body)


@fold("service.cover")
def _cover(gathering: Gathering, entry: Entry, body: Cover) -> None:
    gathering.station(ServiceDossier).covers.append(Seen(entry, body))
