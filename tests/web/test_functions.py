from hakutsu.entries.claims import Claim
from hakutsu.entries.functions import FittedSaid, Lamp, Tried
from hakutsu.entries.general import Limit
from tests.web.case import RoundCase


class FunctionsStation(RoundCase):
    def text(self):
        return self.client.get(f"{self.here}/functions").text

    def tried(self, item, result, **more):
        return self.write("function.tried", Tried(item=item, result=result, **more))

    def fragments(self):
        return self.client.get(f"{self.here}/fragments?view=functions").json()

    def test_everything_fitted_is_listed_by_group_and_counted(self):
        text = self.text()
        self.assertIn("0 of 58 tried", text)
        self.assertNotIn('data-item="camera"', text)
        self.write("function.fitted", FittedSaid(item="camera", there=True))
        self.write("function.fitted", FittedSaid(item="sockets", there=False))
        text = self.text()
        self.assertIn('data-item="camera"', text)
        self.assertNotIn('data-item="sockets"', text)

    def test_a_changed_answer_stands_in_the_queue_until_a_third(self):
        self.tried("horn", "works")
        self.tried("horn", "fails")
        self.assertIn("1 function to try again", self.text())
        self.assertIn("Try once more, the answer changed:</strong> horn", self.fragments()["functions_list"])
        self.tried("horn", "fails")
        found = self.fragments()["functions_list"]
        self.assertNotIn("Try once more", found)
        self.assertIn("<strong>intermittent, 1 of 3 tries worked</strong>", found)

    def test_coverage_counts_tries_and_limits_at_their_place(self):
        open_before = self.place("inside_rear").open
        self.tried("rear_belt_left", "works")
        self.assertEqual(self.place("inside_rear").open, open_before - 2)  # the belt, and the place is looked over
        self.write("general.limit", Limit(station="general", because="covered"), place="function_rear_seats")
        self.assertEqual(self.place("inside_rear").open, open_before - 3)
        self.assertIn("Functions: ", self.client.get(f"{self.here}/place/inside_rear").text)

    def test_lamps_by_kind_and_only_faults_contradict_a_claim(self):
        self.write("claim.said", Claim(words="no warning lamps", who="advert", kind="no_lamps"))
        self.write("function.lamp", Lamp(name="service due", kind="reminder"))
        self.write("function.lamp", Lamp(name="door open", kind="our_doing"))
        self.assertNotIn("was claimed", self.text())
        self.write("function.lamp", Lamp(name="tyre pressure"))
        self.assertIn("was claimed: tyre pressure is lit", self.text())
        self.assertIn("this one is lit: tyre pressure", self.client.get(f"{self.here}/report").text)

    def test_red_faults_and_dead_brake_lamps_stand_down(self):
        self.write("function.lamp", Lamp(name="brakes", red=True))
        self.tried("brake_lamp_left", "fails")
        self.assertNotIn("brake lamps dead", self.fragments()["standing"])
        self.tried("brake_lamp_right", "fails")
        self.tried("front_belt_right", "fails")
        down = self.fragments()["standing"]
        self.assertIn("red lamp", down)
        self.assertIn("brake lamps dead", down)
        self.assertIn("no belt for an occupied seat", down)
        self.tried("brake_lamp_left", "works")
        self.assertEqual(self.fragments()["standing"].count("brake lamps dead"), 1)

    def test_the_report_tells_what_does_not_simply_work(self):
        self.assertNotIn('id="functions"', self.client.get(f"{self.here}/report").text)
        self.tried("front_window_left", "but", but="slower than its twin")
        self.tried("horn", "works")
        text = self.client.get(f"{self.here}/report").text
        self.assertIn("slower than its twin", text)
        self.assertIn("Works: horn", text)
        self.assertIn("Nobody tried:", text)
