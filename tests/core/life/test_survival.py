import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from hakutsu.core.life.survival import (
    AHEAD,
    Ages,
    Clocks,
    failing,
    likely_ages,
    new_survival,
    proven_age,
    proven_ages,
    quantiles,
    survival,
)

BATTERY = Clocks(None, 6.0, 3.2)
PUMP = Clocks(190_000.0, 14.0, 2.8)


def one_clock(t, eta, beta, alive, factor=1.0):
    """How much longer a part of age t lasts at survival `alive`, on one clock: η[(t/η)^β − ln S/g]^(1/β) − t."""
    return eta * ((t / eta) ** beta - np.log(alive) / factor) ** (1 / beta) - t


class ByHand(unittest.TestCase):
    def test_at_the_characteristic_life_63_per_cent_have_failed(self):
        self.assertAlmostEqual(float(np.interp(72, AHEAD, new_survival(BATTERY, 12_000).mean)), np.exp(-1), delta=0.002)

    def test_ten_per_cent_life_is_where_nine_of_ten_live(self):
        # η(−ln 0.9)^(1/β) = 6 · 0.10536^(1/3.2) = 2.970 years
        low, _, _ = quantiles(new_survival(BATTERY, 12_000).mean)
        self.assertAlmostEqual(low / 12, 2.970, delta=0.01)
        self.assertAlmostEqual(one_clock(0, 6, 3.2, 0.9), 2.970, delta=0.001)

    def test_one_clock_of_a_known_age_agrees_with_its_closed_form(self):
        for age, factor in ((2.0, 1.0), (5.0, 2.2), (8.0, 0.6)):
            clocks = Clocks(None, 6.0, 3.2, future=factor)
            found = quantiles(survival(clocks, proven_age(clocks, 0, age), 12_000).mean, (0.1, 0.5, 0.9))
            for months, alive in zip(found, (0.9, 0.5, 0.1), strict=True):
                self.assertAlmostEqual(months / 12, one_clock(age, 6.0, 3.2, alive, factor), delta=0.012)

    def test_two_clocks_solve_their_sum(self):
        # at the median g·Σ[((t+x)/η)^β − (t/η)^β] = ln 2
        x = quantiles(survival(PUMP, proven_age(PUMP, 90_000, 6), 15_000).mean, (0.5,))[0] / 12
        total = ((90_000 + 15_000 * x) / 190_000) ** 2.8 - (90_000 / 190_000) ** 2.8
        total += ((6 + x) / 14) ** 2.8 - (6 / 14) ** 2.8
        self.assertAlmostEqual(total, np.log(2), delta=0.004)

    def test_ages_equally_likely_are_the_mean_of_each(self):
        each = [survival(BATTERY, proven_age(BATTERY, 0, age), 1).mean for age in (1.0, 3.0)]
        weight = [float(np.exp(-((age / 6) ** 3.2))) for age in (1.0, 3.0)]  # one that has got so far is likelier
        both = survival(BATTERY, proven_ages(BATTERY, [(0, 1.0), (0, 3.0)]), 1).mean
        np.testing.assert_allclose(both, (weight[0] * each[0] + weight[1] * each[1]) / sum(weight), rtol=1e-9)

    def test_a_part_that_cannot_wear_out_forgets_its_age(self):
        clocks = Clocks(None, 10.0, 1.0)
        young, old = (survival(clocks, proven_age(clocks, 0, age), 1).mean for age in (0.0, 30.0))
        np.testing.assert_allclose(young, old, rtol=1e-9)

    def test_failing_has_its_median_and_spread(self):
        low, median, high = quantiles(failing(4.0, 2.0))
        self.assertAlmostEqual(median, 4.0, delta=0.05)
        self.assertAlmostEqual(high / low, 2 ** (2 * 1.2816), delta=0.2)


class AgeOfThePart(unittest.TestCase):
    def test_an_old_vehicle_rarely_has_its_first_battery(self):
        ages = likely_ages(BATTERY, [(180_000, 15.0)])
        self.assertAlmostEqual(float(ages.weight.sum()), 1.0)
        self.assertLess(float(ages.weight[0, -1]), 0.001)  # S(15) = exp(−(15/6)^3.2)
        self.assertLess(float(ages.weight[0] @ ages.years), 6.0)

    def test_a_young_vehicle_mostly_has(self):
        ages = likely_ages(BATTERY, [(20_000, 2.0)])
        self.assertAlmostEqual(float(ages.weight[0, -1]), np.exp(-((2 / 6) ** 3.2)), delta=0.002)

    def test_it_agrees_with_simulated_replacements(self):
        rng, kept = np.random.default_rng(3), []
        for _ in range(4000):
            at = 0.0
            while (gone := at + 6.0 * rng.weibull(3.2)) < 15.0:
                at = gone
            kept.append(15.0 - at)
        ages = likely_ages(BATTERY, [(180_000, 15.0)])
        self.assertAlmostEqual(float(ages.weight[0] @ ages.years), float(np.mean(kept)), delta=0.12)

    def test_hard_past_use_makes_younger_parts_likely(self):
        gentle, hard = (likely_ages(Clocks(None, 12.0, 3, past=one), [(100_000, 12.0)]) for one in (1.0, 4.0))
        self.assertLess(float(hard.weight[0] @ hard.years), float(gentle.weight[0] @ gentle.years))

    def test_several_vehicles_are_equally_likely(self):
        ages = likely_ages(BATTERY, [(13_000 * y, y) for y in (3.0, 15.0)])
        self.assertIsInstance(ages, Ages)
        self.assertAlmostEqual(float(ages.weight.sum()), 1.0)


class Properties(unittest.TestCase):
    @settings(max_examples=60, deadline=None)
    @given(st.floats(1.8, 4), st.floats(0, 20), st.floats(0.5, 5), st.floats(1000, 60_000))
    def test_survival_falls_from_one_and_more_hazard_never_helps(self, beta, age, factor, rate):
        clocks = Clocks(150_000, 12.0, beta, future=factor)
        worse = Clocks(150_000, 12.0, beta, future=factor * 1.5)
        alive = survival(clocks, proven_age(clocks, age * rate, age), rate).mean
        self.assertAlmostEqual(float(alive[0]), 1.0)
        self.assertTrue((np.diff(alive) <= 1e-12).all())
        self.assertTrue((survival(worse, proven_age(worse, age * rate, age), rate).mean <= alive + 1e-12).all())

    @settings(max_examples=40, deadline=None)
    @given(st.floats(500, 50_000), st.floats(1.05, 4))
    def test_more_distance_a_year_never_means_more_months(self, rate, more):
        ages = proven_age(PUMP, 80_000, 7)
        slow, fast = (quantiles(survival(PUMP, ages, one).mean) for one in (rate, rate * more))
        for a, b in zip(fast, slow, strict=True):
            self.assertLessEqual(a, b * 1.000001)

    @settings(max_examples=40, deadline=None)
    @given(st.floats(0, 25), st.floats(0.1, 10))
    def test_an_older_part_never_lasts_longer_when_it_wears_out(self, age, older):
        young, old = (quantiles(survival(BATTERY, proven_age(BATTERY, 0, one), 1).mean) for one in (age, age + older))
        for a, b in zip(old, young, strict=True):
            self.assertLessEqual(a, b + 1e-9)
