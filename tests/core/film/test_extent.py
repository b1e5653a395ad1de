import unittest

import numpy as np

from hakutsu.core.film import State, analyse
from hakutsu.core.film.filler import domes
from hakutsu.core.film.graded import families
from hakutsu.core.film.parameters import Side, parameters
from hakutsu.core.film.simulate import USUAL, Gauge, PaintedPanel, paint_car, paint_panel
from tests.builders import honest_car, readings, survey

P = parameters()
MANY_FILLED = {**USUAL, State.FILLED: 0.2}
WAVES = np.zeros((8, 3))


def at(places, panel="rear_quarter_right"):
    return [o for (u, v), um in places.items() for o in readings(panel, um, u=u, v=v)]


class Domes(unittest.TestCase):
    def test_the_peak_lies_at_the_centre_and_falls_off_as_a_normal_curve(self):
        family = domes(P.filled)
        u, v = family.centre[0]
        lift = family.lift(np.array([u, u + family.radius[0]]), np.array([v, v]))
        self.assertAlmostEqual(lift[0, 0], family.peak_um[0])
        self.assertAlmostEqual(lift[1, 0], family.peak_um[0] * np.exp(-0.5))

    def test_the_area_of_a_dome_well_inside_is_that_of_its_circle(self):
        family = domes(P.filled)
        # film > 150 µm inside r = radius · √(2 ln(peak / 150))
        inside = np.flatnonzero((abs(family.centre - 0.45).max(axis=1) < 0.2) & (family.radius < 0.15))
        for i in inside:
            if family.peak_um[i] > 160:
                circle = np.pi * family.radius[i] ** 2 * 2 * np.log(family.peak_um[i] / 150)
                if circle < 0.2:
                    self.assertAlmostEqual(family.area[i], circle, delta=0.035)


class Gradients(unittest.TestCase):
    def test_a_blend_is_nothing_where_it_begins_and_whole_at_its_side(self):
        blends, cuts = families(P)
        change = blends.change(np.array([0.0, 1.0]), np.array([0.5, 0.5]))
        rear = [i for i, side in enumerate(blends.side) if side is Side.REAR]
        np.testing.assert_allclose(change[0, rear], 0)
        np.testing.assert_allclose(change[1, rear], blends.amount_um[rear])
        self.assertTrue((cuts.change(np.array([0.5]), np.array([0.5])) <= 0).all())

    def test_the_engine_tells_the_side_a_blend_comes_from(self):
        places = {
            (0.1, 0.5): 118,
            (0.2, 0.3): 117,
            (0.3, 0.7): 120,
            (0.7, 0.4): 149,
            (0.85, 0.6): 168,
            (0.95, 0.5): 176,
        }
        found = analyse(survey(honest_car(), at(places))).panel("rear_quarter_right")
        self.assertEqual((found.state, found.changes_towards[0]), (State.BLENDED, Side.REAR))
        self.assertIn("the film rises towards its rear edge", found.reasons)
        mirrored = {(1 - u, v): um for (u, v), um in places.items()}
        found = analyse(survey(honest_car(), at(mirrored))).panel("rear_quarter_right")
        self.assertEqual(found.changes_towards[0], Side.FRONT)


class FilledShare(unittest.TestCase):
    LOW = {(0.5, 0.1): 940, (0.3, 0.15): 700, (0.7, 0.2): 620, (0.3, 0.8): 236, (0.7, 0.8): 229, (0.5, 0.6): 240}

    def test_it_is_given_with_its_interval_only_where_filler_is_possible(self):
        result = analyse(survey(honest_car(), at(self.LOW)))
        share = result.panel("rear_quarter_right").filled_share
        self.assertTrue(0 < share.low < share.median < share.high < 1)
        self.assertIsNone(result.panel("roof").filled_share)
        self.assertIn("if filled, then", result.panel("rear_quarter_right").reasons[-1])

    def test_more_thick_places_make_a_larger_share(self):
        wide = {place: max(um, 700) for place, um in self.LOW.items() if place[1] < 0.7}
        wide |= {(0.3, 0.8): 240, (0.7, 0.8): 236}
        shares = [
            analyse(survey(honest_car(), at(places))).panel("rear_quarter_right").filled_share.median
            for places in (self.LOW, wide)
        ]
        self.assertLess(*shares)

    def test_the_interval_holds_the_truth_about_as_often_as_it_says(self):
        held = []
        for seed in range(48):
            rng = np.random.default_rng(seed)
            car = paint_car(rng, chances=MANY_FILLED)
            for panel in analyse(car.survey(rng, spots=9)).panels:
                if car.panels[panel.panel].state is State.FILLED and panel.filled_share:
                    share = panel.filled_share
                    held.append(share.low <= car.panels[panel.panel].filled_share <= share.high)
        self.assertGreater(len(held), 80)
        self.assertTrue(0.70 <= np.mean(held) <= 0.90, np.mean(held))


class SimulatedCars(unittest.TestCase):
    def test_the_same_seed_paints_and_reads_the_same_car(self):
        one, two = (np.random.default_rng(5) for _ in range(2))
        self.assertEqual(paint_car(one).survey(one), paint_car(two).survey(two))

    def test_levels_lie_where_the_states_say(self):
        rng = np.random.default_rng(2)
        for state, low, high in ((State.ORIGINAL, 95, 145), (State.REBUILT, 290, 600)):
            for _ in range(20):
                self.assertTrue(low < paint_panel(state, 118, rng).level_um < high)

    def test_an_even_panel_reads_its_level_and_the_limit_is_over_range(self):
        flat = PaintedPanel(State.ORIGINAL, 120.0, 0.0, WAVES)
        self.assertAlmostEqual(flat.film(np.array([0.3]), np.array([0.6]))[0], 120.0)
        self.assertEqual(flat.filled_share, 0.0)
        rng = np.random.default_rng(1)
        self.assertEqual(Gauge(limit_um=100, misreads=0).read(120, rng), (None, "over"))

    def test_a_coarse_gauge_shows_only_its_steps(self):
        rng = np.random.default_rng(1)
        shown = {Gauge(step_um=12.7, limit_um=508, misreads=0).read(117, rng)[0] for _ in range(50)}
        self.assertTrue(all(abs(value / 12.7 - round(value / 12.7)) < 1e-9 for value in shown))

    def test_the_engine_finds_what_was_altered_also_with_a_coarse_gauge(self):
        altered, score = [], []
        for seed in range(24):
            rng = np.random.default_rng(1000 + seed)
            car = paint_car(rng)
            coarse = Gauge(step_um=12.7, limit_um=508, offset_um=rng.normal(0, 1), gain=rng.normal(1, 0.01))
            for panel in analyse(car.survey(rng, coarse)).panels:
                altered.append(car.panels[panel.panel].state not in (State.ORIGINAL, State.THINNED))
                score.append(1 - panel.probabilities[State.ORIGINAL] - panel.probabilities[State.THINNED])
        altered, score = np.array(altered), np.array(score)
        found = (score[altered] > np.percentile(score[~altered], 98)).mean()
        self.assertGreater(found, 0.85)
