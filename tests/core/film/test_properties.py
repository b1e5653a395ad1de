"""Properties that must hold whatever the survey, tried on surveys made up by Hypothesis and by the painter."""

import random
import unittest
from dataclasses import replace

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from hakutsu.core.film import STATES, FilmSurvey, Observation, State, analyse
from hakutsu.core.film.simulate import coarse_gauge, paint_car, rough_gauge, usual_gauge
from hakutsu.vehicle.vocabulary import Finish, ReadingStatus
from tests.builders import honest_car, readings, survey
from tests.core.film.scoring import calibration_error, found_at

PANELS = ("roof", "bonnet", "front_wing_left", "front_door_left", "sill_left", "sill_right", "tailgate")
PLACE = st.floats(0, 1, allow_nan=False)


@st.composite
def observations(draw):
    status = draw(st.sampled_from([ReadingStatus.OK] * 6 + [ReadingStatus.OVER, ReadingStatus.NONE]))
    value = None if status is ReadingStatus.NONE else draw(st.floats(1, 25_000, allow_nan=False))
    u, v = draw(st.one_of(st.tuples(PLACE, PLACE), st.just((None, None))))
    step = draw(st.sampled_from([None, 1.0, 5.0, 12.7]))
    limit = draw(st.sampled_from([None, 500.0, 1500.0]))
    return Observation(draw(st.sampled_from(PANELS)), value, status, u, v, step, limit, edge=draw(st.booleans()))


class Whatever(unittest.TestCase):
    @settings(max_examples=40, deadline=None)
    @given(st.lists(observations(), max_size=25), st.sampled_from(list(Finish)))
    def test_probabilities_are_probabilities_and_order_never_matters(self, seen, finish):
        found = analyse(FilmSurvey("x", seen, finish))
        for panel in found.panels:
            values = np.array([panel.probabilities[state] for state in STATES])
            self.assertTrue(np.isfinite(values).all() and (values >= 0).all())
            self.assertAlmostEqual(values.sum(), 1)
            if panel.filled_share:
                share = panel.filled_share
                self.assertTrue(0 <= share.low <= share.median <= share.high <= 1)
        mixed = seen.copy()
        random.Random(1).shuffle(mixed)
        self.assertEqual(analyse(FilmSurvey("x", mixed, finish)), found)

    @settings(max_examples=25, deadline=None)
    @given(st.integers(0, 10_000), st.sampled_from([500.0, 1500.0]), st.floats(1.0, 8.0))
    def test_over_range_is_never_treated_as_its_number(self, seed, limit, factor):
        car = honest_car() + readings("tailgate", 236, 229)
        over = [Observation("tailgate", shown, ReadingStatus.OVER, limit_um=limit) for shown in (limit, limit * factor)]
        with_limit, with_number = (analyse(survey([*car, one])).panel("tailgate").probabilities for one in over)
        for state in STATES:
            self.assertAlmostEqual(with_limit[state], with_number[state])

    def never_lower(self, level, count, more):
        flat = readings("tailgate", *[level] * count)
        raised = [*flat[:-1], replace(flat[-1], value_um=level + more)]
        before, after = (analyse(survey(honest_car(level), r)).panel("tailgate").altered for r in (flat, raised))
        # The levels are summed over a grid: what that leaves is far below what any word or figure shows.
        self.assertGreaterEqual(after, before - 1e-6)

    @settings(max_examples=60, deadline=None)
    @given(st.integers(85, 155), st.integers(1, 10), st.integers(1, 60))
    def test_raising_one_reading_of_a_panel_at_baseline_never_lowers_altered(self, level, count, more):
        self.never_lower(level, count, more)

    def test_nor_does_it_where_film_lies_on_a_point_of_the_grids(self):
        for level, count, more in ((124, 4, 1), (124, 4, 3), (96, 4, 3), (118, 6, 1), (92, 7, 1), (150, 8, 2)):
            with self.subTest(level=level, count=count, more=more):
                self.never_lower(level, count, more)

    @settings(max_examples=20, deadline=None)
    @given(st.integers(90, 150), st.integers(1, 6))
    def test_one_more_at_baseline_never_raises_filled_nor_lowers_original(self, level, count):
        chances = [
            analyse(survey(honest_car(level), readings("tailgate", *[level] * n))).panel("tailgate").probabilities
            for n in (count, count + 1)
        ]
        self.assertLessEqual(chances[1][State.FILLED], chances[0][State.FILLED] + 1e-9)
        self.assertGreaterEqual(chances[1][State.ORIGINAL], chances[0][State.ORIGINAL] - 1e-9)

    def test_a_survey_without_readings_is_the_prior_of_the_declared_finish(self):
        for finish, least, most in ((Finish.FACTORY, 0.7, 0.95), (Finish.RESTORED, 0.0, 0.1)):
            found = analyse(survey(finish=finish, roof="steel", bonnet="steel")).panel("roof")
            self.assertTrue(least < found.probabilities[State.ORIGINAL] < most, finish)
            self.assertIn("no reading", found.reasons[0])


class SimulatedCars(unittest.TestCase):
    """A few dozen cars of each kind; bench/film_simulated.py has the figures from many more."""

    def judged(self, gauge, seed, cars=36, **more):
        score = {"altered": [], "filled": []}
        true = {"altered": [], "filled": []}
        for i in range(cars):
            rng = np.random.default_rng(seed + i)
            car = paint_car(rng, roughness=more.get("roughness", 1.0))
            read = car.survey(rng, gauge(rng), spots=(2, 3, 4, 6, 8), placed=more.get("placed", 0.95),
                              skipped=more.get("skipped", 0.0))  # fmt: skip
            for panel in analyse(read).panels:
                state = car.panels[panel.panel].state
                score["altered"].append(panel.altered)
                score["filled"].append(panel.probabilities[State.FILLED])
                true["altered"].append(state not in (State.ORIGINAL, State.THINNED))
                true["filled"].append(state is State.FILLED)
        return {key: (np.array(score[key]), np.array(true[key])) for key in score}

    def test_usual_gauges(self):
        found = self.judged(usual_gauge, 40_000)
        self.assertGreater(found_at(*found["altered"]), 0.90)
        self.assertGreater(found_at(*found["filled"]), 0.60)
        for pair in found.values():
            self.assertLess(calibration_error(*pair), 0.03)

    def test_rough_cars_with_dust_misreads_and_missing_positions(self):
        found = self.judged(rough_gauge, 41_000, cars=90, roughness=1.25, placed=0.6, skipped=0.15)
        self.assertGreater(found_at(*found["altered"]), 0.85)

    def test_half_mil_steps_and_a_short_range(self):
        found = self.judged(coarse_gauge, 42_000)
        self.assertGreater(found_at(*found["altered"]), 0.88)
