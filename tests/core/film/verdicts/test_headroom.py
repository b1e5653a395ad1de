import unittest

from hakutsu.core.film import Baseline, State
from hakutsu.core.film.parameters import parameters
from hakutsu.core.film.verdicts.headroom import polish_headroom
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
        # Thinnest 120 µm: sd = √(1² + 2.2²) = 2.417; missing = 118 − 120 + 1.2816 · 2.417 = 1.097; left 8 − 1.097.
        self.assertAlmostEqual(headroom(124, 120, 122).um, 6.903, places=2)

    def test_well_above_the_baseline_it_is_whole_and_well_below_none(self):
        self.assertAlmostEqual(headroom(130).um, 8)
        self.assertEqual(headroom(108).um, 0)

    def test_never_below_eighty_micrometres_or_seven_tenths_of_a_thin_cars_own_film(self):
        self.assertIn("below 80", headroom(79).because)
        thin = Baseline(90, 88, 92, "factory", 0.99)
        self.assertNotIn("below", headroom(89, base=thin).because)
        self.assertIn("below 63", headroom(60, base=thin).because)

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
