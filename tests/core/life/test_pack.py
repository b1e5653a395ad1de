import unittest

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from hakutsu.core.life.pack import LIMIT, PackGiven, factor_quantiles, loss, pack_job, pack_survival
from hakutsu.core.life.survival import AHEAD


def given_pack(**more):
    return PackGiven(**{"power": "electric", "years": 4.0, "km": 56_000.0, "km_per_year": 14_000.0} | more)


class Packs(unittest.TestCase):
    def test_loss_by_hand(self):
        # 0.03 · √4 + 0.00012 · 200 cycles
        self.assertAlmostEqual(float(loss(4, 200)), 0.084)
        self.assertEqual(float(loss(-1, -5)), 0.0)

    def test_without_a_reading_the_factor_is_the_population(self):
        low, median, high = factor_quantiles(given_pack())
        self.assertAlmostEqual(median, 1.0, delta=0.01)
        self.assertAlmostEqual(high, 1.4**1.2816, delta=0.02)
        self.assertAlmostEqual(low, 1.4**-1.2816, delta=0.01)

    def test_a_reading_moves_and_narrows_it(self):
        wide, read = factor_quantiles(given_pack()), factor_quantiles(given_pack(health=0.80, cycles=200))
        # lost 0.20 ± 0.02 where 0.084 is usual: 2.38 ± 0.24, drawn towards 1 by a population of gsd 1.4
        self.assertTrue(1.6 < read[1] < 2.38)
        self.assertLess(read[2] / read[0], wide[2] / wide[0])
        sharp = factor_quantiles(given_pack(health=0.916, cycles=200))
        self.assertAlmostEqual(sharp[1], 1.0, delta=0.06)  # just what is usual

    def test_survival_by_hand(self):
        alive = pack_survival(given_pack(km=0.0, km_per_year=0.0))
        # no cycles: usual loss after 10 more years 0.03 · √14; ln(0.30 / 0.1122) / ln 1.4 = 2.92 sd
        at = float(np.interp(120, AHEAD, alive))
        self.assertAlmostEqual(at, 0.99826, delta=0.001)

    def test_half_the_hybrid_packs_are_done_near_14_years_or_300_000_km(self):
        for rate, years in ((13_000.0, 14.0), (50_000.0, 6.0)):
            new = given_pack(power="hybrid", years=0.0, km=0.0, km_per_year=rate)
            self.assertAlmostEqual(pack_job(new).months().median / 12, years, delta=0.4)

    def test_an_old_hybrid_of_far_distance_has_little_left(self):
        job = pack_job(given_pack(power="hybrid", years=15.0, km=250_000.0, km_per_year=13_000.0))
        self.assertTrue(0 < job.months().median < 72)

    def test_below_the_limit_it_is_now_and_settled(self):
        job = pack_job(given_pack(health=0.68))
        self.assertTrue(job.settle)
        self.assertEqual(job.months().median, 0.0)
        self.assertFalse(pack_job(given_pack(health=LIMIT)).settle)

    @given(st.floats(0.72, 0.99), st.floats(0.5, 15), st.floats(2_000, 60_000))
    def test_better_health_never_lasts_shorter_and_more_distance_never_longer(self, health, years, km):
        one = given_pack(health=health, years=years, km=years * 12_000, km_per_year=km)
        better = PackGiven(one.power, one.years, one.km, km, min(1.0, health + 0.005))
        self.assertGreaterEqual(pack_job(better).months().median, pack_job(one).months().median - 1e-6)
        more = PackGiven(one.power, one.years, one.km, 1.5 * km, health)
        self.assertLessEqual(pack_job(more).months().median, pack_job(one).months().median + 1e-6)

    def test_reasons_say_whether_health_was_read(self):
        self.assertIn("not read", pack_job(given_pack()).reasons[0])
        job = pack_job(given_pack(health=0.9))
        self.assertIn("health 90 % read", job.reasons[0])
        self.assertIn(f"{factor_quantiles(given_pack(health=0.9))[1]:.2f} times", job.reasons[1])
