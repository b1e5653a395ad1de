import unittest

from hakutsu.core.runsheet import Conditions, plan, steps
from hakutsu.core.runsheet.emphasis import emphasis
from hakutsu.entries.opening import Brief


class Emphasis(unittest.TestCase):
    def test_an_ordinary_brief_weighs_nothing(self):
        self.assertEqual(emphasis(Brief()), {})

    def test_factors_of_taste_use_and_past_multiply_and_say_why(self):
        weights = emphasis(Brief(taste="work", use_factors=("towing", "rough_tracks"), past_factors=("salt",)))
        self.assertAlmostEqual(weights["under"].factor, 1.2 * 1.3 * 1.4)
        self.assertEqual(weights["under"].because, "for towing, for rough tracks, it lived in salt")
        self.assertAlmostEqual(weights["walk_roof"].factor, 0.8)
        self.assertNotIn("identity", weights)

    def test_past_and_coming_use_of_the_same_name_are_two_things(self):
        self.assertNotIn("under", emphasis(Brief(use_factors=("salt",))))
        self.assertIn("under", emphasis(Brief(past_factors=("salt",))))

    def test_in_a_shortage_what_the_brief_asks_for_stays_and_the_plan_says_why(self):
        for available in range(40, 200, 5):
            plain = Conditions(available, lift=True)
            brief = Conditions(available, lift=True, emphasis=emphasis(Brief(past_factors=("salt",))))
            with_salt = {one.step.key: one.because for one in plan(brief).steps}
            if "under" not in {one.step.key for one in plan(plain).steps} and "under" in with_salt:
                self.assertIn("it lived in salt", with_salt["under"])
                return
        self.fail("the life so far never kept the look from below in the plan")

    def test_it_changes_no_hard_order_and_no_duration(self):
        weights = emphasis(Brief(taste="show", use_factors=("towing",), past_factors=("stored",)))
        made = plan(Conditions(300, lift=True, helper=True, emphasis=weights))
        at = {one.step.key: one for one in made.steps}
        for one in made.steps:
            self.assertAlmostEqual(one.end - one.start, one.step.minutes[1])
            for before in steps()[one.step.key].after:
                self.assertTrue(before not in at or at[before].end <= one.start)
