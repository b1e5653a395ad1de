"""The film survey of one vehicle as the film rules see it, and what they make of it."""

from __future__ import annotations

from datetime import datetime
from functools import lru_cache
from math import log2
from typing import ClassVar
from uuid import UUID

from hakutsu.core.film import (
    Concern,
    Cover,
    CueLooked,
    FilmAnalysis,
    FilmModel,
    FilmSurvey,
    HonestFilm,
    Judged,
    NextSpot,
    Observation,
    PanelFilm,
    School,
    State,
    advice,
    analyse_model,
    honest_film,
    magnet_observation,
    parameters,
    prior_finish,
    schools_side_by_side,
    without,
)
from hakutsu.core.film.by_hand import Workmanship
from hakutsu.core.film.verification import Check, Fit, Verified, corrected, fit_gauge, verified
from hakutsu.core.findings import Finding, found
from hakutsu.core.limitations import dirt_sd_um
from hakutsu.dossier import KeptReading
from hakutsu.dossier.memo import kept, kept_as_value
from hakutsu.entries.film import GaugeInUse, VerifiedWhen
from hakutsu.reckoning.film_cues import cues_looked, mapped_shares, workmanship_of
from hakutsu.reckoning.papers import PapersReckoned
from hakutsu.reckoning.station import StationRules
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.shell import shell
from hakutsu.vehicle.vocabulary import Finish, Substrate, Work

PAINTED_AGAIN = (State.BLENDED, State.REFINISHED, State.REBUILT, State.FILLED)
READINGS_AT_HAND = 16_384
ALTERED_FROM = 0.7  # from this chance on a panel counts as painted again wherever it is told with other findings


@lru_cache(READINGS_AT_HAND)
def _read(
    reading: KeptReading, gauge: GaugeInUse, substrate: Substrate, dirt_um: float, start: Fit | None, end: Fit | None
) -> Observation:
    """A reading as a true gauge would have shown it; the same one each time."""
    seen = observation(reading, gauge, substrate, dirt_um)
    return corrected(seen, reading.at, start, end, parameters().verifying)


@lru_cache(32)
def _fitted(at: datetime, checks: tuple[Check, ...]) -> Fit:
    return fit_gauge(at, checks, parameters().verifying)


def observation(reading: KeptReading, gauge: GaugeInUse, substrate: Substrate, extra_sd_um: float = 0.0) -> Observation:
    """A kept reading as the film rules see it; its key is the entry it came from.

    `substrate` is what the panel is made of unless the reading says so, `extra_sd_um` what dirt leaves in doubt [µm].
    """
    body = reading.body
    return Observation(
        panel=reading.panel,
        value_um=body.value_um,
        status=body.status,
        u=body.u,
        v=body.v,
        step_um=body.step_um or gauge.step_um,
        limit_um=body.limit_um or gauge.limit_um,
        substrate=body.substrate or substrate,
        edge=body.edge,
        key=reading.entry,
        repeats=body.retest_of,
        extra_sd_um=extra_sd_um,
        simulated=body.simulated,
    )


def bits_between(before: float, after: float) -> float:
    """How far the log2 odds of a chance moved [bits]."""
    low, high = (min(max(chance, 1e-12), 1 - 1e-12) for chance in (before, after))
    return log2(high / (1 - high)) - log2(low / (1 - low))


