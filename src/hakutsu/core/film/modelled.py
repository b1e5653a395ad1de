"""One car's survey under the model: evidence once, the posterior for each declared finish when asked for."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import cached_property
from statistics import median

from hakutsu.core.film.cues import cue_ratios
from hakutsu.core.film.model.car import CarHistories, CarPosterior, car_histories, car_posterior, expected_of_finish
from hakutsu.core.film.model.evidence import PanelEvidence
from hakutsu.core.film.model.grids import Grids, grids
from hakutsu.core.film.model.kept import kept_evidence
from hakutsu.core.film.model.numeric import Floats
from hakutsu.core.film.own_vehicles import enough, with_own
from hakutsu.core.film.parameters import FilmParameters
from hakutsu.core.film.steps import inferred_step
from hakutsu.core.film.survey import Cover, FilmSurvey, Observation
from hakutsu.core.film.verdicts.spots import film_um, spots
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.vocabulary import CoverKind, Finish, Substrate

BESIDE = 0.12
LOOKED_AND_NONE = 0.0002


class FilmModel:
    """A survey made ready for the model: one observation per spot, covers taken off, magnets where they say more."""

    def __init__(self, survey: FilmSurvey, p: FilmParameters) -> None:
        self.survey, self.p = survey, p
        self.names: list[str] = survey.metal_panels()
        self.own: bool = enough(survey.own_vehicles, survey.finish, p)
        self.grid: Grids = with_own(grids(p), survey.own_vehicles, p) if self.own else grids(p)
        self._posteriors: dict[Finish, CarPosterior] = {}
        self._by_film: dict[bool, CarHistories] = {}
        self.levels: dict[tuple[Finish, tuple[str, bool]], dict[str, Floats]] = {}

    @cached_property
    def groups(self) -> dict[str, list[Observation]]:
        """The spots of each panel that says something, in the order of the panel table."""
        found = {}
        for name in self.names:
            cover = self.survey.covers.get(name)
            if cover is not None and cover.hides:
                continue
            read = spots(self.survey.on_panel(name), self.p.retest, self.middle_um)
            read = [o if o.step_um else replace(o, step_um=self.step_um) for o in read]
            if cover is not None and cover.thickness_um is not None:
                read = [_uncovered(o, cover, self.p) for o in read]
            group = [*read, *self._magnets(name, read)]
            if group:
                found[name] = group
        return found

    @cached_property
    def middle_um(self) -> float | None:
        """The middle of the panels' own middles [µm], before anything is judged; none with fewer than three read."""
        read = [self.survey.on_panel(name) for name in self.names]
        middles = [median([film_um(o) for o in found]) for found in read if found]
        return median(middles) if len(middles) >= 3 else None

    @cached_property
    def step_um(self) -> float | None:
        """Display step [µm] of readings that came without one, inferred from all of them."""
        shown = [o.value_um for name in self.names for o in self.survey.on_panel(name) if not o.step_um]
        return inferred_step([value for value in shown if value is not None])

    def _magnets(self, panel: str, read: Sequence[Observation]) -> list[Observation]:
        """A magnet's grades on steel; beside a gauge reading they add nothing."""
        if self.survey.substrate(panel) is not Substrate.STEEL:
            return []
        return sorted(
            (m for m in self.survey.magnets if m.panel == panel and not any(_beside(m, o) for o in read)),
            key=lambda m: (m.between_um or (0.0, 0.0), m.u or 0.0, m.v or 0.0),
        )

    @cached_property
    def evidence(self) -> dict[str, PanelEvidence]:
        """Evidence of the panels read."""
        if not self.groups:
            return {}
        substrates = {name: str(self.survey.substrate(name)) for name in self.groups}
        counts = list(substrates.values())
        main = max(sorted(set(counts)), key=counts.count)
        unusual = {name: kind != main for name, kind in substrates.items()}
        return kept_evidence(self.groups, unusual, self._cover_chances(), self.grid, self.p)

    def _cover_chances(self) -> dict[str, float]:
        found = {}
        for name, cover in self.survey.covers.items():
            if cover.kind is CoverKind.UNKNOWN and cover.thickness_um is None:
                found[name] = self.p.cover.felt_share
            else:
                found[name] = LOOKED_AND_NONE
        return found

    @cached_property
    def shut_um(self) -> list[float]:
        """Film on shut faces and under lids [µm]: readings at an edge that are no part of any panel's film."""
        read = (o for name in self.names for o in self.survey.every_on(name) if o.edge)
        return [o.value_um for o in read if o.value_um is not None and not o.censored]

    def declared(self, finish: Finish) -> Floats:
        """State probabilities of a panel on a car of that declared finish of which nothing is known."""
        return expected_of_finish(finish, self.p)

    def cue_ratios(self, panel: str) -> Floats:
        """Log likelihood ratio of each state from the cues looked for on a panel, (states,)."""
        return cue_ratios(self.survey.cues.get(panel, ()), weathered=panels()[panel].plane == "top")

    def posterior(self, finish: Finish) -> CarPosterior:
        """The car's posterior under the priors of a declared finish."""
        if finish not in self._posteriors:
            car = car_posterior(self._histories(finish), finish, self.p)
            self._posteriors[finish] = self._with_few(car, finish)
        return self._posteriors[finish]

    def _histories(self, finish: Finish) -> CarHistories:
        """The car's histories; only aged paint under clear has another factory film than the rest."""
        key = finish is Finish.PRESERVED
        if key not in self._by_film:
            ratios = {name: self.cue_ratios(name) for name, looked in self.survey.cues.items() if looked}
            parts = self.grid.factory_parts[finish]
            self._by_film[key] = car_histories(
                self.evidence, self.names, ratios, parts, self.grid, self.p, self.shut_um
            )
        return self._by_film[key]

    def _with_few(self, car: CarPosterior, finish: Finish) -> CarPosterior:
        """One or two readings see little of a panel: the rest stays at what is usual for the declared finish."""
        states, few = car.states.copy(), (0.0, self.p.few.one, self.p.few.two)
        for i, name in enumerate(car.panels):
            count = len(self.survey.on_panel(name)) if name in self.groups else 0
            if 0 < count < len(few) and not self.survey.cues.get(name):
                states[i] = (1 - few[count]) * states[i] + few[count] * self.declared(finish)
        return replace(car, states=states)


def _uncovered(o: Observation, cover: Cover, p: FilmParameters) -> Observation:
    """A reading with a film or wrap of known thickness taken off; the doubt about that thickness stays."""
    off = cover.thickness_um or 0.0
    extra = float((o.extra_sd_um**2 + p.cover.thickness_sd_um**2) ** 0.5)
    value = None if o.value_um is None else max(o.value_um - off, 1.0)
    limit = None if o.limit_um is None else max(o.limit_um - off, 1.0)
    return replace(o, value_um=value, limit_um=limit, extra_sd_um=extra)


def _beside(magnet: Observation, reading: Observation) -> bool:
    if magnet.u is None or magnet.v is None or reading.u is None or reading.v is None:
        return True
    return max(abs(magnet.u - reading.u), abs(magnet.v - reading.v)) <= BESIDE
