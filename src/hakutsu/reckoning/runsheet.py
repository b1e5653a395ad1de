"""The plan of the day."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import ClassVar

from hakutsu.core.hazards import activities
from hakutsu.core.limitations import proven_cold
from hakutsu.core.runsheet import Conditions, Plan, Step, first_step, plan
from hakutsu.core.runsheet.emphasis import emphasis
from hakutsu.core.runsheet.ticked import ticked
from hakutsu.entries.day import Engine
from hakutsu.reckoning.station import StationRules


class RunSheetReckoned(StationRules):
    """What is to be done in which order; it finds nothing."""

    key: ClassVar[str] = "runsheet"

    @property
    def _not_found_warm(self) -> bool:
        arrival = self._reckoning.dossier.day.arrival
        return arrival is None or (arrival.engine is not Engine.WARM and proven_cold(arrival) is not False)

    @property
    def ticked(self) -> frozenset[str]:
        """Steps that what was entered ticks by itself."""
        return ticked(self._reckoning.dossier.place_coverage())

    @property
    def done(self) -> frozenset[str]:
        """Steps that were done, said so or seen from what was entered."""
        return frozenset(self._reckoning.dossier.hazards.done) | self.ticked

    def first(self, now: datetime) -> Step | None:
        """The first step in the usual order that is not done and may begin; none without conditions."""
        conditions = self._conditions(now)
        return first_step(conditions) if conditions is not None else None

    def plan(self, now: datetime) -> Plan | None:
        """The plan from now on, or none before any conditions were noted."""
        conditions = self._conditions(now)
        return plan(conditions) if conditions is not None else None

    def _conditions(self, now: datetime) -> Conditions | None:
        """What holds from now on, or none before any conditions were noted."""
        said = self._reckoning.dossier.day.conditions
        if said is None:
            return None
        begin = max(now, said.begins)
        end = said.begins + timedelta(minutes=said.available)

        def minutes(at: datetime | None) -> float | None:
            return None if at is None else (at - begin).total_seconds() / 60

        started = {"cold_start", "start"} & (self.done | set(self._reckoning.dossier.hazards.begun))
        forbidden = frozenset(activity for activity in activities() if self._reckoning.blocking(activity))
        return Conditions(
            available=max(0.0, minutes(end) or 0.0),
            protocol=self._reckoning.dossier.opening.brief.protocol,
            engine_cold=said.engine_cold is not False and not started and self._not_found_warm,
            lift=bool(said.lift),
            lift_by_driving=said.lift_by_driving,
            helper=bool(said.helper),
            may_drive=said.may_drive is not False,
            seller_until=minutes(said.seller_until),
            daylight_until=minutes(said.daylight_until),
            dry_until=minutes(said.dry_until),
            blocked=forbidden,
            done=self.done,
            emphasis=emphasis(self._reckoning.dossier.opening.brief),
        )
