import unittest

import numpy as np

from hakutsu.core.film.model.observation import mass, shown
from hakutsu.core.film.parameters import parameters
from hakutsu.core.film.survey import Observation
from hakutsu.vehicle.vocabulary import ReadingStatus
from tests.builders import readings

P = parameters()


def chance(observation, level, spread=0.03):
    return float(mass(shown([observation], P), np.array([float(level)]), spread, P)[0, 0])


class Shown(unittest.TestCase):
    def test_a_reading_is_an_interval_of_half_a_display_step_to_both_sides(self):
        seen = shown(readings("roof", 112, step_um=12.7), P)
        self.assertAlmostEqual(seen.low_um[0], 105.65)
        self.assertAlmostEqual(seen.high_um[0], 118.35)

    def test_over_range_is_a_bound_from_below(self):
        seen = shown(readings("roof", "over", limit_um=1500), P)
        self.assertEqual((seen.low_um[0], seen.high_um[0]), (1500, np.inf))

    def test_a_number_at_or_above_the_gauges_limit_is_over_range_too(self):
        seen = shown([*readings("roof", 1500, limit_um=1500), *readings("roof", 1512, limit_um=1500)], P)
        self.assertTrue(seen.censored.all())
        self.assertEqual(list(seen.low_um), [1500, 1500])

    def test_over_range_with_nothing_else_known_takes_the_smallest_range_met(self):
        self.assertEqual(shown(readings("roof", "over"), P).low_um[0], 500)


class Likelihood(unittest.TestCase):
    def test_value_by_hand(self):
        # sd = √(0.03² + (0.01 + 1/112)²) = 0.03547. The interval is ln(112.5/111.5) = 0.00893 wide; the normal density
        # at its middle is 11.246, averaged over it 0.9974 of that: mass 0.10015. Misreads put 0.0056 there:
        # 0.988 · 0.10015 + 0.012 · 0.0056 = 0.0990.
        self.assertAlmostEqual(chance(Observation("roof", 112.0), 112), 0.0990, places=4)

    def test_over_range_is_never_its_number(self):
        over = Observation("roof", 1500.0, ReadingStatus.OVER)
        self.assertGreater(chance(over, 1500 * 1.4), 0.95)
        self.assertGreater(chance(over, 1500 * 1.4), chance(over, 1500))

    def test_a_misread_keeps_any_reading_possible(self):
        self.assertGreater(chance(Observation("roof", 900.0), 110), 0)

    def test_a_reading_confirmed_by_repeats_is_no_misread(self):
        self.assertEqual(chance(Observation("roof", 900.0, confirmed=True), 110), 0)

    def test_a_coarse_step_gathers_the_mass_of_the_fine_ones(self):
        fine = sum(chance(Observation("roof", float(value)), 112) for value in range(106, 119))
        self.assertAlmostEqual(chance(Observation("roof", 112.0, step_um=13), 112), fine, places=3)

    def test_unevenness_widens(self):
        far = Observation("roof", 150.0)
        self.assertGreater(chance(far, 112, 0.2), chance(far, 112, 0.03))
