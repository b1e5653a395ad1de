from hakutsu.entries.body import Blemish, Glass, Rust
from hakutsu.entries.corners import Brake, Gear
from hakutsu.entries.functions import Tried
from hakutsu.entries.general import Limit, NothingFound, Seen
from hakutsu.entries.under import UnderZone
from hakutsu.vehicle.places import WHEELS
from tests.inspection import InspectionCase


class LaterFind(InspectionCase):
    def nothing(self, place, station="general", text=""):
        self.write("general.nothing_found", NothingFound(station=station, text=text), place=place)

    def test_it_takes_back_an_earlier_nothing_in_every_list(self):
        for place, kind, body, at in (
            ("front", "body.blemish", Blemish(kind="chip"), "bonnet"),
            ("under_middle", "under.zone", UnderZone(zone="under_sill_left", rust="scale"), None),
            ("function_horn", "function.tried", Tried(item="horn", result="fails"), None),
        ):
            with self.subTest(place):
                self.nothing(place, station="functions" if place.startswith("function") else "general")
                self.assertIn(place, self.dossier().general.nothing)
                self.write(kind, body, place=at)
                dossier = self.dossier()
                self.assertNotIn(place, dossier.general.nothing)
                self.assertEqual([one for one in dossier.general.stated if one.entry.place == place], [])

    def test_a_thing_tried_that_is_called_as_a_panel_is_no_panel(self):
        for place in ("roof", "rear"):
            self.nothing(place)
        self.write("function.tried", Tried(item="roof", result="fails"))  # the roof opening, worked from the seat
        self.write("function.tried", Tried(item="tailgate", result="fails"))
        self.assertLessEqual({"roof", "rear"}, self.dossier().general.nothing.keys())

    def test_what_was_found_to_be_well_takes_nothing_back(self):
        self.nothing("front")
        self.write("body.glass", Glass(fault="none"), place="windscreen")
        self.write("corner.gear", Gear(part="damper", grade="sound"), place="wheel_front_left")
        self.assertIn("front", self.dossier().general.nothing)

    def test_outside_only_the_same_subject_is_taken_back(self):
        self.nothing("rear", station="outside", text="rust")
        self.write("body.blemish", Blemish(kind="chip"), place="boot_lid")
        self.assertEqual(len(self.dossier().body.none), 1)
        self.write("body.rust", Rust(grade="stain", where="lid"), place="rear")
        self.assertEqual(self.dossier().body.none, [])


class LimitsAndLooks(InspectionCase):
    def test_a_limit_of_any_station_is_kept_with_and_without_a_place(self):
        for station in ("outside", "corners", "under", "engine", "functions", "cabin", "scan", "general"):
            self.write("general.limit", Limit(station=station, because=f"why {station}"))
        self.assertEqual(len(self.dossier().general.every_limit), 8)

    def test_a_part_seen_in_part_is_no_gap_and_keeps_its_limit(self):
        self.write("general.limit", Limit(station="outside", because="mats", partly=True), place="boot")
        self.assertNotIn("boot", self.dossier().general.limits)
        self.assertEqual(len(self.dossier().general.every_limit), 1)

    def test_a_reading_on_a_panel_says_nothing_of_the_thing_called_like_it(self):
        self.write("function.tried", Tried(item="own", name="tow-bar socket", result="works"))  # nobody said where
        self.assertFalse([one for one in self.dossier().place_coverage() if one.looked.value == "done"])
        self.write("function.tried", Tried(item="roof", result="works"))
        looked = {one.place for one in self.dossier().place_coverage() if one.looked.value == "done"}
        self.assertEqual(looked, {"inside_front"})
        self.write("body.blemish", Blemish(kind="chip"), place="roof")
        self.write("body.blemish", Blemish(kind="chip"), place="tailgate")
        looked = {one.place for one in self.dossier().place_coverage() if one.looked.value == "done"}
        self.assertEqual(looked, {"inside_front", "roof", "rear"})

    def test_what_was_entered_at_a_place_says_that_somebody_looked_there(self):
        looked = {one.place for one in self.dossier().place_coverage() if one.looked.value == "done"}
        self.assertEqual(looked, set())
        self.write("corner.brake", Brake(lining="half"), place="axle_front")
        self.write("function.tried", Tried(item="horn", result="works"))
        self.write("general.seen", Seen(text="clean"), place="bay")
        self.write("general.limit", Limit(station="general", because="locked"), place="boot")
        self.write("under.zone", UnderZone(zone="tank", not_visible="covered"))
        looked = {one.place for one in self.dossier().place_coverage() if one.looked.value == "done"}
        self.assertEqual(looked, {"front_corner_left", "front_corner_right", "inside_front", "bay"})

    def test_an_axle_stands_for_its_corners_and_a_wheel_said_later_for_itself(self):
        self.write("corner.gear", Gear(part="damper", grade="sound"), place="wheels")
        self.write("corner.gear", Gear(part="damper", grade="failing"), place="wheel_rear_left")
        grades = {key: seen.body.grade.value for key, seen in self.dossier().corners.gear.items()}
        self.assertEqual(grades["damper:rear_left"], "failing")
        self.assertEqual([grades[f"damper:{wheel.removeprefix('wheel_')}"] for wheel in WHEELS[:2]], ["sound", "sound"])
        self.assertEqual({seen.place for seen in self.dossier().corners.gear.values()}, set(WHEELS))