class FilmReckoned(StationRules):
    """Everything computed from the film survey."""

    key: ClassVar[str] = "film"

    @kept
    def gauge_fits(self) -> tuple[Fit | None, Fit | None]:
        """Offset and gain of the gauge from its verification at the start and at the end."""
        found = []
        for when in (VerifiedWhen.START, VerifiedWhen.END):
            kept = self._reckoning.dossier.film.verifications.get(when)
            checks = tuple(Check(one.reference_um, one.shown_um) for one in kept.body.checks) if kept else ()
            found.append(_fitted(kept.at, checks) if kept else None)
        return found[0], found[1]

    @kept
    def gauge_verified(self) -> Verified:
        """How far the gauge was verified."""
        return verified(*self.gauge_fits, parameters().verifying)

    @kept_as_value
    def survey(self) -> FilmSurvey:
        """The film survey of this vehicle, corrected by the verification; panels never read are part of it."""
        dossier, vehicle = self._reckoning.dossier, self._reckoning.dossier.vehicle
        arrival, gauge = dossier.day.arrival, dossier.film.gauge
        dirt = {key: dirt_sd_um(arrival, key) for key in {r.panel for r in dossier.film.readings}}
        substrates = {key: vehicle.substrate(key) for key in dirt}
        fits = self.gauge_fits
        read = [_read(r, gauge, substrates[r.panel], dirt[r.panel], *fits) for r in dossier.film.readings]
        return FilmSurvey(
            id=str(dossier.inspection),
            observations=read,
            finish=vehicle.finish,
            substrates={key: vehicle.substrate(key) for key in vehicle.panel_keys()},
            cues=cues_looked(
                dossier,
                bay=self._reckoning.engine.bay_looked,
                dated=self._reckoning.station(PapersReckoned).cluster_cues,
            ),
            magnets=[magnet_observation(m.panel, m.body.grade, m.body.u, m.body.v) for m in dossier.film.magnets],
            covers={key: Cover(kept.body.kind, kept.body.thickness_um) for key, kept in dossier.film.covers.items()},
            paint=vehicle.paint,
            unreachable=frozenset({*dossier.film.limits, *dossier.film.nothing}),
            own_vehicles=self._own_vehicles,
            mapped=mapped_shares(dossier.film, self._area_cm2),
        )

    def _area_cm2(self, panel: str) -> float | None:
        vehicle = self._reckoning.dossier.vehicle
        patch = shell(vehicle.body_style, vehicle.doors, tuple(vehicle.panel_keys())).get(panel)
        return patch.area_cm2 if patch else None

    @property
    def _own_vehicles(self) -> tuple[HonestFilm, ...]:
        """Vehicles of the same make and colour finished before, where the account learns and they are not left out."""
        known = self._reckoning.dossier.film.own_vehicles
        if known is None or known.left_out or not self._reckoning.settings.film_learn:
            return ()
        return tuple(HonestFilm(one.level_um, one.spread, one.unevenness) for one in known.vehicles)

    @property
    def teaches(self) -> HonestFilm | None:
        """What this vehicle teaches about the next of its make and colour."""
        return honest_film(self.survey, self.analysis, parameters())

    def observations_on(self, panel: str) -> list[Observation]:
        """A panel's readings, corrected by the verification, oldest first."""
        return self.survey.every_on(panel)

    @kept
    def model(self) -> FilmModel:
        """The survey under the model; all schools share its evidence."""
        return FilmModel(self.survey, parameters())

    @kept
    def analysis(self) -> FilmAnalysis:
        """The film analysis by the school of the declared finish, worded in the reader's terms."""
        school = self._school
        band = self.band_um if school is School.FIXED else None
        return analyse_model(self.model, school=school, band_um=band, terms=self._reckoning.terms)

    @kept
    def schools(self) -> dict[str, dict[School, Judged]]:
        """Every panel read, as each school judges it."""
        return schools_side_by_side(self.model, self.band_um, self._reckoning.terms)

    @property
    def schools_apart(self) -> dict[str, dict[School, Judged]]:
        """Panels about which the schools disagree: one has something to say, another nothing. The restored
        school is heard where the finish is not declared factory.
        """
        asked = {School.OWN, School.FIXED}
        if self.survey.finish is not Finish.FACTORY:
            asked.add(School.RESTORED)
        found = {}
        for key, judged in self.schools.items():
            if len({one.concern is not Concern.NONE for school, one in judged.items() if school in asked}) > 1:
                found[key] = judged
        return found

    @property
    def simulated(self) -> int:
        """Readings of the stand-in gauge: they say nothing about a real vehicle."""
        return sum(o.simulated for o in self.survey.observations)

    @property
    def band_um(self) -> tuple[float, float] | None:
        """The inspector's own band of factory film for this make [µm]; none for ours."""
        return self._reckoning.settings.band_for(self._reckoning.dossier.vehicle.name)

    @property
    def _school(self) -> School | None:
        said = self._reckoning.settings.film_school
        restored = self.survey.finish is Finish.RESTORED
        return School(said) if said and not restored else None

    @kept
    def next_spot(self) -> NextSpot | None:
        """Where a reading is expected to tell most; none when no more is to be gained, or without a gauge."""
        if self._reckoning.dossier.film.without_gauge:
            return None
        return advice(self.model, prior_finish(self.analysis.school, self.survey.finish))

    def filled_area(self, panel: str) -> tuple[float, float] | None:
        """The 80 % interval of the area under filler [cm²], where filler is the likeliest state."""
        result = self.analysis.panel(panel)
        area = self._area_cm2(panel)
        if result is None or result.state is not State.FILLED or result.filled_share is None or area is None:
            return None
        return result.filled_share.low * area, result.filled_share.high * area

    @kept
    def workmanship(self) -> dict[str, tuple[UUID, Workmanship]]:
        """How well panels were painted again, as graded by the inspector, each with its entry."""
        return workmanship_of(self._reckoning.dossier.film)

    def measured_cue(self, panel: str, cue: str) -> tuple[float, float, float] | None:
        """The chance that a panel was painted again without a measured cue and with it, and by how many bits that moved
        its odds; none where there is none.
        """
        looked = self.survey.cues.get(panel, ())
        result = self.analysis.panel(panel)
        one = next((one for one in looked if one.kind == cue), None)
        if one is None or result is None or result.probabilities is None:
            return None
        flat = panels()[panel].plane == "top"
        before = sum(without(result.probabilities, looked, one, weathered=flat)[s] for s in PAINTED_AGAIN)
        return before, result.altered, bits_between(before, result.altered)

    def cue_effects(self, panel: str) -> dict[UUID, tuple[float, float]]:
        """For each cue looked for on a panel: the chance that it was painted again without that cue and with it."""
        found: dict[UUID, tuple[float, float]] = {}
        looked = self.survey.cues.get(panel, ())
        result = self.analysis.panel(panel)
        if result is None or result.probabilities is None:
            return found
        for cue in self._reckoning.dossier.film.cues_on(panel):
            one = CueLooked(cue.body.cue, cue.body.there)
            if one in looked:
                before = without(result.probabilities, looked, one, weathered=panels()[panel].plane == "top")
                found[cue.entry] = (sum(before[s] for s in PAINTED_AGAIN), result.altered)
        return found

    def findings(self) -> list[Finding]:
        """Panels painted again, panels whose film is disturbed, and readings that stand out and are not repeated."""
        film = self._reckoning.dossier.film
        seen = []
        for panel in self.analysis.panels:
            if panel.readings and panel.altered >= 0.5:
                seen.append(self._altered(panel).seen_in(*self._entries(panel.panel)))
        for surprise in self.analysis.open_surprises:
            o = surprise.observation
            words = "a reading stands out from its panel and is not repeated"
            mine = [one.entry for one in film.readings if one.entry == o.key]
            seen.append(found("film.look_again", o.panel, words).seen_in(*mine))
        for key, (entry, graded) in self.workmanship.items():
            if graded.grade is Work.POOR:
                words = f"painted again poorly: {graded.why}"
                seen.append(found("film.poor_work", key, words).seen_in(entry))
        return seen

    def _entries(self, panel: str) -> list[UUID]:
        film = self._reckoning.dossier.film
        return [*(one.entry for one in film.readings if one.panel == panel), *(c.entry for c in film.cues_on(panel))]

    def _altered(self, panel: PanelFilm) -> Finding:
        chances = panel.probabilities or {}
        state = max(PAINTED_AGAIN, key=lambda one: chances.get(one, 0.0))
        sure = panel.altered >= ALTERED_FROM
        check = "" if sure else "more readings, and look at edges, seals and bolts for signs of paint"
        return found(f"film.{state.value}", panel.panel, panel.words, panel.reasons[:2], sureness=panel.altered,
                     check=check, why="" if sure else "the readings do not settle it")  # fmt: skip

    def waits(self) -> list[str]:
        """Readings to repeat."""
        return [one.observation.panel for one in self.analysis.open_surprises]
