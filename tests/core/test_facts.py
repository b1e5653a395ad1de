import unittest
from datetime import date

from hakutsu.core.facts import differ, origin_found
from hakutsu.core.fitting import may_be_fitted, not_of_its_time
from hakutsu.entries.facts import FACTS, Fact, Fitted, OriginSaid
from hakutsu.vehicle.mechanics import Mechanics, RearAxle
from tests.builders import car


class Differ(unittest.TestCase):
    def test_a_meter_moves_on_by_a_drive_and_never_back(self):
        self.assertFalse(differ("odometer_km", [61_840.0, 61_858.0]))
        self.assertTrue(differ("odometer_km", [61_840.0, 61_800.0]))
        self.assertTrue(differ("odometer_km", [61_840.0, 63_000.0]))

    def test_a_name_written_more_fully_is_the_same(self):
        self.assertFalse(differ("model", ["Sund", "sund  saloon"]))
        self.assertTrue(differ("model", ["Sund", "Carry"]))

    def test_one_mention_and_none_contradict_nothing(self):
        for fact in FACTS:
            self.assertFalse(differ(fact, []) or differ(fact, ["once"]))

    def test_a_date_told_more_closely_is_the_same(self):
        self.assertFalse(differ("first_used", ["1958", "1958-05"]))
        self.assertFalse(differ("first_used", ["1958-05", date(1958, 5, 20)]))
        self.assertTrue(differ("first_used", ["1958", "1959-05"]))

    def test_choices_are_told_apart_by_their_keys(self):
        self.assertFalse(differ("rear_axle", [RearAxle.RIGID, RearAxle.RIGID]))
        self.assertTrue(differ("rear_axle", [RearAxle.RIGID, RearAxle.BEAM]))
        self.assertTrue(differ("separate_frame", [True, False]))
        self.assertTrue(differ("front_bar", [2.0, 2.3]))


class OneFact(unittest.TestCase):
    def test_a_year_a_month_and_a_day(self):
        for said, day in (("1958", date(1958, 7, 1)), ("1958-05", date(1958, 5, 15)), ("1958-05-20", date(1958, 5, 20)),
                          (1958.0, date(1958, 7, 1))):  # fmt: skip
            self.assertEqual(Fact(fact="first_used", value=said).applied(Mechanics()).first_used, day)

    def test_what_no_fact_can_be_is_refused(self):
        for body in ({"fact": "wings", "value": "two"}, {"fact": "power", "value": "steam"},
                     {"fact": "odometer_km", "value": -1}, {"fact": "also_fitted", "value": "turbo"}):  # fmt: skip
            with self.assertRaises(ValueError):
                Fact(**body)

    def test_every_fact_can_be_taken_back(self):
        for fact in FACTS:
            self.assertEqual(Fact(fact=fact).applied(Mechanics()), Mechanics())


class Fittings(unittest.TestCase):
    def test_either_there_or_not(self):
        for body in ({}, {"there": ("turbo",), "absent": ("turbo",)}):
            with self.assertRaises(ValueError):
                Fitted(**body)

    def test_what_was_said_is_no_longer_asked(self):
        mechanics = Mechanics(first_used="1980-01-01", power="petrol")
        asked = {one.key for one in may_be_fitted(car(), mechanics, {})}
        self.assertIn("abs_unit", asked)
        self.assertNotIn("abs_unit", {one.key for one in may_be_fitted(car(), mechanics, {"abs_unit": False})})
        gone = {one.key for one in not_of_its_time(car(), mechanics, {})}
        self.assertIn("particulate_filter", gone)
        self.assertEqual(asked & gone, set())
        self.assertEqual(not_of_its_time(car(), Mechanics(), {}), [])


class Origin(unittest.TestCase):
    def test_a_part_from_another_vehicle_asks_why(self):
        found = origin_found(OriginSaid(part="engine", origin="swapped"), "bay")
        self.assertEqual((found.code, found.subject), ("general.part_swapped", "engine:bay"))
        self.assertIsNotNone(found.open)
        self.assertIsNone(origin_found(OriginSaid(part="engine", origin="original"), ""))
