import unittest

import numpy as np

from hakutsu.core.life.spread import Prior, known, unknown, unmeasured

TYRE = Prior(6500, 1.4, 8.0, 0.4, 1.6, 0.3)
DISC = Prior(40_000, 1.5, 25.0, 0.05, 22.0, 0.1)


def mean(spread, values):
    return float(spread.weight @ values)


class Weights(unittest.TestCase):
    def test_they_sum_to_one_and_nothing_is_left_below_the_limit(self):
        found = [
            known(TYRE, 5.0, (20_000, 20_000)), known(TYRE, 5.0, (0, 90_000)), known(DISC, 24.0, (30_000, 45_000)),
            unknown(TYRE, 5.0), unknown(TYRE, 0.0), unmeasured(TYRE),
        ]  # fmt: skip
        for spread in found:
            self.assertAlmostEqual(spread.weight.sum(), 1.0)
            self.assertGreaterEqual(spread.left.min(), 0.0)
            self.assertEqual(len({len(spread.left), len(spread.weight), len(spread.rate)}), 1)

    def test_unmeasured_is_half_of_what_is_usable_on_average(self):
        spread = unmeasured(TYRE)
        self.assertAlmostEqual(mean(spread, spread.left), (8.0 - 1.6) / 2)
        self.assertAlmostEqual(spread.log_sd, np.log(1.4))

    def test_unknown_history_leaves_the_reading_and_the_usual_rate(self):
        spread = unknown(TYRE, 5.0)
        self.assertAlmostEqual(mean(spread, spread.left), 3.4, delta=0.01)
        self.assertEqual(set(spread.rate), {6500.0})

    def test_a_limit_above_new_leaves_nothing(self):
        self.assertEqual(unmeasured(Prior(6500, 1.4, 3.0, 0.4, 4.0, 0.3)).left.max(), 0.0)


class Known(unittest.TestCase):
    def test_a_nearly_exact_disc_gives_distance_over_wear(self):
        # 1 mm in 40,000 km, measured to 0.1 and new to 0.05: the prior median is what it says as well
        spread = known(DISC, 24.0, (40_000, 40_000))
        self.assertAlmostEqual(np.exp(mean(spread, np.log(spread.rate))) / 40_000, 1, delta=0.02)
        self.assertAlmostEqual(spread.unusual, 0, delta=0.1)

    def test_precisions_add_for_the_thickness_now(self):
        # a rate held fast: what is left has mean and sd of two normals combined, 0.4 of new and 0.3 of the gauge
        fast = Prior(10_000, 1.0001, 8.0, 0.4, 0.0, 0.3)
        spread = known(fast, 5.5, (30_000, 30_000))
        centre = mean(spread, spread.left)
        self.assertAlmostEqual(centre, 5.0 + 0.5 * 0.16 / 0.25, delta=0.005)
        sd = np.sqrt(mean(spread, (spread.left - centre) ** 2))
        self.assertAlmostEqual(sd, 0.4 * 0.3 / 0.5, delta=0.005)

    def test_the_narrower_the_bounds_the_surer_the_rate_and_a_point_is_their_end(self):
        def log_sd(bounds):
            spread = known(TYRE, 4.0, bounds)
            logs = np.log(spread.rate)
            return np.sqrt(mean(spread, (logs - mean(spread, logs)) ** 2))

        widths = [log_sd((26_000 - w, 26_000 + w)) for w in (0, 2_000, 6_000, 13_000)]
        self.assertEqual(widths, sorted(widths))
        self.assertAlmostEqual(log_sd((26_000, 26_001)), widths[0], delta=1e-3)

    def test_unusual_has_the_sign_of_what_lasts_longer(self):
        self.assertGreater(known(TYRE, 7.0, (40_000, 40_000)).unusual, 1)
        self.assertLess(known(TYRE, 2.5, (12_000, 12_000)).unusual, -1)

    def test_what_no_rate_explains_is_none(self):
        self.assertIsNone(known(TYRE, 7.9, (900_000, 900_000)))
        self.assertIsNone(known(DISC, 23.0, (0, 0)))  # 2 mm gone on the way home from the shop
        self.assertIsNotNone(known(TYRE, 8.2, (0, 0)))
