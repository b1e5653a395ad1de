import unittest

import numpy as np

from hakutsu.core.film import SpotVerdict, State, analyse
from hakutsu.core.film.model.filler import lenses
from hakutsu.core.film.model.graded import families
from hakutsu.core.film.parameters import Side, parameters
from hakutsu.core.film.simulate import Gauge, PaintedPanel, coarse_gauge, paint_car
from hakutsu.vehicle.shell import neighbours, shell
from tests.builders import honest_car, readings, survey

P = parameters()
WAVES = np.zeros((8, 3))


def at(places, panel="rear_quarter_right"):
    return [o for (u, v), um in places.items() for o in readings(panel, um, u=u, v=v)]


class Lenses(unittest.TestCase):
    def test_the_peak_lies_at_the_centre_and_nothing_beyond_the_rim(self):
        family = lenses(P)
        (u, v), (long, _) = family.centre[0], family.axes[0]
        lift = family.lift(np.array([u, u + long / 2, u + long]), np.array([v, v, v]))
        self.assertAlmostEqual(lift[0, 0], family.peak_um[0], places=3)
        self.assertAlmostEqual(lift[0, 1], family.peak_um[0] * 0.75**0.75, places=3)
        self.assertEqual(lift[0, 2], 0)

    def test_the_area_of_a_lens_well_inside_is_that_of_its_ellipse(self):
        family = lenses(P)
        # peak · (1 − r²)^¾ > 150 µm inside r² = 1 − (150 / peak)^(4/3)
        inside = (abs(family.centre - 0.5) + family.axes < 0.5).all(axis=1) & (family.peak_um > 300)
        self.assertGreater(inside.sum(), 10)
        for i in np.flatnonzero(inside):
            ellipse = np.pi * family.axes[i].prod() * (1 - (150 / family.peak_um[i]) ** (4 / 3))
            self.assertAlmostEqual(family.area[i], ellipse, delta=0.02)


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

    def test_each_reading_is_told_as_filler_or_not(self):
        read = at(self.LOW)
        panel = analyse(survey(honest_car(), read)).panel("rear_quarter_right")
        told = {o.value_um: panel.verdict(o) for o in read}
        self.assertEqual(told[940], SpotVerdict.FILLER)
        self.assertIsNone(told[236])
        (edge,) = readings("rear_quarter_right", 60, edge=True)
        self.assertEqual(panel.verdict(edge), SpotVerdict.EDGE)
        unplaced = readings("rear_quarter_right", 880, 230)
        self.assertEqual([panel.verdict(o) for o in unplaced], [SpotVerdict.FILLER, None])

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
        for seed in range(60):
            rng = np.random.default_rng(seed)
            car = paint_car(rng, repairs=3)
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

    def test_repairs_run_over_seams_and_blends_face_the_panel_they_belong_to(self):
        painted = (State.REFINISHED, State.REBUILT, State.FILLED)
        for seed in range(30):
            car = paint_car(np.random.default_rng(seed), history="in_places", repairs=1.5)
            near = neighbours(shell("hatch", 5, tuple(car.panels)))
            for key, panel in car.panels.items():
                if panel.state is State.BLENDED:
                    self.assertTrue(any(car.panels[other].state in painted for other in near[key]), (seed, key))

    def test_a_resprayed_car_has_no_panel_of_the_factory(self):
        car = paint_car(np.random.default_rng(4), history="resprayed")
        self.assertNotIn(State.ORIGINAL, {panel.state for panel in car.panels.values()})

    def test_panels_nobody_measures_and_positions_nobody_kept(self):
        rng = np.random.default_rng(8)
        read = paint_car(rng).survey(rng, spots=3, placed=0.5, skipped=0.3)
        self.assertLess(len(read.metal_panels()), 17)
        placed = [o.u is not None for o in read.observations]
        self.assertTrue(0.3 < np.mean(placed) < 0.7)

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
            for panel in analyse(car.survey(rng, coarse_gauge(rng))).panels:
                altered.append(car.panels[panel.panel].state not in (State.ORIGINAL, State.THINNED))
                score.append(1 - panel.probabilities[State.ORIGINAL] - panel.probabilities[State.THINNED])
        altered, score = np.array(altered), np.array(score)
        found = (score[altered] > np.percentile(score[~altered], 98)).mean()
        self.assertGreater(found, 0.85)
