"""What was entered ticks its step, and nothing is planned that tells nothing without another."""

import unittest

from hakutsu.core.runsheet import Conditions, plan, steps
from hakutsu.core.runsheet.conditions import INSTEAD
from hakutsu.core.runsheet.tables import TickedTable
from hakutsu.dossier.coverage import checks
from hakutsu.entries.corners import Brake, Tyre
from hakutsu.entries.engine import EngineStart
from hakutsu.entries.general import Limit, NothingFound
from hakutsu.entries.opening import Brief
from hakutsu.reckoning import Reckoning
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.vocabulary import Protocol
from hakutsu.web.round.leads import LEADS, lead
from tests.inspection import InspectionCase


def day(**more):
    usual = {
        "available": 300, "protocol": Protocol.STANDARD, "engine_cold": True, "lift": False, "lift_by_driving": False,
        "helper": False, "may_drive": True, "seller_until": None, "daylight_until": None, "dry_until": None,
    }  # fmt: skip
    return plan(Conditions(**{**usual, **more}))


def keys(made):
    return {one.step.key for one in made.steps}


class WithoutTheDrive(unittest.TestCase):
    AFTER = {"after_drive", "scan_after"}

    def test_nothing_is_planned_after_a_drive_that_is_not(self):
        self.assertLessEqual({*self.AFTER, "road"}, keys(day()))
        for without in (day(may_drive=False), day(blocked=frozenset({"road_test"})), day(available=70)):
            self.assertNotIn("road", keys(without))
            self.assertEqual(keys(without) & self.AFTER, set())

    def test_it_says_so_and_what_that_costs(self):
        left = {one.step.key: one for one in day(blocked=frozenset({"road_test"})).dropped}
        self.assertEqual(left["after_drive"].because, "without it: road test")
        self.assertGreater(left["after_drive"].cost, 0)

    def test_a_drive_that_was_done_is_followed_up(self):
        self.assertLessEqual(self.AFTER, keys(day(done=frozenset({"road"}))))

    def test_every_step_says_what_leaving_it_out_would_cost(self):
        made = day()
        whole = sum(one.cost for one in (*made.steps, *made.dropped) if not one.step.needs & INSTEAD)
        self.assertAlmostEqual(sum(one.cost for one in made.steps), made.knowledge, places=6)
        self.assertLessEqual(whole, 1.0 + 1e-9)


class Ticked(InspectionCase):
    def ticked(self):
        return Reckoning(self.dossier()).run_sheet.ticked

    def test_nothing_entered_ticks_nothing(self):
        self.assertEqual(self.ticked(), frozenset())

    def test_a_wheel_is_done_with_tyre_and_brake(self):
        self.write("corner.tyre", Tyre(depth_mm=(5.0,)), place="wheel_front_left")
        self.assertNotIn("wheel_front_left", self.ticked())
        self.write("corner.brake", Brake(pad_inner_mm=7.0), place="wheel_front_left")
        self.assertIn("wheel_front_left", self.ticked())

    def test_a_start_is_done_and_the_engine_no_longer_cold(self):
        self.write("engine.start", EngineStart())
        self.assertLessEqual({"cold_start", "start"}, self.ticked())

    def test_a_limit_is_as_good_as_a_look(self):
        self.write("inspection.brief", Brief(protocol="quick"))
        for place in ("roof",):
            self.write("general.nothing_found", NothingFound(station="general"), place=place)
            self.write("general.limit", Limit(station="film", because="wet"), place=place)
        self.assertIn("walk_roof", self.ticked())

    def test_every_row_names_a_step_and_looks_that_are_expected(self):
        rows = read_table("core.runsheet", "ticked", TickedTable).tick
        self.assertLessEqual(set(rows), set(steps()))
        known = {check.key for check in checks()}
        self.assertLessEqual({look for row in rows.values() for look in row.looks}, known)


class Leads(unittest.TestCase):
    def test_every_step_leads_somewhere(self):
        self.assertLessEqual(set(LEADS), set(steps()))
        self.assertEqual(lead("walk_flank_left"), "place/flank_left")
        self.assertEqual(lead("wheel_rear_right"), "place/rear_corner_right")
        self.assertTrue(all(lead(key) for key in steps()))


if __name__ == "__main__":
    unittest.main()
