from uuid import uuid4

from hakutsu.entries.corners import Brake, Fluid, Gear, Height, Pedal, Tyre, Wheel
from hakutsu.entries.money import MechanicsSaid
from hakutsu.entries.settings import Overrides
from tests.builders import NOON
from tests.web.case import RoundCase

FL, FR = "wheel_front_left", "wheel_front_right"


class CornerStation(RoundCase):
    def page(self, at=""):
        answer = self.client.get(f"{self.here}/corners", params={"at": at})
        self.assertEqual(answer.status_code, 200)
        return answer.text

    def fragments(self):
        return self.client.get(f"{self.here}/fragments?view=corners").json()

    def test_it_stands_empty_with_four_corners_the_spare_and_the_whole(self):
        text = self.page()
        self.assertEqual(text.count('data-corner="wheel_'), 5)
        self.assertEqual(text.count("Tread not measured"), 10)  # its title and its label
        self.assertIn("Nothing out of line between the corners", text)
        self.assertIn(f'data-corner="{FR}" data-shown', self.page(FR))
        self.assertIn(f'data-corner="{FL}" data-shown', self.page("nonsense"))

    def test_a_tyre_is_drawn_reckoned_and_kept_in_its_form(self):
        self.write("corner.tyre", Tyre(depth_mm=(3.1, 4.6, 4.8), date_code="3222", size="205/55 R16 91V"), place=FL)
        text = self.page()
        for said in ("Inner shoulder worn", "second place round the tyre", "Lowest 3.1 mm", "km left", "4.3 years old"):
            self.assertIn(said, text)
        self.assertIn('value="3.1" data-kept="3.1"', text)
        self.assertIn('value="205/55 R16 91V"', text)

    def test_brakes_gear_and_heights_are_told_at_their_corner_and_axle(self):
        self.write("corner.brake", Brake(pad_inner_mm=4.0, disc_mm=(24.0,), hose="hard"), place=FL)
        self.write("corner.brake", Brake(pad_inner_mm=7.0), place=FR)
        self.write("corner.gear", Gear(part="damper", grade="failing", tested="by hand"), place=FL)
        self.write("corner.wheel", Wheel(fixings_missing=2, lock_key=False, liner="torn"), place=FL)
        self.write("corner.height", Height(height_mm=340), place=FL)
        self.write("corner.height", Height(height_mm=360), place=FR)
        found = self.fragments()
        here = found[f"said_{FL}"]
        for said in ("No minimum noted", "Brake hose hardened", "Damper failing", "2 wheel fixings missing",
                     "Key of the lock nuts not found", "Inner arch: torn or loose"):  # fmt: skip
            self.assertIn(said, here)
        self.assertIn("Left pads 3 mm thinner", found["said_whole"])
        self.assertIn("20 mm lower on the left", found["said_whole"])
        self.assertNotIn("Damper", found[f"said_{FR}"])

    def test_a_stand_down_is_raised_shown_and_named_by_its_wheel(self):
        self.write("corner.tyre", Tyre(damage=("bulge",)), place=FL)
        self.assertIn("tyre with bulge, visible cord or ply, or a cut reaching the ply, Front wheel, left", self.page())
        self.assertIn("Stand-down", self.fragments()["standing"])
        self.assertIn("1 stand-down", self.fragments()["rail"])
        self.assertIn("tyre with bulge", self.client.get(f"{self.here}/report").text)

    def test_fluid_and_pedal_make_one_story_with_a_wet_pipe(self):
        self.write("corner.brake", Brake(wet=True), place=FL)
        self.write("corner.pedal", Pedal(low=True))
        self.write("corner.fluid", Fluid(kind="dot4", water_percent=3.4))
        whole = self.fragments()["said_whole"]
        self.assertIn("fluid is lost", whole)
        self.assertIn("wet at Front wheel, left", whole)
        self.assertIn("3.4 % water in the brake fluid: change", whole)

    def test_what_the_vehicle_has_decides_what_is_asked_for(self):
        facts = {"drive": "front", "rear_axle": "beam", "rear_brakes": "drums"}
        self.write("inspection.mechanics", MechanicsSaid(mechanics=facts))
        text = self.page()
        rear = text[text.index('data-corner="wheel_rear_left"') : text.index('data-corner="wheel_rear_right"')]
        front = text[text.index(f'data-corner="{FL}"') : text.index(f'data-corner="{FR}"')]
        self.assertIn('value="shaft_boots"', front)
        self.assertNotIn('value="shaft_boots"', rear)
        self.assertNotIn('value="link"', rear)
        self.assertIn("Drum diameter", rear)
        self.assertNotIn("Pad inner", rear)

    def test_units_and_words_follow_the_settings(self):
        self.write("corner.tyre", Tyre(depth_mm=(4.0,), pressure_bar=2.2), place=FL)
        self.write("inspection.settings", Overrides(depth="in32", pressure="psi", names="american", distance="mi"))
        text = self.page()
        self.assertIn("Lowest 5/32 in", text)
        self.assertIn('value="5" data-kept="4.0"', text)
        self.assertIn('value="32" data-kept="2.2"', text)
        self.assertIn("mi left", text)
        self.assertIn("Save tire", text)

    def test_the_place_sheet_asks_for_it_and_leads_there(self):
        text = self.client.get(f"{self.here}/place/front_corner_left").text
        leads = f"{self.here}/corners?at={FL}#{FL}-tyre"
        for words in ("Tyres: Front wheel, left", "Brakes: Front brake, left", leads):
            self.assertIn(words, text)
        open_before = self.place("front_corner_left").open
        self.write("corner.tyre", Tyre(depth_mm=(4.0,)), place=FL)
        self.assertEqual(self.place("front_corner_left").open, open_before - 2)  # the tyre, and the look at the place

    def test_the_report_tells_and_draws_what_was_seen_and_nothing_else(self):
        self.assertNotIn("The corners", self.client.get(f"{self.here}/report").text)
        self.write("corner.tyre", Tyre(depth_mm=(2.5,), note="<b>kerbed</b>"), place=FL)
        self.write("corner.wheel", Wheel(spare="kit"), place="wheel_spare")
        text = self.client.get(f"{self.here}/report").text
        wanted = ("The corners", "Front wheel, left", "Below the advised 3 mm", "sealing kit", "Due dates")
        for said in (*wanted, "&lt;b&gt;kerbed"):
            self.assertIn(said, text)
        self.assertNotIn("Rear wheel, left</h3>", text)

    def test_bad_numbers_are_refused_with_the_field(self):
        wrong = [("corner.tyre", {"depth_mm": [4, 30]}), ("corner.brake", {"pad_inner_mm": -1}),
                 ("corner.tyre", {"date_code": "99999"})]  # fmt: skip
        shared = {"at": NOON.isoformat(), "place": FL}
        drafts = [{"id": str(uuid4()), "kind": kind, "body": body, **shared} for kind, body in wrong]
        reply = self.client.post(f"{self.here}/entries", json={"entries": drafts}).json()
        self.assertEqual([one["field"] for one in reply["refused"]], ["depth_mm.1", "pad_inner_mm", "date_code"])
        self.assertIn("less than or equal to 25", reply["refused"][0]["message"])
