"""Dossier → reckoning: the one place that calls the rules. Each part is computed when first asked for."""

from __future__ import annotations

from datetime import datetime, timedelta
from functools import cached_property
from math import log2
from uuid import UUID

from hakutsu.core.body.cues import below_cues, body_cues
from hakutsu.core.body.rust import rust_traps
from hakutsu.core.film import (
    Cover,
    CueLooked,
    FilmAnalysis,
    FilmModel,
    FilmSurvey,
    Judged,
    NextSpot,
    Observation,
    School,
    State,
    advice,
    analyse_model,
    cue_kinds,
    magnet_observation,
    parameters,
    prior_finish,
    schools_side_by_side,
    without,
)
from hakutsu.core.film.verification import Check, Fit, Verified, corrected, fit_gauge, verified
from hakutsu.core.follow_up import ProposedLimit, SecondLook, proposed_limits, second_looks
from hakutsu.core.hazards import StandDown, activities, blocking, open_stand_downs
from hakutsu.core.limitations import Limitation, Unobserved, dirt_sd_um, limitations, proven_cold, unobserved
from hakutsu.core.runsheet import Conditions, Plan, plan
from hakutsu.core.runsheet.emphasis import emphasis
from hakutsu.core.stories import Story
from hakutsu.dossier import Dossier, KeptReading
from hakutsu.entries.day import Engine
from hakutsu.entries.envelope import Entry
from hakutsu.entries.film import VerifiedWhen
from hakutsu.entries.settings import Settings
from hakutsu.reckoning.cabin import CabinReckoned
from hakutsu.reckoning.condition import ConditionReckoned
from hakutsu.reckoning.corners import CornersReckoned
from hakutsu.reckoning.engine import EngineReckoned
from hakutsu.reckoning.functions import FunctionsReckoned
from hakutsu.reckoning.life import Lives
from hakutsu.reckoning.outside import Outside
from hakutsu.reckoning.stories import told_once
from hakutsu.reckoning.under import UnderReckoned
from hakutsu.vehicle.rules import RuleSet, rule_sets
from hakutsu.vehicle.shell import shell
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.vocabulary import SteeringSide, Unit

PAINTED_AGAIN = (State.BLENDED, State.REFINISHED, State.REBUILT, State.FILLED)


def observation(reading: KeptReading, dossier: Dossier, extra_sd_um: float = 0.0) -> Observation:
    """A kept reading as the film rules see it; its key is the entry it came from.

    `extra_sd_um` is what dirt leaves in doubt [µm].
    """
    body = reading.body
    return Observation(
        panel=reading.panel,
        value_um=body.value_um,
        status=body.status,
        u=body.u,
        v=body.v,
        step_um=body.step_um or dossier.film.gauge.step_um,
        limit_um=body.limit_um or dossier.film.gauge.limit_um,
        substrate=body.substrate or dossier.vehicle.substrate(reading.panel),
        edge=body.edge,
        key=reading.entry,
        repeats=body.retest_of,
        extra_sd_um=extra_sd_um,
    )


def bits_between(before: float, after: float) -> float:
    """How far the log2 odds of a chance moved [bits]."""
    low, high = (min(max(chance, 1e-12), 1 - 1e-12) for chance in (before, after))
    return log2(high / (1 - high)) - log2(low / (1 - low))


def terms(settings: Settings, gauge: Unit = Unit.UM, steering: SteeringSide | None = None) -> Terms:
    """Words and units that settings choose, beside a gauge and on a vehicle."""
    same = settings.model_dump(include={"names", "sides", "distance", "depth", "temperature", "pressure", "zone"})
    kerb = rule_sets()[settings.rules].side
    return Terms(**same, film=settings.film or gauge, readings=settings.film, kerb=kerb, steering=steering)


