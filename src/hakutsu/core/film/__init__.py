"""Paint film: from readings to what happened to each panel."""

from hakutsu.core.film.analysis import analyse, analyse_model, schools_side_by_side
from hakutsu.core.film.cues import cue_groups, cue_kinds, magnet_names, magnet_observation, without
from hakutsu.core.film.modelled import FilmModel
from hakutsu.core.film.own_vehicles import honest_film, own_words
from hakutsu.core.film.parameters import parameters
from hakutsu.core.film.result import Baseline, FilledShare, FillerMap, FilmAnalysis, NextSpot, PanelFilm, ZoneStory
from hakutsu.core.film.survey import STATES, Cover, CueLooked, FilmSurvey, HonestFilm, Observation, State
from hakutsu.core.film.verdicts.headroom import polish_headroom
from hakutsu.core.film.verdicts.next_spot import advice, next_spots
from hakutsu.core.film.verdicts.reasons import chance_words, evidence_words
from hakutsu.core.film.verdicts.schools import Concern, Judged, School, prior_finish
from hakutsu.core.film.verdicts.spots import SpotVerdict, Surprise, film_um

__all__ = [
    "STATES",
    "Baseline",
    "Concern",
    "Cover",
    "CueLooked",
    "FilledShare",
    "FillerMap",
    "FilmAnalysis",
    "FilmModel",
    "FilmSurvey",
    "HonestFilm",
    "Judged",
    "NextSpot",
    "Observation",
    "PanelFilm",
    "School",
    "SpotVerdict",
    "State",
    "Surprise",
    "ZoneStory",
    "advice",
    "analyse",
    "analyse_model",
    "chance_words",
    "cue_groups",
    "cue_kinds",
    "evidence_words",
    "film_um",
    "honest_film",
    "magnet_names",
    "magnet_observation",
    "next_spots",
    "own_words",
    "parameters",
    "polish_headroom",
    "prior_finish",
    "schools_side_by_side",
    "without",
]
