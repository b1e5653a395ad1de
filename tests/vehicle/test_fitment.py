import unittest

from hakutsu.core.life.components import components, fitted, scheduled_items
from hakutsu.vehicle.engine import engine_looks
from hakutsu.vehicle.equipment import equipment, fitted_equipment, may_have
from hakutsu.vehicle.fitment import as_built, follows, proposed_facts, spans, usual
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.parts import parts

SALOON_58 = Mechanics(first_used="1958-06-01", power="petrol", drive="rear", rear_axle="rigid", front_brakes="drums",
                      rear_brakes="drums", front_pivots="king_pins", steering_gear="box", fuel_system="carburettor",
                      ignition="points")  # fmt: skip


class Table(unittest.TestCase):
    def test_every_row_names_something_that_exists_and_its_years_rise(self):
        known = {
            "equipment": {one.base for one in equipment().values()},
            "part": {*components(), *scheduled_items()}, "look": {*engine_looks(), "scan"},
            "pane": {one.base for one in parts().values()},
        }  # fmt: skip
        for table, keys in known.items():
            for key, span in spans(table).items():
                self.assertIn(key, keys, table)
                self.assertLessEqual(span.none_before, span.usual_from, key)
                self.assertLessEqual(span.usual_until, span.none_after, key)

    def test_none_before_its_time_asked_for_in_between_and_usual_later(self):
        said = [usual("equipment", "airbag_lamp", year) for year in (1958, 1973, 1974, 1997, 1998, 2020)]
        self.assertEqual(said, [False, False, None, None, True, True])
        self.assertEqual([usual("part", "dynamo", year) for year in (1930, 1960, 1961, 1978, 1979)],
                         [True, True, None, None, False])  # fmt: skip

    def test_without_a_year_a_vehicle_is_taken_for_modern(self):
        self.assertIs(usual("equipment", "airbag_lamp", None), True)
        self.assertIs(usual("part", "dynamo", None), False)


class Facts(unittest.TestCase):
    def test_what_surely_follows_is_taken_and_what_usually_does_is_proposed(self):
        old = Mechanics(first_used="1950-01-01", power="petrol")
        self.assertEqual(as_built(old, "front_brakes"), "unknown")
        self.assertIn(("front_brakes", "drums"), {(one.fact, one.value) for one in proposed_facts(old)})
        self.assertEqual(as_built(Mechanics(first_used="2015-01-01"), "front_brakes"), "discs")

    def test_what_was_said_goes_before_what_follows(self):
        self.assertEqual(as_built(Mechanics(first_used="2015-01-01", front_brakes="drums"), "front_brakes"), "drums")
        self.assertNotIn("front_brakes", {one.fact for one in follows(SALOON_58)})


class Saloon(unittest.TestCase):
    def test_it_lists_nothing_before_its_time(self):
        has = {key for key, row in {**components(), **scheduled_items()}.items() if fitted(row, SALOON_58)}
        gone = {"abs_unit", "oxygen_sensors", "cabin_filter", "catalytic_converter", "steering_rack", "injectors"}
        self.assertEqual(gone & has, set())
        self.assertLessEqual({"wheel_cylinder", "king_pin", "carburettor", "points", "steering_box",
                              "propshaft_joint", "axle", "dynamo"}, has)  # fmt: skip

    def test_functions_follow_year_body_and_facts(self):
        mine = {one.key for one in fitted_equipment(4, year=1958, body="saloon")}
        self.assertEqual({"airbag_lamp", "third_brake_lamp", "front_belt_left", "rear_wiper"} & mine, set())
        self.assertIn("rear_wiper", {one.key for one in fitted_equipment(5, year=2015, body="hatch")})
        self.assertNotIn("rear_wiper", {one.key for one in fitted_equipment(4, year=2015, body="saloon")})

    def test_nothing_charges_a_petrol_engine_from_the_wall(self):
        charging = equipment()["charging"]
        asked = {power: may_have(charging, 2020, {"power": power}) for power in ("petrol", "electric", "unknown")}
        self.assertEqual(asked, {"petrol": False, "electric": True, "unknown": True})

    def test_what_is_said_overrides_the_table(self):
        mine = {one.key for one in fitted_equipment(4, ["front_belt_left"], ["horn"], year=1958, body="saloon")}
        self.assertIn("front_belt_left", mine)
        self.assertNotIn("horn", mine)
