import unittest

import numpy as np

from hakutsu.core.film import Baseline, State
from hakutsu.core.film.parameters import parameters
from hakutsu.core.film.verdicts.headroom import lowest_of, polish_headroom
from hakutsu.vehicle.vocabulary import Paint
from tests.builders import readings

P = parameters()
SURE = {state: float(state is State.ORIGINAL) for state in State}
PAINTED = {state: float(state is State.REFINISHED) for state in State}
BASE = Baseline(118, 118 - 1.2816, 118 + 1.2816, "factory", 0.99)  # standard deviation 1 µm


def headroom(*values, chances=SURE, base=BASE, paint=Paint.CLEAR):
    return polish_headroom(readings("roof", *values), chances, base, paint, P.headroom, (1.0, 0.01))


class Headroom(unittest.TestCase):
    def test_by_hand(self):
        # Mean 122 µm; one reading: √((0.033 · 122)² + (1 + 1.22)²) = 4.597. The lowest of three lies
        # Φ⁻¹(2.625 / 3.25) = 0.869 of that lower by chance: corrected 120 + 3.99, above the mean, so nothing is
        # missing. Clear coat 45 ± √(6² + 4.597² / 3) = 6.562 against 8 + 22: 1 − Φ(−15 / 6.562) = 0.989.
        found = headroom(124, 120, 122)
        self.assertAlmostEqual(found.chance, 0.989, places=3)
        self.assertEqual(found.um, 8)

    def test_it_is_held_against_the_panels_own_film_not_the_cars(self):
        self.assertGreater(headroom(130).chance, 0.9)
        self.assertGreater(headroom(108, 107, 109).chance, 0.9)

    def test_a_reading_far_under_its_own_panel_leaves_little(self):
        self.assertLess(headroom(124, 122, 123, 125, 92).chance, headroom(124, 122, 123, 125, 118).chance)
        self.assertEqual(headroom(150, 152, 151, 149, 106).um, 0)

    def test_the_lowest_of_many_is_low_by_chance(self):
        self.assertEqual(lowest_of(1), 0)
        # Expected lowest of five and of ten standard normal values: 1.163 and 1.539 (tables of order statistics).
        self.assertAlmostEqual(lowest_of(5), 1.163, delta=0.03)
        self.assertAlmostEqual(lowest_of(10), 1.539, delta=0.03)

    def test_measuring_sound_film_never_speaks_against_it(self):
        rng = np.random.default_rng(4)
        for count in (1, 3, 5, 9):
            for level in (92, 118, 150):
                values = np.round(level * (1 + 0.033 * rng.normal(size=count)))
                base = Baseline(level, level - 2, level + 2, "factory", 0.99)
                self.assertGreater(headroom(*values, base=base).chance, 0.8, (level, values))

    def test_never_below_eighty_micrometres_or_seven_tenths_of_a_thin_cars_own_film(self):
        self.assertIn("under 80", headroom(79).because)
        thin = Baseline(90, 88, 92, "factory", 0.99)
        self.assertNotIn("under", headroom(89, base=thin).because)
        self.assertIn("under 63", headroom(60, base=thin).because)

    def test_none_on_matt_and_single_stage_paint(self):
        for paint in (Paint.MATT, Paint.SINGLE_STAGE):
            self.assertEqual(headroom(130, paint=paint).um, 0)

    def test_not_known_is_a_result(self):
        self.assertIsNone(headroom(240, chances=PAINTED).um)
        self.assertIsNone(headroom().um)
        self.assertIsNone(headroom(120, base=None).um)
        self.assertIsNone(headroom(120, base=Baseline(235, 230, 240, "respray", 0.9)).um)

    def test_unknown_paint_keeps_its_doubt(self):
        self.assertIn("if there is clear coat", headroom(124, paint=Paint.UNKNOWN).because)
        self.assertNotIn("if there is", headroom(124).because)
