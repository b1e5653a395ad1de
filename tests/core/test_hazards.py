import unittest

from hakutsu.core.hazards import WALKING_PACE, activities, blocking, causes, headings, open_stand_downs
from hakutsu.entries.general import Strike
from hakutsu.entries.hazards import HazardCleared, HazardOverridden, HazardRaised, StepDone
from tests.inspection import InspectionCase

DRIVING = {"driving", "road_test"}
ENDS_OUTSIDE = {"closed_building"}


class Table(unittest.TestCase):
    def test_a_building_that_is_driven_out_of_forbids_only_running(self):
        self.assertEqual({key: set(causes()[key].blocks) for key in ENDS_OUTSIDE}, {"closed_building": {"running"}})

    def test_what_forbids_running_forbids_driving_and_what_forbids_driving_a_road_test(self):
        for cause in causes().values():
            with self.subTest(cause.key):
                if "running" in cause.blocks and cause.key not in ENDS_OUTSIDE:
                    self.assertLessEqual(DRIVING, set(cause.blocks))
                if "driving" in cause.blocks:
                    self.assertIn("road_test", cause.blocks)
                self.assertTrue(cause.caution and cause.name)

    def test_a_few_by_hand(self):
        for key, blocks in (
            ("fuel_wet", {"running", *DRIVING}),
            ("brake_pipe", DRIVING),
            ("tread_below_limit", {"road_test"}),
            ("sill_perforated", {"lifting", "under"}),
            ("on_jack", {"under"}),
        ):
            self.assertEqual(set(causes()[key].blocks), blocks, key)

    def test_every_activity_has_its_heading(self):
        self.assertEqual(set(headings()), set(activities()))


class StandDowns(InspectionCase):
    def open(self):
        return open_stand_downs(self.dossier().hazards)

    def test_every_cause_blocks_what_it_says_and_no_longer_once_cleared(self):
        for cause in causes().values():
            with self.subTest(cause.key):
                raised = self.write("hazard.raised", HazardRaised(cause=cause.key))
                for activity in activities():
                    self.assertEqual(bool(blocking(activity, self.open())), activity in cause.blocks)
                body = HazardCleared(of=raised, name="R. Ness", trade="mechanic", done="mended")
                self.write("hazard.cleared", body)
                self.assertEqual(self.open(), [])

    def test_an_override_frees_what_was_signed_for_and_leaves_the_cause_open(self):
        raised = self.write("hazard.raised", HazardRaised(cause="fuel_wet"))
        pace = HazardOverridden(of=raised, name="R. Ness", reason="ferry queue", activity=WALKING_PACE)
        self.write("hazard.overridden", pace)
        self.assertTrue(blocking("driving", self.open()))
        signed = HazardOverridden(of=raised, name="R. Ness", reason="seller insists", activity="running")
        self.write("hazard.overridden", signed)
        self.assertFalse(blocking("running", self.open()))
        self.assertTrue(blocking("driving", self.open()))
        self.assertEqual(len(self.open()), 1)

    def test_a_cause_raised_by_mistake_is_struck(self):
        raised = self.write("hazard.raised", HazardRaised(cause="no_belt"))
        self.write("general.strike", Strike(), strikes=raised)
        self.assertEqual(self.open(), [])

    def test_an_observation_made_during_a_stand_down_is_kept_and_marked(self):
        self.write("step.done", StepDone(step="cold_levels"))
        self.write("hazard.raised", HazardRaised(cause="oil_pressure"))
        self.write("step.done", StepDone(step="cold_start", minutes=3))
        done = self.dossier().hazards.done
        self.assertEqual((done["cold_levels"].during, done["cold_start"].during), ((), ("oil_pressure",)))
