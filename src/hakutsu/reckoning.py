"""Dossier → reckoning: the one place that calls the rules. Each part is computed when first asked for."""

from __future__ import annotations

from functools import cached_property

from hakutsu.core.film import FilmAnalysis, FilmSurvey, Observation, School, analyse
from hakutsu.dossier import Dossier, KeptReading


def observation(reading: KeptReading, dossier: Dossier) -> Observation:
    """A kept reading as the film rules see it; its key is the entry it came from."""
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
    )


class Reckoning:
    """Everything computed from one dossier."""

    def __init__(self, dossier: Dossier) -> None:
        self.dossier = dossier

    @cached_property
    def film_survey(self) -> FilmSurvey:
        """The film survey of this vehicle; panels never read are part of it."""
        vehicle = self.dossier.vehicle
        return FilmSurvey(
            id=str(self.dossier.inspection),
            observations=[observation(reading, self.dossier) for reading in self.dossier.film.readings],
            finish=vehicle.finish,
            substrates={key: vehicle.substrate(key) for key in vehicle.panel_keys()},
        )

    @cached_property
    def film(self) -> FilmAnalysis:
        """The film analysis by the school of the declared finish, worded in the gauge's unit."""
        return self.film_by(None)

    def film_by(self, school: School | None) -> FilmAnalysis:
        """The film analysis by a given school."""
        return analyse(self.film_survey, school=school, unit=self.dossier.film.gauge.unit)
