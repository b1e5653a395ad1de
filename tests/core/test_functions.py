import unittest

from pydantic import ValidationError

from hakutsu.core.functions import Status, function_status
from hakutsu.entries.functions import Tried
from hakutsu.vehicle.equipment import equipment, fitted_equipment


def tries(*results):
    found = []
    for one in results:
        more = one if isinstance(one, dict) else {"result": one}
        if more["result"] in ("but", "not_tested"):
            more = {"but": "slow", **more}
        found.append(Tried(item="horn", **more))
    return found


class StatusOfTries(unittest.TestCase):
    def status(self, *results):
        return function_status(tries(*results))

    def test_one_answer_is_its_status(self):
        for result, status in (("works", Status.WORKS), ("fails", Status.FAILS), ("but", Status.BUT),
                               ("not_for_me", Status.ASK), ("not_tested", Status.NOT_TESTED)):  # fmt: skip
            self.assertIs(self.status(result).status, status)
        self.assertIs(self.status().status, Status.UNTESTED)

    def test_both_answers_make_it_intermittent_and_ask_for_a_third(self):
        changed = self.status("works", "fails")
        self.assertEqual((changed.status, changed.retest), (Status.INTERMITTENT, True))
        third = self.status("works", "fails", "works")
        self.assertEqual((third.status, third.retest, third.words), (Status.INTERMITTENT, False, "2 of 3 tries worked"))

    def test_what_is_unlike_stays_though_it_worked_later(self):
        self.assertIs(self.status("but", "works").status, Status.BUT)

    def test_some_of_many_is_partly(self):
        found = self.status({"result": "partly", "working": 2, "of": 3, "but": "left one dead"})
        self.assertEqual((found.status, found.words), (Status.PARTLY, "2 of 3; left one dead"))

    def test_not_for_me_is_no_fault_and_gives_way_to_an_answer(self):
        self.assertIn("no fault yet", self.status("not_for_me").words)
        self.assertIs(self.status("not_for_me", "works").status, Status.WORKS)
        self.assertIs(self.status("not_for_me", "fails").status, Status.FAILS)

    def test_it_must_say_enough(self):
        for body in ({"result": "but"}, {"result": "not_tested"}, {"result": "partly", "working": 4, "of": 3}):
            with self.assertRaises(ValidationError):
                Tried(item="horn", **body)


class Fitted(unittest.TestCase):
    def keys(self, *args):
        return {one.key for one in fitted_equipment(*args)}

    def test_optional_things_only_where_said_and_rear_windows_only_with_rear_doors(self):
        self.assertNotIn("camera", self.keys(5))
        self.assertIn("camera", self.keys(5, ["camera"]))
        self.assertNotIn("horn", self.keys(5, [], ["horn"]))
        self.assertNotIn("rear_window_left", self.keys(3))
        self.assertTrue(all(one.name for one in equipment().values()))
