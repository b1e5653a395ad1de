"""Days as they are told: first, middle and last."""

import unittest
from datetime import date

from hakutsu.vehicle.days import middle_of, told_day


class Told(unittest.TestCase):
    def test_a_year_a_month_and_a_day(self):
        self.assertEqual(told_day("2021"), (date(2021, 1, 1), date(2021, 7, 1), date(2021, 12, 31)))
        self.assertEqual(told_day("2020-02"), (date(2020, 2, 1), date(2020, 2, 15), date(2020, 2, 29)))
        self.assertEqual(told_day("2021-12")[2], date(2021, 12, 31))
        self.assertEqual(told_day("2021-05-03"), (date(2021, 5, 3),) * 3)
        self.assertIsNone(told_day(""))
        self.assertIsNone(middle_of(""))

    def test_what_the_calendar_does_not_have(self):
        for said in ("2021-02-30", "2021-13", "2021-00", "0000", "2021-00-01"):
            with self.subTest(said), self.assertRaises(ValueError):
                told_day(said)
