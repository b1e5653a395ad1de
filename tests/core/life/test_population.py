import unittest

import numpy as np

from hakutsu.core.life.components import life_factors, life_table
from hakutsu.core.life.money import Price, spending
from hakutsu.core.life.reckon import Given, Proof, survival_jobs
from hakutsu.core.life.survival import Clocks, likely_ages, proven_age, survival
from hakutsu.vehicle.mechanics import Mechanics

KM_PER_YEAR = 13_000
EXPECTED = {1: 0.3, 3: 0.6, 5: 1.0, 8: 2.0, 12: 2.7}  # unscheduled jobs in the coming year
TOLD = {"gearbox": "manual", "drive": "front", "rear_axle": "beam", "timing": "chain", "front_brakes": "discs",
        "rear_brakes": "discs"}  # fmt: skip
BATTERY = Clocks(None, 6.0, 3.2)


def jobs(age, proofs=None, **told):
    mechanics = Mechanics(first_used=f"{2026 - age}-06-01", power="petrol", **told)
    given = Given(mechanics, 5, KM_PER_YEAR, float(age), float(age * KM_PER_YEAR), proofs=proofs or {})
    return survival_jobs(given)


class JobsInAYear(unittest.TestCase):
    def within(self, **told):
        for age, wanted in EXPECTED.items():
            with self.subTest(age=age, told=sorted(told)):
                rows = jobs(age, **told)
                prices = {job.cost: Price(50.0, 50.0) for job in rows}
                (year,) = spending(rows, prices, (12,))
                found = sum(driver.times for driver in year.drivers)
                factor = 1.6 if age == 1 else 1.35
                self.assertLess(max(found / wanted, wanted / found), factor, found)

    def test_a_petrol_car_of_which_the_facts_are_told(self):
        self.within(**TOLD)

    def test_one_of_which_only_age_and_power_are(self):
        self.within()

    def test_how_often_is_never_less_than_whether(self):
        rows = jobs(8, **TOLD)
        (year,) = spending(rows, {job.cost: Price(50.0, 50.0) for job in rows}, (36,))
        self.assertTrue(all(driver.times >= driver.chance > 0 for driver in year.drivers))


class TableItselfUncertain(unittest.TestCase):
    def test_factors_have_the_spread_of_the_table(self):
        self.assertAlmostEqual(float(np.log(life_factors()).std()), float(life_table().ln_sd), places=6)
        self.assertAlmostEqual(float(np.log(life_factors()).mean()), 0.0, places=6)

    def test_the_middle_case_is_the_table(self):
        told, middle = [(180_000.0, 15.0)], len(life_factors()) // 2
        ages, table = likely_ages(BATTERY, told, life_factors()), likely_ages(BATTERY, told)
        np.testing.assert_allclose(ages.weight[middle], table.weight[0], atol=1e-9)
        alive = survival(BATTERY, ages, 12_000).alive[middle]
        np.testing.assert_allclose(alive, survival(BATTERY, table, 12_000).mean, atol=1e-9)

    def test_an_interval_is_wider_than_that_of_the_table_alone(self):
        unsure = survival(BATTERY, proven_age(BATTERY, 0.0, 0.0, life_factors()), 12_000).mean
        sure = survival(BATTERY, proven_age(BATTERY, 0.0, 0.0), 12_000).mean
        self.assertLess(float(unsure[70]), float(sure[70]))  # early failures
        self.assertGreater(float(unsure[-20]), float(sure[-20]))  # and late ones

    def test_a_part_that_reached_an_age_is_likelier_of_the_long_lived(self):
        case = proven_age(BATTERY, 0.0, 9.0, life_factors()).case
        self.assertGreater(case[-1], 5 * case[0])
        np.testing.assert_allclose(proven_age(BATTERY, 0.0, 0.0, life_factors()).case, 1 / len(case))

    def test_parts_of_one_kind_share_their_case(self):
        # bad window regulators come in pairs
        rows = [job for job in jobs(12, **TOLD) if job.key.startswith("window_regulator")]
        self.assertEqual({job.strand.kind for job in rows}, {"window_regulator"})
        prices = {job.cost: Price(0.0, 100.0) for job in rows}
        (alike,) = spending(rows, prices, (36,))
        self.assertGreater(alike.p90, 0.0)

    def test_a_part_proven_new_has_little_to_fear(self):
        (fresh,) = (job for job in jobs(12, {"battery": Proof(0.0, 0.0, "invoice")}, **TOLD) if job.key == "battery")
        (old,) = (job for job in jobs(12, **TOLD) if job.key == "battery")
        self.assertLess(fresh.chance(12), 0.5 * old.chance(12))
