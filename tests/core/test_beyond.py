import unittest
from datetime import date

from hakutsu.core.beyond import SURE, chance_beyond, if_sure
from hakutsu.core.corners.brakes import brake_axle_found, brake_found
from hakutsu.core.corners.tyres import tyre_found
from hakutsu.core.findings import found
from hakutsu.entries.corners import Brake, Tyre
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.rules import rule_sets
from hakutsu.vehicle.vocabulary import Consequence

WHEEL, NOW = "wheel_front_left", date(2026, 11, 28)


def codes(findings):
    return {one.code: one for one in findings}


class Noise(unittest.TestCase):
    def test_chance_by_hand(self):
        # 2 mm apart by eye, each ± 1.2 mm: at the limit as likely as not; 4.2 mm is 1.30 sd of 1.70 beyond 2
        self.assertAlmostEqual(chance_beyond(0.0, 1.7), 0.5)
        self.assertAlmostEqual(chance_beyond(2.2, 1.7), 0.902, delta=0.001)

    def test_what_is_not_sure_is_budgeted_for_and_says_with_what_to_measure(self):
        told = found("corners.disc_varies", WHEEL, "disc thickness varies")
        unsure, sure = if_sure(told, SURE - 0.01, "with a micrometer"), if_sure(told, SURE, "with a micrometer")
        self.assertEqual((unsure.consequence, unsure.condemns), (Consequence.BUDGET, False))
        self.assertEqual(unsure.open.check, "measure again, with a micrometer")
        self.assertEqual(sure, told)


class Brakes(unittest.TestCase):
    def test_how_far_apart_pads_must_be_follows_from_how_they_were_read(self):
        # a gauge is ± 0.3 mm each: 2.5 mm apart is 1.18 sd beyond 2 mm (0.88), 2.6 mm 1.41 (0.92)
        for outer, method, settled in ((7.5, "gauge", False), (7.6, "gauge", True), (7.6, "eye", False),
                                       (9.3, "eye", True)):  # fmt: skip
            brake = Brake(pad_inner_mm=5.0, pad_outer_mm=outer, pad_method=method)
            uneven = codes(brake_found(WHEEL, brake))["corners.pads_uneven"]
            with self.subTest(outer=outer, method=method):
                self.assertEqual(uneven.consequence, Consequence.SETTLE if settled else Consequence.BUDGET)
                self.assertEqual((uneven.open is None, uneven.condemns), (settled, settled))

    def test_across_an_axle_one_side_by_eye_is_enough_to_doubt(self):
        sides = {WHEEL: Brake(pad_inner_mm=4.0), "wheel_front_right": Brake(pad_inner_mm=7.0, pad_method="eye")}
        self.assertEqual(codes(brake_axle_found(sides))["corners.pads_differ"].consequence, Consequence.BUDGET)

    def test_a_pad_at_its_end_by_eye_is_settled_only_where_it_is_hardly_there(self):
        for thin, consequence in ((2.8, Consequence.BUDGET), (1.0, Consequence.SETTLE)):
            seen = brake_found(WHEEL, Brake(pad_inner_mm=thin, pad_method="eye"))
            self.assertEqual([one.consequence for one in seen], [consequence])

    def test_a_pad_read_by_gauge_just_under_its_end_is_measured_again(self):
        # 0.1 mm under 3 mm at ± 0.3 is 0.63, 0.4 mm 0.91
        for thin, consequence in ((2.9, "budget"), (2.6, "settle"), (1.5, "settle")):
            [one] = brake_found(WHEEL, Brake(pad_inner_mm=thin))
            self.assertEqual((one.consequence.value, one.open is None), (consequence, consequence == "settle"))

    def test_a_tread_below_the_law_by_eye_is_measured_again(self):
        for method, mm, consequence in (("eye", 1.4, "budget"), ("gauge", 1.4, "settle"), ("eye", 0.0, "settle")):
            seen = codes(tyre_found(WHEEL, Tyre(depth_mm=(mm,), method=method), rule_sets()["orrin"], Mechanics(), NOW))
            self.assertEqual(seen["corners.tyre_below_legal"].consequence.value, consequence, (method, mm))

    def test_a_disc_at_its_minimum_by_eye_is_measured_again(self):
        # a caliper is ± 0.1 mm: 0.1 under is 0.84, 0.2 under 0.98
        for method, mm, settled in (("eye", 21.8, False), ("gauge", 21.9, False), ("gauge", 21.8, True)):
            brake = Brake(disc_mm=(mm,), disc_min_mm=22.0, disc_method=method)
            worn = codes(brake_found(WHEEL, brake))["corners.disc_at_minimum"]
            self.assertEqual((worn.consequence.value, worn.open is None), ("settle" if settled else "budget", settled))

    def test_variation_by_caliper_says_little(self):
        caliper = codes(brake_found(WHEEL, Brake(disc_mm=(24.0, 24.2, 24.1), disc_min_mm=22.0)))
        micrometer = codes(brake_found(WHEEL, Brake(disc_mm=(24.01, 24.06, 24.03), disc_min_mm=22.0)))
        self.assertEqual(micrometer["corners.disc_varies"].consequence, Consequence.SETTLE)
        self.assertIn("micrometer", caliper["corners.disc_varies"].open.check)
