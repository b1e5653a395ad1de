"""Paint film: from readings to what happened to each panel."""

from hakutsu.core.film.analysis import Baseline, FilmAnalysis, PanelFilm, analyse
from hakutsu.core.film.schools import Concern, School
from hakutsu.core.film.spots import SpotVerdict, Surprise, film_um
from hakutsu.core.film.survey import STATES, FilmSurvey, Observation, State

__all__ = [
    "STATES",
    "Baseline",
    "Concern",
    "FilmAnalysis",
    "FilmSurvey",
    "Observation",
    "PanelFilm",
    "School",
    "SpotVerdict",
    "State",
    "Surprise",
    "analyse",
    "film_um",
]