class Reckoning:
    """Everything computed from one dossier."""

    def __init__(self, dossier: Dossier, account: Settings | None = None) -> None:
        self.dossier = dossier
        self.settings = (account or Settings()).overridden(dossier.opening.settings)

    @cached_property
    def terms(self) -> Terms:
        """Words and units in which this inspection is shown."""
        vehicle = self.dossier.opening.vehicle
        return terms(self.settings, self.dossier.film.gauge.unit, vehicle.steering if vehicle else None)

    @cached_property
    def entries(self) -> dict[UUID, Entry]:
        """Every entry of the logbook by its id, struck or not."""
        return {entry.id: entry for entry in self.dossier.entries}

    @cached_property
    def rules(self) -> RuleSet:
        """The rule set in use."""
        return rule_sets()[self.settings.rules]

    @cached_property
    def gauge_fits(self) -> tuple[Fit | None, Fit | None]:
        """Offset and gain of the gauge from its verification at the start and at the end."""
        found = []
        for when in (VerifiedWhen.START, VerifiedWhen.END):
            kept = self.dossier.film.verifications.get(when)
            checks = [Check(one.reference_um, one.shown_um) for one in kept.body.checks] if kept else []
            found.append(fit_gauge(kept.at, checks, parameters().verifying) if kept else None)
        return found[0], found[1]

    @cached_property
    def gauge_verified(self) -> Verified:
        """How far the gauge was verified."""
        return verified(*self.gauge_fits, parameters().verifying)

    @cached_property
    def film_survey(self) -> FilmSurvey:
        """The film survey of this vehicle, corrected by the verification; panels never read are part of it."""
        dossier, vehicle = self.dossier, self.dossier.vehicle
        p = parameters().verifying
        arrival = dossier.day.arrival
        read = [
            corrected(observation(r, dossier, dirt_sd_um(arrival, r.panel)), r.at, *self.gauge_fits, p)
            for r in dossier.film.readings
        ]
        cues: dict[str, list[CueLooked]] = {}
        for kept in dossier.film.cues.values():
            if kept.body.cue in cue_kinds():
                cues.setdefault(kept.panel, []).append(CueLooked(kept.body.cue, kept.body.there))
        bay = dossier.engine.bay.body if dossier.engine.bay else None
        below = below_cues({key: one.body for key, one in dossier.under.zones.items()}, bay)
        mine = set(vehicle.panel_keys())
        for panel, seen in (*body_cues(dossier.body).items(), *below.items()):
            known = {one.kind for one in cues.get(panel, ())}
            more = [CueLooked(cue, there) for cue, there in seen.items() if cue not in known]
            if panel in mine:
                cues.setdefault(panel, []).extend(more)
        return FilmSurvey(
            id=str(dossier.inspection),
            observations=read,
            finish=vehicle.finish,
            substrates={key: vehicle.substrate(key) for key in vehicle.panel_keys()},
            cues=cues,
            magnets=[magnet_observation(m.panel, m.body.grade, m.body.u, m.body.v) for m in dossier.film.magnets],
            covers={key: Cover(kept.body.kind, kept.body.thickness_um) for key, kept in dossier.film.covers.items()},
            paint=vehicle.paint,
            unreachable=frozenset({*dossier.film.limits, *dossier.film.nothing}),
        )

    def observations_on(self, panel: str) -> list[Observation]:
        """A panel's readings, corrected by the verification, oldest first."""
        return [o for o in self.film_survey.observations if o.panel == panel]

    @cached_property
    def film_model(self) -> FilmModel:
        """The survey under the model; all schools share its evidence."""
        return FilmModel(self.film_survey, parameters())

    @cached_property
    def film(self) -> FilmAnalysis:
        """The film analysis by the school of the declared finish, worded in the reader's terms."""
        return analyse_model(self.film_model, terms=self.terms)

    @cached_property
    def schools(self) -> dict[str, dict[School, Judged]]:
        """Every panel read, as each school judges it."""
        return schools_side_by_side(self.film_model, terms=self.terms)

    @property
    def _not_found_warm(self) -> bool:
        arrival = self.dossier.day.arrival
        return arrival is None or (arrival.engine is not Engine.WARM and proven_cold(arrival) is not False)

    @cached_property
    def next_spot(self) -> NextSpot | None:
        """Where a reading is expected to tell most, or none when more would hardly change the words."""
        return advice(self.film_model, prior_finish(self.film.school, self.film_survey.finish))

    @cached_property
    def limitations(self) -> list[Limitation]:
        """What the circumstances hide."""
        return limitations(self.dossier.day.arrival, self.dossier.day.conditions, self.terms)

    @cached_property
    def outside(self) -> Outside:
        """What the rules make of everything seen outside."""
        return Outside(self)

    @cached_property
    def corners(self) -> CornersReckoned:
        """What the rules make of the corners."""
        return CornersReckoned(self)

    @cached_property
    def engine(self) -> EngineReckoned:
        """What the rules make of the engine run, air-conditioning, battery and pack."""
        return EngineReckoned(self)

    @cached_property
    def functions(self) -> FunctionsReckoned:
        """What the rules make of functions and lamps."""
        return FunctionsReckoned(self)

    @cached_property
    def under(self) -> UnderReckoned:
        """What the rules make of the underside and of leaks."""
        return UnderReckoned(self)

    @cached_property
    def cabin(self) -> CabinReckoned:
        """What the rules make of the cabin."""
        return CabinReckoned(self)

    @cached_property
    def condition(self) -> ConditionReckoned:
        """Every grade against what is usual, and what other stations make of parts."""
        return ConditionReckoned(self)

    @cached_property
    def stories(self) -> list[Story]:
        """Findings of all stations that explain each other."""
        return told_once(self)

    @cached_property
    def lives(self) -> Lives:
        """What waits on this vehicle, for the buyer's distance and use."""
        return Lives(self)

    @cached_property
    def proposed_limits(self) -> list[ProposedLimit]:
        """Limits that findings cause, to be taken or dropped."""
        return proposed_limits(self.dossier.follow_ups)

    def second_looks(self, now: datetime) -> list[SecondLook]:
        """Second looks wanted or taken; those that are due at `now` say so."""
        dossier = self.dossier
        return second_looks(dossier.follow_ups, dossier.general, dossier.hazards, now)

    @cached_property
    def unobserved(self) -> list[Unobserved]:
        """Parts that nobody could look at for want of a lift, or because of where the vehicle stands."""
        return unobserved(self.dossier.day.arrival, self.dossier.day.conditions, self.terms)

    @cached_property
    def stand_downs(self) -> list[StandDown]:
        """Causes raised and not cleared."""
        return open_stand_downs(self.dossier.hazards)

    def blocking(self, activity: str | None) -> list[StandDown]:
        """The open stand-downs that forbid an activity."""
        return blocking(activity, self.stand_downs) if activity else []

    def run_sheet(self, now: datetime) -> Plan | None:
        """The plan from now on, or none before any conditions were noted."""
        said = self.dossier.day.conditions
        if said is None:
            return None
        begin = max(now, said.begins)
        end = said.begins + timedelta(minutes=said.available)

        def minutes(at: datetime | None) -> float | None:
            return None if at is None else (at - begin).total_seconds() / 60

        started = {"cold_start", "start"} & set(self.dossier.hazards.begun)
        forbidden = frozenset(activity for activity in activities() if self.blocking(activity))
        return plan(
            Conditions(
                available=max(0.0, minutes(end) or 0.0),
                protocol=self.dossier.opening.brief.protocol,
                engine_cold=said.engine_cold and not started and self._not_found_warm,
                lift=said.lift,
                lift_by_driving=said.lift_by_driving,
                helper=said.helper,
                may_drive=said.may_drive,
                seller_until=minutes(said.seller_until),
                daylight_until=minutes(said.daylight_until),
                dry_until=minutes(said.dry_until),
                blocked=forbidden,
                done=frozenset(self.dossier.hazards.done),
                emphasis=emphasis(self.dossier.opening.brief),
            )
        )

    def filled_area(self, panel: str) -> tuple[float, float] | None:
        """The 80 % interval of the area under filler [cm²], where filler is the likeliest state."""
        result, vehicle = self.film.panel(panel), self.dossier.vehicle
        if result is None or result.state is not State.FILLED or result.filled_share is None:
            return None
        patch = shell(vehicle.body_style, vehicle.doors, tuple(vehicle.panel_keys()))[panel]
        return result.filled_share.low * patch.area_cm2, result.filled_share.high * patch.area_cm2

    def measured_cue(self, panel: str, cue: str) -> tuple[float, float, float] | None:
        """The chance that a panel was painted again without a measured cue and with it, and by how many bits that moved
        its odds; none where there is none.
        """
        looked = self.film_survey.cues.get(panel, ())
        result = self.film.panel(panel)
        one = next((one for one in looked if one.kind == cue), None)
        if one is None or result is None or result.probabilities is None:
            return None
        before = sum(without(result.probabilities, looked, one)[s] for s in PAINTED_AGAIN)
        return before, result.altered, bits_between(before, result.altered)

    @property
    def rust_traps(self) -> tuple[str, ...]:
        """Where this body rusts first."""
        return tuple(self.terms.say(one) for one in rust_traps(self.dossier.vehicle.body_style))

    def cue_effects(self, panel: str) -> dict[UUID, tuple[float, float]]:
        """For each cue looked for on a panel: the chance that it was painted again without that cue and with it."""
        found: dict[UUID, tuple[float, float]] = {}
        looked = self.film_survey.cues.get(panel, ())
        result = self.film.panel(panel)
        if result is None or result.probabilities is None:
            return found
        for kept in self.dossier.film.cues_on(panel):
            one = CueLooked(kept.body.cue, kept.body.there)
            if one in looked:
                before = without(result.probabilities, looked, one)
                found[kept.entry] = (sum(before[s] for s in PAINTED_AGAIN), result.altered)
        return found
