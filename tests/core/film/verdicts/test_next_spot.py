import unittest
from dataclasses import replace

import numpy as np

from hakutsu.core.film import FilmModel, analyse, next_spots, parameters
from hakutsu.core.film.simulate import paint_car, usual_gauge
from hakutsu.core.film.verdicts.next_spot import advice
from hakutsu.vehicle.vocabulary import Finish
from tests.builders import honest_car, readings, survey
from tests.core.film.scoring import log_score

PANEL = "rear_quarter_right"
THICK_AT_ONE_PLACE = {(0.5, 0.5): 231, (0.25, 0.25): 640, (0.25, 0.75): 236}


def at(places, panel=PANEL):
    return [o for (u, v), um in places.items() for o in readings(panel, um, u=u, v=v)]


def model(*parts, **more):
    return FilmModel(replace(survey(*parts), **more), parameters())


class Candidates(unittest.TestCase):
    def test_a_spot_already_read_is_not_advised_again(self):
        for spot in next_spots(model(honest_car(), at(THICK_AT_ONE_PLACE)), Finish.FACTORY):
            if spot.panel == PANEL:
                for u, v in THICK_AT_ONE_PLACE:
                    self.assertGreater(max(abs(spot.u - u), abs(spot.v - v)), 0.12)

    def test_the_doubtful_panel_is_advised_before_the_plain_ones(self):
        first = next_spots(model(honest_car(), at({(0.5, 0.5): 158, (0.25, 0.75): 149})), Finish.FACTORY)[0]
        self.assertEqual(first.panel, PANEL)
        self.assertGreater(first.gain_bits, 0.05)

    def test_limited_panels_are_never_advised(self):
        doubtful = at({(0.5, 0.5): 158, (0.25, 0.75): 149})
        found = next_spots(model(honest_car(), doubtful, unreachable=frozenset({PANEL})), Finish.FACTORY)
        self.assertNotIn(PANEL, {spot.panel for spot in found})

    def test_gains_are_never_negative_nor_more_than_there_is_to_know(self):
        for spot in next_spots(model(honest_car(), at(THICK_AT_ONE_PLACE)), Finish.FACTORY):
            self.assertTrue(0 <= spot.gain_bits <= np.log2(6))
            self.assertTrue(0 <= spot.words_same <= 1)


class Stopping(unittest.TestCase):
    def test_a_plain_car_read_well_needs_no_more(self):
        car = honest_car(spots=4)
        pattern = ((0.5, 0.5), (0.25, 0.75), (0.75, 0.75), (0.25, 0.25))
        placed = [replace(o, u=pattern[i % 4][0], v=pattern[i % 4][1]) for i, o in enumerate(car)]
        self.assertIsNone(advice(model(placed), Finish.FACTORY))

    def test_nothing_is_advised_that_would_hardly_change_the_words(self):
        found = advice(model(honest_car(), at({(0.5, 0.5): 158})), Finish.FACTORY)
        self.assertGreaterEqual(found.gain_bits, parameters().next.least_gain_bits)
        self.assertLessEqual(found.words_same, parameters().next.words_same)


class Worth(unittest.TestCase):
    def test_following_the_advice_beats_spreading_the_same_readings(self):
        # bench/film_next.py shows it on many more cars, with the interval of the difference.
        gained = []
        for seed in range(24):
            rng = np.random.default_rng(700 + seed)
            car, gauge = paint_car(rng, history="in_places", repairs=1.5), usual_gauge(rng)
            first = car.survey(rng, gauge, spots=1)
            told, even = list(first.observations), list(first.observations)
            for i in range(10):
                spot = next_spots(FilmModel(replace(first, observations=told), parameters()), car.finish)[0]
                told.append(car.read(spot.panel, spot.u, spot.v, gauge, rng))
                key = list(car.panels)[i * len(car.panels) // 10]
                even.append(car.read(key, 0.27, 0.27, gauge, rng))
            scores = [log_score(car, analyse(replace(first, observations=seen))) for seen in (told, even)]
            gained.append(scores[1] - scores[0])
        self.assertGreater(np.mean(gained), 0)
