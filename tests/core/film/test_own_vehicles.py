"""What an inspector's own vehicles teach about the next: shrunk, never of simulated readings, told in the reasons."""

import unittest
from dataclasses import replace
from math import exp, log

from hakutsu.core.film import FilmSurvey, HonestFilm, State, analyse, honest_film, own_words, parameters
from hakutsu.core.film.judging import Known
from hakutsu.core.film.model.grids import grids
from hakutsu.core.film.own_vehicles import OWN, learnt, with_own
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.vocabulary import Finish, Unit
from tests.core.film.test_sanity import NAMES, car, panel

P = parameters()
ELEVEN = tuple(HonestFilm(96 + 2.5 * i, 0.04, 0.03) for i in range(11))


class Learning(unittest.TestCase):
    def test_vehicles_all_alike_draw_the_mean_to_them_by_their_number(self):
        """By hand: apart² = 2 · 0.1² / (2 + 4 − 1) = 0.004; precision = 1/0.04 + 4/0.004 = 1025;
        the mean lies 1000/1025 of the way; sd² = 0.004 + 1/1025.
        """
        found = learnt([100.0] * 4, Known(median=120.0, sd_log=0.2, apart_sd_log=0.1, worth=2.0))
        self.assertAlmostEqual(log(found.median), log(120) + 1000 / 1025 * log(100 / 120), 9)
        self.assertAlmostEqual(found.sd_log, (0.004 + 1 / 1025) ** 0.5, 9)

    def test_vehicles_far_apart_teach_that_they_lie_far_apart(self):
        known = P.own_vehicles.level
        near, far = (learnt([110 * exp(-x), 110.0, 110 * exp(x)], known).sd_log for x in (0.02, 0.3))
        self.assertGreater(far, 2 * near)

    def test_weights_still_sum_to_one(self):
        grid = with_own(grids(P), ELEVEN, P)
        for weights in (grid.between, grid.factory_even, *grid.factory_prior.values()):
            self.assertAlmostEqual(float(weights.sum()), 1.0, 6)
        self.assertIn(OWN, grid.factory_parts[Finish.FACTORY])
        self.assertNotIn(OWN, grid.factory_parts[Finish.PRESERVED])


class NextVehicle(unittest.TestCase):
    def test_an_even_car_far_above_its_sisters_is_rather_painted(self):
        survey = FilmSurvey("even", car(190))
        alone, known = (analyse(replace(survey, own_vehicles=own)) for own in ((), ELEVEN))
        before, after = (one.panel("roof").altered for one in (alone, known))
        self.assertGreater(after, 2.5 * before)

    def test_an_even_car_like_its_thick_sisters_is_rather_original(self):
        survey = FilmSurvey("even", car(190))
        thick = tuple(HonestFilm(180 + 3 * i, 0.04, 0.03) for i in range(6))
        alone, known = (analyse(replace(survey, own_vehicles=own)) for own in ((), thick))
        self.assertLess(known.panel("roof").altered, alone.panel("roof").altered)

    def test_a_plain_car_stays_plain_and_says_what_it_was_compared_with(self):
        said = analyse(FilmSurvey("plain", car(110), own_vehicles=ELEVEN)).panel("bonnet")
        self.assertEqual(said.state, State.ORIGINAL)
        self.assertIn("11 of your own vehicles of this make and colour lie at 96 to 121 µm", said.reasons)

    def test_two_vehicles_teach_nothing_and_are_not_named(self):
        survey = FilmSurvey("plain", car(110))
        said = analyse(replace(survey, own_vehicles=ELEVEN[:2]))
        self.assertEqual(said.panels, analyse(survey).panels)

    def test_restored_paint_is_not_compared_with_factory_film(self):
        survey = FilmSurvey("restored", car(210), Finish.RESTORED, own_vehicles=ELEVEN)
        self.assertEqual(analyse(survey).panels, analyse(replace(survey, own_vehicles=())).panels)

    def test_words_in_the_unit_of_the_reader(self):
        said = own_words(ELEVEN[:3], "my own", Terms(film=Unit.MIL))
        self.assertEqual(said, "3 of my own vehicles of this make and colour lie at 3.8 to 4.0 mil")


class Taught(unittest.TestCase):
    """What a finished vehicle teaches."""

    def honest(self, observations, finish=Finish.FACTORY, **more):
        survey = FilmSurvey("finished", observations, finish, **more)
        return honest_film(survey, analyse(survey), P)

    def test_a_plain_car_teaches_its_level_its_spread_and_its_evenness(self):
        taught = self.honest(car(115))
        self.assertAlmostEqual(taught.level_um, 115, delta=3)
        self.assertTrue(0.01 < taught.spread < 0.04, taught.spread)
        self.assertTrue(0.01 < taught.unevenness < 0.03, taught.unevenness)

    def test_painted_panels_teach_nothing(self):
        doors = [name for name in NAMES if "door" in name]
        taught = self.honest(car(115, levels=dict.fromkeys(doors, 240.0)))
        self.assertAlmostEqual(taught.level_um, 115, delta=3)

    def test_cars_in_doubt_restored_or_simulated_teach_nothing(self):
        self.assertIsNone(self.honest(car(300)))
        self.assertIsNone(self.honest(car(115), Finish.RESTORED))
        self.assertIsNone(self.honest([replace(o, simulated=True) for o in car(115)]))
        self.assertIsNone(self.honest([*car(115)[:-1], replace(car(115)[-1], simulated=True)]))
        self.assertIsNone(self.honest(panel("bonnet", 115) + panel("roof", 115)))


if __name__ == "__main__":
    unittest.main()
