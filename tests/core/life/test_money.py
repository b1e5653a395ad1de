import unittest

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from hakutsu.core.life.jobs import Basis, Job, due_at, strand
from hakutsu.core.life.money import COST_GSD, Price, spending
from hakutsu.core.life.survival import AHEAD, Clocks, new_survival

PRICES = {"a": Price(100.0, 50.0), "b": Price(60.0, 40.0), "large": Price(200.0, 300.0)}
NEVER = np.ones(len(AHEAD))
MEAN_OF_COST = float(np.exp(0.5 * np.log(COST_GSD) ** 2))


def known(key, months, cost="a", every=None, labour=""):
    curve = due_at(months)
    return Job(key, key, cost, labour, Basis.SCHEDULED, strand(curve, NEVER), due=months, every=every)


def living(key, years, cost="a", beta=3.0, labour=""):
    curve = new_survival(Clocks(None, years, beta), 12_000).mean
    return Job(key, key, cost, labour, Basis.SURVIVAL, strand(curve, curve))


class ByHand(unittest.TestCase):
    def test_a_job_that_is_due_costs_its_price(self):
        [one] = spending([known("x", 5.0)], PRICES, (12,))
        self.assertAlmostEqual(one.mean, 150 * MEAN_OF_COST, delta=3)
        self.assertAlmostEqual(one.p50, 150, delta=5)
        self.assertEqual(one.drivers[0].chance, 1.0)

    def test_only_what_falls_within_the_horizon_counts(self):
        one, two, _ = spending([known("x", 13.0)], PRICES)
        self.assertEqual((one.mean, one.p90, one.drivers), (0.0, 0.0, ()))
        self.assertGreater(two.mean, 100)

    def test_what_comes_again_is_charged_again(self):
        once, again = (spending([known("x", 1.0, every=e)], PRICES, (36,))[0].mean for e in (None, 10.0))
        self.assertAlmostEqual(again / once, 4, delta=0.1)  # at 1, 11, 21, 31

    def test_labour_of_a_group_is_charged_once_in_its_window(self):
        near = spending([known("x", 5.0, labour="g"), known("y", 7.0, "b", labour="g")], PRICES, (12,))[0]
        far = spending([known("x", 5.0, labour="g"), known("y", 9.0, "b", labour="g")], PRICES, (12,))[0]
        # near: 100 + 50 + 40, and what the second one's labour exceeds the first's; far: 60 more
        self.assertAlmostEqual(far.mean - near.mean, 60 * MEAN_OF_COST, delta=6)
        self.assertAlmostEqual(far.mean, 250 * MEAN_OF_COST, delta=5)

    def test_the_chance_is_that_of_its_survival(self):
        [one] = spending([living("x", 4.0, beta=3.0)], PRICES, (36,))
        self.assertAlmostEqual(one.drivers[0].chance, 1 - np.exp(-((3 / 4) ** 3)), delta=0.05)

    def test_the_larger_job_comes_along_when_it_ends_soon_after(self):
        small, soon, late = due_at(5.0), due_at(10.0), due_at(40.0)
        for other, price in ((soon, 500.0), (late, 150.0)):
            found = Job("x", "x", "a", "", Basis.MEASURED, strand(small, NEVER), major=strand(other, NEVER),
                        major_cost="large")  # fmt: skip
            self.assertAlmostEqual(spending([found], PRICES, (36,))[0].mean, price * MEAN_OF_COST, delta=price * 0.04)

    def test_one_factor_of_the_vehicle_keeps_totals_from_being_too_narrow(self):
        many = [living(f"part{i}", 5.0) for i in range(30)]
        [one] = spending(many, PRICES, (36,))
        independent = np.sqrt(30 * 150**2 * one.drivers[0].chance * (1 - one.drivers[0].chance)) * 2.563
        self.assertGreater(one.p90 - one.p10, 1.3 * independent)


class Properties(unittest.TestCase):
    @settings(max_examples=25, deadline=None)
    @given(st.lists(st.floats(1, 12), min_size=1, max_size=12), st.integers(1, 4))
    def test_mean_shares_add_up_and_quantiles_rise(self, years, groups):
        jobs = [living(f"p{i}", y, labour=f"g{i % groups}") for i, y in enumerate(years)]
        for one in spending(jobs, PRICES):
            self.assertAlmostEqual(sum(driver.share for driver in one.drivers), one.mean, places=6)
            self.assertTrue(0 <= one.p10 <= one.p50 <= one.p90)
            self.assertTrue(all(0 < driver.chance <= 1 for driver in one.drivers))

    def test_the_dice_do_not_move_with_the_jobs_beside(self):
        alone = spending([living("x", 4.0)], PRICES, (24,))[0].drivers[0]
        beside = spending([living("y", 3.0), living("x", 4.0)], PRICES, (24,))[0]
        self.assertEqual(alone, next(one for one in beside.drivers if one.key == "x"))
        self.assertEqual(spending([living("x", 4.0)], PRICES), spending([living("x", 4.0)], PRICES))

    def test_longer_lives_never_cost_more(self):
        means = [spending([living("x", years)], PRICES, (36,))[0].mean for years in (2.0, 4.0, 8.0, 16.0)]
        self.assertEqual(means, sorted(means, reverse=True))

    def test_no_job_is_no_spending(self):
        self.assertEqual([one.mean for one in spending([], PRICES)], [0, 0, 0])
