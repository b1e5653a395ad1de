"""Dossier → reckoning: the one place that calls the rules. Each part is computed when first asked for."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from functools import cached_property
from typing import Any, cast
from uuid import UUID

from hakutsu.core.body.preparation import Ordered
from hakutsu.core.findings import Finding, merged
from hakutsu.core.follow_up import ProposedLimit, SecondLook, limits_of_findings, proposed_limits, second_looks
from hakutsu.core.hazards import StandDown, asked_by_law, blocking, open_stand_downs
from hakutsu.core.life.components import components, fitted, pieces
from hakutsu.core.limitations import Limitation, Unobserved, limitations, unobserved
from hakutsu.core.said_as import weighed
from hakutsu.core.stories import Story, stories
from hakutsu.core.taste import by_law, of_looks
from hakutsu.dossier import Dossier
from hakutsu.dossier.memo import Leaf, Memo, kept
from hakutsu.entries.envelope import Entry
from hakutsu.entries.settings import Settings
from hakutsu.entries.under import Exhaust
from hakutsu.reckoning.cabin import CabinReckoned
from hakutsu.reckoning.condition import ConditionReckoned
from hakutsu.reckoning.corners import CornersReckoned
from hakutsu.reckoning.engine import EngineReckoned
from hakutsu.reckoning.film import FilmReckoned
from hakutsu.reckoning.functions import FunctionsReckoned
from hakutsu.reckoning.life import Lives
from hakutsu.reckoning.outside import Outside
from hakutsu.reckoning.preparation import prepared
from hakutsu.reckoning.runsheet import RunSheetReckoned
from hakutsu.reckoning.station import StationRules, StationT, station_rules
from hakutsu.reckoning.under import UnderReckoned
from hakutsu.vehicle.rules import RuleSet, rule_sets
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.vocabulary import SteeringSide, Unit


def terms(settings: Settings, gauge: Unit = Unit.UM, steering: SteeringSide | None = None) -> Terms:
    """Words and units that settings choose, beside a gauge and on a vehicle."""
    same = settings.model_dump(include={"names", "sides", "distance", "depth", "temperature", "pressure", "zone"})
    kerb = rule_sets()[settings.rules].side
    return Terms(**same, film=settings.film or gauge, readings=settings.film, kerb=kerb, steering=steering)


class Reckoning:
    """Everything computed from one dossier: its settings, its stations, and what is drawn from all their findings."""

    def __init__(self, dossier: Dossier, account: Settings | None = None, before: Reckoning | None = None) -> None:
        self.dossier = dossier
        self._account = account or Settings()
        same = before is not None and before._account == self._account
        self.memo: Memo = Memo(self.stamp, before.memo if before is not None and same else None)

    key = "reckoning"

    def stamp(self, leaf: Leaf) -> Any:
        """How something that can be read stands: equal in two reckonings of an inspection where it is the same."""
        if not isinstance(leaf, tuple):
            return self.dossier.stamp(leaf)
        owner, name = leaf
        known = {"condition": self.condition, "lives": self.lives, **self.stations}
        return getattr(known[owner], name)

    @property
    def settings(self) -> Settings:
        """Settings of the account, with what this inspection has otherwise."""
        return self._account.overridden(self.dossier.own_settings)

    @cached_property
    def stations(self) -> Mapping[str, StationRules]:
        """The rules of every station by its key, in their order."""
        return {one.key: one(self) for one in station_rules()}

    def station(self, rules: type[StationT]) -> StationT:
        """The rules of a station, by their class."""
        return cast(StationT, self.stations[rules.key])

    @kept
    def findings(self) -> list[Finding]:
        """Every conclusion of every station: all that sheet, stories, condition, search and report read.

        What somebody caused themselves is excused; worn parts that no other finding speaks of are told by the lives.
        """
        every = [one for station in self.stations.values() for one in station.found]
        taste, rules = self.dossier.opening.brief.taste, self.rules
        told = merged(self._excused(by_law(of_looks(self._weighed(one), taste), rules)) for one in every)
        return told + self.lives.worn_out(told)

    def _weighed(self, one: Finding) -> Finding:
        known = self.entries
        return weighed(one, [known[entry].said_as for entry in one.evidence if entry in known])

    def _excused(self, one: Finding) -> Finding:
        known = self.entries
        mine = bool(one.evidence) and all(entry in known and known[entry].own_doing for entry in one.evidence)
        return one.excuse("own_doing") if mine and not one.excused else one

    def findings_of(self, station: str) -> list[Finding]:
        """The findings of one station."""
        return [one for one in self.findings if one.station == station]

    @kept
    def terms(self) -> Terms:
        """Words and units in which this inspection is shown."""
        return terms(self.settings, self.dossier.gauge_unit, self.dossier.steering)

    @property
    def entries(self) -> Mapping[UUID, Entry]:
        """Every entry of the logbook by its id, struck or not."""
        return self.dossier.by_id

    @kept
    def rules(self) -> RuleSet:
        """The rule set in use."""
        return rule_sets()[self.settings.rules]

    @kept
    def limitations(self) -> list[Limitation]:
        """What the circumstances hide."""
        return limitations(self.dossier.day.arrival, self.dossier.day.conditions, self.terms)

    @property
    def film(self) -> FilmReckoned:
        """The film survey."""
        return self.station(FilmReckoned)

    @property
    def outside(self) -> Outside:
        """Everything seen outside."""
        return self.station(Outside)

    @property
    def corners(self) -> CornersReckoned:
        """The corners."""
        return self.station(CornersReckoned)

    @property
    def engine(self) -> EngineReckoned:
        """The engine run, air-conditioning, battery and pack."""
        return self.station(EngineReckoned)

    @property
    def functions(self) -> FunctionsReckoned:
        """Functions and lamps."""
        return self.station(FunctionsReckoned)

    @property
    def under(self) -> UnderReckoned:
        """The underside and leaks."""
        return self.station(UnderReckoned)

    @property
    def cabin(self) -> CabinReckoned:
        """The cabin."""
        return self.station(CabinReckoned)

    @property
    def run_sheet(self) -> RunSheetReckoned:
        """The plan of the day."""
        return self.station(RunSheetReckoned)

    @cached_property
    def condition(self) -> ConditionReckoned:
        """Every grade against what is usual, and what other stations make of parts."""
        return ConditionReckoned(self)

    @kept
    def preparation(self) -> list[Ordered]:
        """What anyone would do to make it right, in the jobs a workshop sells."""
        return prepared(self)

    @kept
    def stories(self) -> list[Story]:
        """Findings of all stations that explain each other; what counts for nothing tells none."""
        return stories([one for one in self.findings if not one.excused])

    @cached_property
    def lives(self) -> Lives:
        """What waits on this vehicle, for the buyer's distance and use."""
        return Lives(self)

    @kept
    def proposed_limits(self) -> list[ProposedLimit]:
        """Limits that findings cause, to be taken or dropped."""
        follow = self.dossier.follow_ups
        cause = [self._excused(one) for station in self.stations.values() for one in station.limiting]
        return [*proposed_limits(follow), *limits_of_findings(follow, cause, self.entries)]

    def second_looks(self, now: datetime) -> list[SecondLook]:
        """Second looks wanted or taken; those that are due at `now` say so."""
        dossier = self.dossier
        return second_looks(dossier.follow_ups, dossier.general, dossier.hazards, now)

    @kept
    def unobserved(self) -> list[Unobserved]:
        """Parts that nobody could look at for want of a lift, or because of where the vehicle stands."""
        dossier = self.dossier
        graded = {key.partition(":")[0] for key in (*self.corners.grades, *dossier.corners.gear)}
        zones = {key: seen.body for key, seen in dossier.under.zones.items()}
        looked = {key for key, look in zones.items() if look.looked}
        exhaust = {"exhaust_rear" for look in zones.values() if look.exhaust is not Exhaust.UNKNOWN}
        has = {piece.component.key for piece in pieces(dossier.mechanics, dossier.vehicle.doors)}
        told = {key for key, one in components().items() if fitted(one, dossier.mechanics) is not None}
        return unobserved(
            dossier.day.arrival, dossier.day.conditions, self.terms, seen=graded | looked | exhaust, lacks=told - has
        )  # fmt: skip

    @kept
    def stand_downs(self) -> list[StandDown]:
        """Causes raised and not cleared."""
        year = self.dossier.mechanics.year
        every = open_stand_downs(self.dossier.hazards)
        return [one for one in every if asked_by_law(one.cause.key, year, self.rules)]

    def blocking(self, activity: str | None) -> list[StandDown]:
        """The open stand-downs that forbid an activity."""
        return blocking(activity, self.stand_downs) if activity else []
