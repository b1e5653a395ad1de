import json

from hakutsu.entries.body import Fit
from hakutsu.entries.corners import Brake, Gear, Tyre
from hakutsu.entries.under import UnderZone
from hakutsu.web.round.twin import twin_entries, twin_film, twin_of, twin_said
from tests.builders import reading
from tests.web.case import RoundCase

LEFT, RIGHT = "wheel_front_left", "wheel_front_right"


class Twin(RoundCase):
    """What the first side had is said at the second; what is measured there is measured here too."""

    def reckoning(self):
        return self.client.app.state.desk.reckoning(self.inspection)

    def said(self, form, kind, key):
        reckoning = self.reckoning()
        return twin_said(reckoning, form, twin_entries(reckoning, [key])[kind, key])

    def test_the_other_side_of_what_has_one(self):
        self.assertEqual(twin_of("wheel_front_left"), "wheel_front_right")
        self.assertEqual(twin_of("under_sill_right"), "under_sill_left")
        self.assertEqual(twin_of("bonnet"), "")

    def test_sizes_and_looks_may_be_the_same_but_never_what_is_measured(self):
        tyre = Tyre(depth_mm=(4.0,), size="205/55 R16 91V", date_code="1119", cracks="none")
        self.write("corner.tyre", tyre, place=LEFT)
        twin = self.said("tyre", "corner.tyre", RIGHT)
        self.assertEqual(twin.same, {"size": "205/55 R16 91V", "cracks": "none"})
        self.assertIn("4", twin.words[0])
        self.assertNotIn("depth", twin.fields)
        self.assertNotIn("1119", twin.fields)

    def test_the_last_look_counts_and_what_was_taken_back_does_not(self):
        self.write("corner.brake", Brake(hose="to_cord"), place=LEFT)
        self.write("corner.brake", Brake(hose="sound"), place=LEFT)
        self.assertEqual(self.said("brake", "corner.brake", RIGHT).same["hose"], "sound")

    def test_sound_parts_are_one_tap_and_others_are_only_told(self):
        self.write("corner.gear", Gear(part="damper", grade="worn", tested="eye"), place=LEFT)
        self.write("corner.gear", Gear(part="ball_joint", grade="sound", tested="hand"), place=LEFT)
        twin = self.said("gear", "corner.gear", RIGHT)
        self.assertEqual(json.loads(twin.bodies), [{"part": "ball_joint", "grade": "sound", "tested": "hand"}])
        self.assertEqual(len(twin.words), 2)

    def test_zones_panels_and_film(self):
        self.write("under.zone", UnderZone(zone="under_sill_left", rust="surface"))
        self.write("body.fit", Fit(front_mm=4.2, drop=False), place="front_door_left")
        self.assertEqual(self.said("zone", "under.zone", "under_sill_right").same, {"rust": "surface"})
        self.assertEqual(self.said("fit", "body.fit", "front_door_right").same, {"drop": "no"})
        self.post(self.inspection, reading("front_wing_left", 118), reading("front_wing_left", 131))
        self.assertEqual(twin_film(self.reckoning(), "front_wing_right"), "other side 118 to 131 µm")
        self.assertEqual(twin_film(self.reckoning(), "bonnet"), "")

    def test_the_place_sheet_says_it_at_the_second_side_alone(self):
        self.write("corner.tyre", Tyre(depth_mm=(4.0,), size="205/55 R16 91V"), place=LEFT)
        second = self.client.get(f"{self.here}/place/front_corner_right").text
        self.assertIn("The other side:", second)
        self.assertIn("data-same=", second)
        self.assertNotIn("The other side:", self.client.get(f"{self.here}/place/front_corner_left").text)
