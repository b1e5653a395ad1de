import unittest
from dataclasses import replace

from hakutsu.core.film.parameters import parameters
from hakutsu.core.film.verdicts.spots import SpotVerdict, spots, surprises
from tests.builders import honest_car, readings, survey

RETEST = parameters().retest


def keyed(observations):
    return [replace(o, key=i) for i, o in enumerate(observations)]


class Surprises(unittest.TestCase):
    def found(self, *values, baseline=118, panel="rear_quarter_left", **more):
        car = survey(keyed(readings(panel, *values, **more)))
        return surprises(car, baseline, RETEST)

    def test_a_reading_far_from_its_panel_surprises(self):
        (one,) = self.found(116, 118, 119, 117, 240)
        self.assertEqual((one.observation.value_um, one.verdict), (240, SpotVerdict.OPEN))
        self.assertEqual(one.expected_um, 117.5)

    def test_an_even_panel_does_not(self):
        self.assertEqual(self.found(116, 118, 121, 113), [])

    def test_one_odd_reading_among_three_does_not_make_the_sound_ones_odd(self):
        (one,) = self.found(103, 105, 247, baseline=104)
        self.assertEqual(one.observation.value_um, 247)

    def test_a_first_reading_is_held_against_the_cars_baseline(self):
        self.assertEqual(len(self.found(230)), 1)
        self.assertEqual(self.found(230, baseline=None), [])

    def test_a_panel_evenly_thick_is_a_finding_not_a_surprise(self):
        self.assertEqual(self.found(230, 236, 228, 240), [])

    def test_over_range_asks_for_its_repeat(self):
        self.assertEqual(len(self.found(116, 118, 119, "over", limit_um=1500)), 1)

    def test_two_repeats_settle_it(self):
        base = keyed(readings("roof", 116, 118, 119, 117, 240))
        for values, verdict in (((238, 246), SpotVerdict.STANDS), ((118, 121), SpotVerdict.MISREAD)):
            repeats = [replace(o, key=f"r{i}", repeats=4) for i, o in enumerate(readings("roof", *values))]
            with self.subTest(values):
                (one,) = surprises(survey(base, repeats), 118, RETEST)
                self.assertEqual((one.verdict, one.repeats), (verdict, 2))

    def test_one_repeat_does_not(self):
        base = keyed(readings("roof", 116, 118, 119, 117, 240))
        (one,) = surprises(survey(base, [replace(readings("roof", 118)[0], key="r", repeats=4)]), 118, RETEST)
        self.assertEqual((one.verdict, one.repeats), (SpotVerdict.OPEN, 1))


class OneSpot(unittest.TestCase):
    def test_repeats_count_as_one_spot_and_the_middle_one_speaks(self):
        first = replace(readings("roof", 240, u=0.3, v=0.4)[0], key="a")
        repeats = [replace(o, key=i, repeats="a") for i, o in enumerate(readings("roof", 118, 121))]
        (spot,) = spots([first, *repeats], RETEST)
        self.assertEqual((spot.value_um, spot.u, spot.key, spot.confirmed), (121, 0.3, "a", False))

    def test_three_that_agree_are_confirmed(self):
        first = replace(readings("roof", 240)[0], key="a")
        repeats = [replace(o, key=i, repeats="a") for i, o in enumerate(readings("roof", 236, 247))]
        self.assertTrue(spots([first, *repeats], RETEST)[0].confirmed)

    def test_a_repeat_whose_first_reading_was_struck_stands_for_itself(self):
        (lonely,) = spots([replace(readings("roof", 118)[0], key=1, repeats="gone")], RETEST)
        self.assertEqual(lonely.value_um, 118)

    def test_without_repeats_nothing_changes(self):
        car = honest_car()
        self.assertEqual(len(spots(car, RETEST)), len(car))
