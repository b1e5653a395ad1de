import unittest
from datetime import date

from pydantic import ValidationError

from hakutsu.vehicle.cabin import cabin_parts
from hakutsu.vehicle.equipment import equipment
from hakutsu.vehicle.mechanics import Drive, Mechanics, Power
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.parts import parts
from hakutsu.vehicle.places import places
from hakutsu.vehicle.terms import Terms
from hakutsu.vehicle.under import zones


class MechanicalFacts(unittest.TestCase):
    def test_what_is_not_said_is_not_known(self):
        facts = Mechanics()
        self.assertEqual((facts.power, facts.drive), (Power.UNKNOWN, Drive.UNKNOWN))
        self.assertIsNone(facts.age_years(date(2026, 11, 25)))
        self.assertFalse(facts.regenerative)

    def test_age_counts_from_first_use_and_never_below_nothing(self):
        facts = Mechanics(first_used=date(2016, 11, 25))
        self.assertAlmostEqual(facts.age_years(date(2026, 11, 25)), 10, delta=0.01)
        self.assertEqual(facts.age_years(date(2010, 1, 1)), 0)

    def test_a_motor_that_brakes(self):
        self.assertTrue(Mechanics(power="hybrid").regenerative)
        self.assertTrue(Mechanics(power="electric").regenerative)
        self.assertFalse(Mechanics(power="diesel").regenerative)

    def test_impossible_facts_are_refused(self):
        for body in ({"odometer_km": -1}, {"front_bar": 0}, {"power": "steam"}, {"wheels": 4}):
            with self.assertRaises(ValidationError):
                Mechanics(**body)


class NamesOfNewThings(unittest.TestCase):
    def test_places_of_every_station_have_names(self):
        terms = Terms()
        names = {
            "sill_left": "sill, left",
            "under_sill_left": "underside of the sill, left",
            "brake_rear_right": "rear brake, right",
            "function_horn": "horn",
            "function_rear_seats": "rear seats fold and lock",
            "cabin_rear_seats": "rear seats",
            "rear_rail_left": "rear rail, left",
        }
        for key, name in names.items():
            self.assertEqual(terms.place(key).lower(), name)

    def test_no_two_things_share_a_key(self):
        tables = [panels(), parts(), places(), zones()]
        tables += [{f"function_{key}" for key in equipment()}, {f"cabin_{key}" for key in cabin_parts()}]
        keys = [key for table in tables for key in table if key != "roof"]  # the roof is a panel and a place
        self.assertEqual(len(keys), len(set(keys)))

    def test_places_and_negative_temperatures_in_words(self):
        said = Terms().say("wet at {place wheel_front_left}, {temperature -4.0}")
        self.assertEqual(said, "wet at Front wheel, left, −4 °C")
