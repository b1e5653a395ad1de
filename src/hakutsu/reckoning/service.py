"""What the rules make of service papers, tests, owners, keys and cover."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date
from typing import ClassVar
from uuid import UUID

from hakutsu.core.findings import Finding
from hakutsu.core.life.components import fitted, scheduled_items
from hakutsu.core.life.reckon import Proof
from hakutsu.core.service.schedule import (
    OIL,
    CountdownSays,
    ItemStands,
    Life,
    Work,
    countdown_says,
    stands,
    twice,
)
from hakutsu.core.service.told import (
    Matched,
    advisories_found,
    countdown_found,
    covers_found,
    keys_found,
    matched,
    owners_found,
    plan_found,
    said_found,
    test_found,
)
from hakutsu.dossier.coverage import Covered
from hakutsu.dossier.memo import kept
from hakutsu.dossier.service import ServiceDossier
from hakutsu.entries.cabin import There
from hakutsu.entries.service import PlanRow
from hakutsu.entries.settings import LifeFigures
from hakutsu.reckoning.papers import PapersReckoned
from hakutsu.reckoning.station import StationRules
from hakutsu.vehicle.days import middle_of
from hakutsu.vehicle.places import places

ASIDE = ("service", "claims", "variant", "runsheet", "hazards")  # stations that no advisory of a test comes true by
MONTHS = 12.0
SECOND_KEY = "keys_second"


@dataclass(frozen=True, slots=True)
class PlanHere:
    """The plan of this vehicle: its rows, and whether they are the maker's as told or usual ones."""

    rows: tuple[PlanRow, ...]
    maker: bool


class ServiceReckoned(StationRules):
    """Findings of service papers."""

    key: ClassVar[str] = "service"

    @property
    def _service(self) -> ServiceDossier:
        return self._reckoning.dossier[ServiceDossier]

    @property
    def _today(self) -> date:
        return self._reckoning.corners.on

    @kept
    def life(self) -> Life:
        """The vehicle's own clock, with the distance it probably ran."""
        km = self._reckoning.station(PapersReckoned).probable_km
        return Life(self._reckoning.dossier.mechanics.first_used, self._today, km)

    @kept
    def plan(self) -> PlanHere:
        """The maker's plan where it was told, else what is usual for what this vehicle has."""
        told = self._service.plan
        if told:
            return PlanHere(tuple(told.values()), maker=True)
        here = {one.key: fitted(one, self._reckoning.dossier.mechanics) for one in scheduled_items().values()}
        untold = {OIL: here[OIL] is not False}  # nearly every vehicle has it, and stamps are of it
        usual = [one for one in scheduled_items().values() if here[one.key] or untold.get(one.key)]
        return PlanHere(tuple(_usual(one.key, one.km, one.years) for one in usual), maker=False)

    @kept
    def works(self) -> list[Work]:
        """What was done, without what two papers say alike."""
        told = [
            Work(middle_of(seen.body.on), seen.body.at_km, seen.body.by, seen.body.proof, seen.body.items,
                 seen.body.whole, seen.entry.id)
            for seen in self._service.done
        ]  # fmt: skip
        again = twice(told, {seen.entry.id: seen.body.number for seen in self._service.done})
        return [one for one in told if one.entry not in again]

    @property
    def doubled(self) -> set[UUID]:
        """Entries that say what another one says."""
        return {seen.entry.id for seen in self._service.done} - {one.entry for one in self.works}

    @kept
    def items(self) -> list[ItemStands]:
        """How every item of the plan stands."""
        return stands(self.plan.rows, self.works, self.life, self._reckoning.lives.km_per_year)

    @kept
    def countdown(self) -> CountdownSays | None:
        """What the dashboard's countdown implies; none without one, or without a proven service."""
        seen = self._service.countdown
        oil = next((one for one in self.items if one.item == OIL), None)
        if seen is None or oil is None or not oil.done:
            return None
        left = seen.body.remaining_km, seen.body.remaining_days
        return countdown_says(left, (oil.last_on, oil.last_km), oil.row if self.plan.maker else None, self.life)

    @kept
    def advisories(self) -> list[Matched]:
        """What became of every advisory."""
        if not self._service.advisories:
            return []
        others = [
            one for key, station in self._reckoning.stations.items() if key not in ASIDE for one in station.found
            if not one.excused
        ]  # fmt: skip
        looks = {
            part.check.key for place in self._reckoning.dossier.place_coverage() for part in place.parts
            if part.state is Covered.DONE
        }  # fmt: skip
        told = [(seen.body, seen.entry.id, seen.entry.place or "") for seen in self._service.advisories]
        return matched(told, others, looks.__contains__, _side)

    @property
    def tested_until(self) -> tuple[date | None, UUID | None]:
        """Until when the last test holds, and its entry."""
        known = [(middle_of(seen.body.until), seen.entry.id) for seen in self._service.tests if seen.body.until]
        return max(known, key=lambda one: one[0] or date.min, default=(None, None))

    def findings(self) -> list[Finding]:
        """Everything that service papers say."""
        service = self._service
        papers = [one.entry for one in self.works] + [seen.entry.id for seen in service.plans]
        told = plan_found(self.items, papers if self.works else [], maker=self.plan.maker)
        told += said_found(self.works)
        if service.countdown is not None:
            told += countdown_found(self.countdown, service.countdown.entry.id)
        told += advisories_found(self.advisories)
        told += test_found(self.tested_until[0], self._today, self.tested_until[1])
        told += owners_found([(seen.body, seen.entry.id) for seen in service.owners])
        if service.keys is not None:
            noted = self._reckoning.dossier.cabin.inventory.get(SECOND_KEY)
            missing = noted is not None and noted.body.there is There.MISSING  # the cabin tells of it already
            keys = keys_found(service.keys.body, service.keys.entry.id)
            told += [one for one in keys if not (missing and one.code == "service.one_key")]
        until = {seen.entry.id: middle_of(seen.body.until) for seen in service.covers}
        covers = [(seen.body, seen.entry.id) for seen in service.covers]
        return told + covers_found(covers, until, self._today, self._reckoning.dossier.mechanics.odometer_km)

    def proofs(self) -> dict[str, Proof]:
        """When items and parts were last done, by what proves it; what is only said proves nothing."""
        told = {}
        for one in self.items:
            if one.done:
                last = one.done[-1]
                told[one.item] = self._proof(last)
        return told

    def _proof(self, work: Work) -> Proof:
        years = (self._today - work.on).days / 365.25 if work.on else None
        km = max(0.0, self.life.km - work.km) if self.life.km is not None and work.km is not None else None
        when = str(work.on.year) if work.on else ""
        at = f"at {{distance {work.km:.0f}}}" if work.km is not None else ""
        return Proof(km, years, " ".join(one for one in ("done", when, at, f"({work.proof})") if one))

    def intervals(self) -> dict[str, LifeFigures]:
        """Intervals of the maker's plan, as lives reckon with them."""
        rows = self.plan.rows if self.plan.maker else ()
        return {one.item: _figures(one) for one in rows}


def _usual(key: str, km: float | None, years: float | None) -> PlanRow:
    """A row of usual intervals."""
    return PlanRow(item=key, km=km or None, months=years * MONTHS if years else None)


def _figures(row: PlanRow) -> LifeFigures:
    """A row of a plan in thousands of km and years."""
    return LifeFigures(km=row.km / 1000 if row.km else None, years=row.months / MONTHS if row.months else None)


def _side(place: str) -> str | None:
    if place in places():
        return places()[place].side
    return "left" if place.endswith("_left") else "right" if place.endswith("_right") else None
