"""The plan against proof: intervals by hand, on both clocks."""

import unittest
from datetime import date
from uuid import uuid4

from hakutsu.core.service.schedule import Life, Work, countdown_says, stands, twice
from hakutsu.entries.service import Countdown, PlanRow, ServiceDone
from hakutsu.vehicle.service import ByWhom, ProofOf

TODAY = date(2026, 11, 28)
LIFE = Life(date(2016, 11, 28), TODAY, 150_000.0)  # 15,000 km a year for ten years
OIL = PlanRow(item="engine_oil", km=15_000, months=12)


def work(on=None, km=None, *items, by="independent", proof="stamp", whole=False):
    day = date.fromisoformat(on) if on else None
    return Work(day, km, ByWhom(by), ProofOf(proof), items or (() if whole else ("engine_oil",)), whole, uuid4())


def oil(*works, life=LIFE, row=OIL, km_per_year=15_000):
    return stands([row], works, life, km_per_year)[0]


class Plan(unittest.TestCase):
    def test_every_year_in_time_misses_nothing(self):
        told = oil(*(work(f"{year}-11-20", 15_000 * (year - 2016)) for year in range(2017, 2027)))
        self.assertEqual((told.missed, told.overdue, len(told.done)), (0, False, 10))
        self.assertEqual(told.next_on.year, 2027)
        self.assertEqual(told.next_km, 165_000)

    def test_three_years_without_one_are_two_missed(self):
        told = oil(work("2017-11-20", 15_000), work("2020-11-20", 60_000), work("2026-11-01", 149_000))
        self.assertEqual(told.missed, 2 + 5)
        self.assertFalse(told.overdue)

    def test_distance_counts_where_it_ran_more_than_the_calendar(self):
        told = oil(work("2026-06-01", 128_000))
        self.assertTrue(told.overdue)
        self.assertAlmostEqual(told.gone, 22_000 / 15_000)

    def test_the_calendar_counts_where_it_stood(self):
        told = oil(work("2024-11-28", 149_500))
        self.assertAlmostEqual(told.gone, 2.0, delta=0.01)

    def test_a_little_late_is_the_service_of_that_interval(self):
        told = oil(
            work("2018-01-10", 16_500), work("2019-03-01", 33_000), life=Life(LIFE.first, date(2019, 4, 1), 34_000.0)
        )
        self.assertEqual(told.missed, 0)

    def test_a_check_before_delivery_and_words_are_no_service(self):
        told = oil(work("2026-11-01", 149_000, proof="said"), work("2026-11-01", 149_000, by="delivery"))
        self.assertEqual(told.done, ())
        self.assertTrue(told.overdue)

    def test_a_service_by_the_plan_has_what_was_due_then(self):
        fluid = PlanRow(item="brake_fluid", months=24)
        works = [work("2017-11-20", 15_000, whole=True), work("2018-11-20", 30_000, whole=True)]
        told = stands([OIL, fluid], works, LIFE, 15_000)
        self.assertEqual([len(one.done) for one in told], [2, 1])

    def test_a_stamp_without_a_day_stands_by_its_distance(self):
        told = oil(work(None, 135_000))
        self.assertAlmostEqual(told.gone, 1.0, delta=0.01)

    def test_the_buyers_rate_sets_when_it_is_due(self):
        last = work("2026-11-28", 150_000)
        slow, fast = oil(last, km_per_year=5_000), oil(last, km_per_year=60_000)
        self.assertEqual(slow.next_on, date(2027, 11, 28))
        self.assertEqual((fast.next_on - TODAY).days, 91)

    def test_nothing_known_of_the_vehicle_is_answered(self):
        told = oil(work("2026-01-01", None), life=Life(None, TODAY, None))
        self.assertLess(told.gone, 1.1)
        self.assertEqual(oil(life=Life(None, TODAY, None)).gone, 0.0)

    def test_the_same_invoice_twice_counts_once(self):
        one, other = work("2023-02-20", 119_800), work("2023-02-20", 119_900)
        again = work("2023-02-20", 119_800)
        self.assertEqual(twice([one, other, again], {}), {again.entry})
        self.assertEqual(twice([one, other], {one.entry: "2302-117", other.entry: "2302-117"}), {other.entry})

    def test_bad_entries_are_refused(self):
        for made in (
            lambda: ServiceDone(on="2021-02-30"), lambda: ServiceDone(), lambda: PlanRow(item="engine_oil"),
            lambda: PlanRow(item="engine_oil", km=0), lambda: Countdown(), lambda: ServiceDone(on="soon"),
        ):  # fmt: skip
            with self.assertRaises(ValueError):
                made()


class Left(unittest.TestCase):
    def test_what_is_left_and_what_has_run_make_the_interval(self):
        says = countdown_says((10_000, None), (date(2026, 8, 1), 145_000), OIL, LIFE)
        self.assertEqual((says.km, says.differs), (15_000, False))

    def test_a_reset_without_a_service_shows(self):
        says = countdown_says((14_000, 360), (date(2025, 5, 1), 128_000), OIL, LIFE)
        self.assertEqual(says.km, 36_000)
        self.assertTrue(says.differs)

    def test_one_clock_that_fits_is_enough(self):
        says = countdown_says((-6_000, 260), (date(2026, 8, 15), 145_000), OIL, LIFE)
        self.assertFalse(says.differs)

    def test_without_a_service_or_a_plan_nothing_differs(self):
        self.assertIsNone(countdown_says((1, 1), (None, None), OIL, LIFE))
        self.assertFalse(countdown_says((1, 1), (date(2026, 8, 1), 145_000), None, LIFE).differs)
