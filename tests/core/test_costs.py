import unittest
from decimal import Decimal

from pydantic import ValidationError

from hakutsu.core.costs import cost_table, usual_jobs
from hakutsu.entries.settings import JobFigures


class Costs(unittest.TestCase):
    def test_hours_times_rate_and_materials(self):
        # one panel refinished: 3.5 to 6 h and 80 to 170 of materials, at 60 an hour
        self.assertEqual(usual_jobs()["panel_refinish"].cost(Decimal(60)), (Decimal("290.00"), Decimal("530.00")))

    def test_own_figures_stand_in_place_of_ours_and_say_so(self):
        own = JobFigures(hours=(0.5, 0.5), materials=(99.99, 120))
        table = cost_table({"tyre": own, "not_a_job": own})
        self.assertTrue(table["tyre"].own)
        self.assertEqual(table["tyre"].cost(Decimal("72.50")), (Decimal("136.24"), Decimal("156.25")))
        self.assertFalse(table["clutch"].own)
        self.assertEqual(set(table), set(usual_jobs()))

    def test_every_row_rises(self):
        for job in usual_jobs().values():
            low, high = job.cost(Decimal(65))
            self.assertTrue(0 < low <= high, job.key)

    def test_a_falling_range_is_refused(self):
        with self.assertRaises(ValidationError):
            JobFigures(hours=(2, 1), materials=(0, 1))
