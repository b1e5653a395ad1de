import unittest

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from hakutsu.core.engine.idle import Idling, hunting, idle_verdict, scatter
from hakutsu.core.engine.oil import OilReading, oil_verdict, wanted_bar


def speeds(sd, count=90, *, mean=800.0, seed=3):
    noise = np.random.default_rng(seed).normal(size=count)
    return list(mean + sd * (noise - noise.mean()) / noise.std(ddof=1))


class Scatter(unittest.TestCase):
    def test_sd_by_hand_and_its_interval_by_the_tables(self):
        found = scatter([790, 800, 810])
        self.assertAlmostEqual(found.median, 10.0)
        # χ² with 2 degrees of freedom: 0.2107 at 10 %, 4.6052 at 90 %
        self.assertAlmostEqual(found.low, 10 * (2 / 4.6052) ** 0.5, places=3)
        self.assertAlmostEqual(found.high, 10 * (2 / 0.2107) ** 0.5, places=2)
        with self.assertRaises(ValueError):
            scatter([800])

    @given(st.integers(60, 400), st.floats(1, 200))
    def test_more_readings_of_the_same_scatter_narrow_it(self, count, sd):
        few, many = scatter(speeds(sd, count)), scatter(speeds(sd, 2 * count))
        self.assertLess(many.high - many.low, few.high - few.low)


class Idle(unittest.TestCase):
    def verdict(self, rpm, **more):
        return idle_verdict(rpm, **{"hertz": 1.0, "warm": True} | more)

    def test_forty_is_the_limit_and_near_it_says_so(self):
        self.assertIs(self.verdict(speeds(41)).idling, Idling.ROUGH)
        self.assertIs(self.verdict(speeds(38)).idling, Idling.NEAR)
        self.assertIs(self.verdict(speeds(20)).idling, Idling.STEADY)
        self.assertIn("scatter 41 rpm", self.verdict(speeds(41)).words)

    def test_too_few_says_how_many_more(self):
        found = self.verdict(speeds(10, 59))
        self.assertEqual(
            (found.idling, found.words), (Idling.TOO_FEW, "1 more readings before the scatter says anything")
        )
        self.assertIsNot(self.verdict(speeds(10, 60)).idling, Idling.TOO_FEW)

    def test_conditions_that_are_lacking_are_named_and_nothing_is_judged(self):
        for more, words in (({"warm": False}, "not warm"), ({"switched": True}, "a load was switched"),
                            ({"hertz": 0.5}, "slower than one reading a second")):  # fmt: skip
            found = self.verdict(speeds(90), **more)
            self.assertIs(found.idling, Idling.CONDITIONS)
            self.assertIn(words, found.words)
        self.assertIsNot(self.verdict(speeds(90), hertz=1.0).idling, Idling.CONDITIONS)

    def test_a_carburettor_is_judged_more_kindly_and_it_says_so(self):
        found = self.verdict(speeds(60), carburettor=True)
        self.assertIs(found.idling, Idling.STEADY)
        self.assertIn("wider limits apply, to 80", found.words)
        self.assertIs(self.verdict(speeds(90), carburettor=True).idling, Idling.ROUGH)

    def test_a_slow_swing_is_hunting_with_its_period_and_noise_is_not(self):
        at = np.arange(120) / 2.0
        swing = list(800 + 40 * np.sin(2 * np.pi * at / 6.0) + np.array(speeds(6, 120)) - 800)
        found = self.verdict(swing, hertz=2.0)
        self.assertIs(found.idling, Idling.HUNTING)
        self.assertAlmostEqual(found.period_s, 6.0, delta=0.3)
        self.assertIsNone(hunting(speeds(60, 120), 2.0))
        self.assertIsNone(hunting([800.0] * 80, 1.0))


class Oil(unittest.TestCase):
    def test_rule_of_thumb_by_hand(self):
        self.assertAlmostEqual(wanted_bar(1000), 0.7)
        self.assertAlmostEqual(wanted_bar(3000), 2.1)

    def test_cold_oil_says_nothing_and_nobody_read_is_none(self):
        self.assertIsNone(oil_verdict([]))
        found = oil_verdict([OilReading(850, 0.1, 30.0), OilReading(850, 0.1, None)])
        self.assertEqual(found.code, "")
        self.assertIn("says nothing of hot oil", found.words)

    def test_low_near_and_enough(self):
        def follows(*bars):
            return oil_verdict([OilReading(1000, bar, 90.0) for bar in bars]).code

        self.assertEqual(follows(0.5), "engine.oil_pressure_low")  # 0.2 below, farther than a gauge is misread
        self.assertEqual(follows(0.65), "engine.oil_pressure_near")
        self.assertEqual(follows(0.9), "")
        self.assertIn("not read hot at idle", oil_verdict([OilReading(2500, 3.5, 92.0)]).words)

    def test_the_rise_between_two_speeds_with_its_interval(self):
        found = oil_verdict([OilReading(800, 1.0, 90), OilReading(2800, 3.4, 90)])
        self.assertAlmostEqual(found.rise.median, 1.2)  # 2.4 bar over 2,000
        # each end read within 0.1 bar: 1.2816 · √2 · 0.1 / 2
        self.assertAlmostEqual(found.rise.high - found.rise.median, 0.0906, places=3)
        self.assertIsNone(oil_verdict([OilReading(800, 1.0, 90), OilReading(1500, 2.0, 90)]).rise)
