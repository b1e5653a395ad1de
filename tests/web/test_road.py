"""The road station over HTTP: what blocks it, a drive, what was noticed and measured, and where it arrives."""

from io import BytesIO
from uuid import uuid4

import numpy as np

from hakutsu.entries.corners import Gear
from hakutsu.entries.functions import Tried
from hakutsu.entries.general import AskSeller
from hakutsu.entries.road import Before, ClutchTried, DriveDone, HubRead, Noticed, RestFine
from hakutsu.reckoning.road import RoadReckoned
from tests.builders import NOON
from tests.web.case import RoundCase


def csv_of(hz, lasts=12, rate=100):
    t = np.arange(0, lasts, 1 / rate)
    noise = np.random.default_rng(1).normal(0, 0.05, t.size)
    rows = [f"{at:.3f},{0.3 * np.sin(2 * np.pi * hz * at) + one:.5f},0,9.81" for at, one in zip(t, noise, strict=True)]
    return ("t,ax,ay,az\n" + "\n".join(rows)).encode()


class Road(RoundCase):
    def reckoned(self):
        return self.client.app.state.desk.reckoning(self.inspection)

    def room(self, name):
        return self.client.get(f"{self.here}/road/{name}").text

    def upload(self, data, **form):
        form = {"kmh": "90", "rolling_m": "2", **form}
        files = {"file": ("floor.csv", BytesIO(data), "text/csv")}
        return self.client.post(f"{self.here}/road/vibration", data=form, files=files)

    def test_what_is_missing_blocks_the_road_and_says_why(self):
        self.assertIn("Nobody has said yet", self.room("before"))
        self.write("road.before", Before(permission="yes", insurance="no"))
        text = self.room("before")
        self.assertIn("No test on public roads", text)
        self.assertIn("insurance", text)

    def test_a_drive_bounds_what_follows_and_reaches_sheet_life_and_report(self):
        self.write("road.drive", DriveDone(level="yard", drove="seller", heard="passenger", ended=["surface"]))
        self.write("road.noticed", Noticed(sign="rumbles_turning", side="left"), place="wheel_front_right")
        self.write("road.rest", RestFine(subject="braking"))
        report = self.client.get(f"{self.here}/report").text
        for words in ("driven by the seller", "rumble that grows when turning one way", "Not reached", "Not said"):
            self.assertIn(words, report)
        self.assertIn("rumble", self.client.get(f"{self.here}/life/sheet").text)
        grades = self.reckoned().condition.grades
        self.assertEqual(grades["wheel_bearing:front_right"], "failing")
        self.assertIn(f"{self.here}/road/noticed", self.client.get("/search?q=rumble").text)

    def test_a_side_alone_names_no_wheel(self):
        self.write("road.drive", DriveDone(level="normal"))
        self.write("road.noticed", Noticed(sign="rumbles_turning", side="left"))
        self.assertFalse([key for key in self.reckoned().condition.grades if key.startswith("wheel_bearing")])

    def test_lamps_that_are_missing_are_said_to_be_what_is_missing(self):
        self.write("road.before", Before(lamps="no"))
        self.assertEqual([one.cause.key for one in self.reckoned().stand_downs], ["no_lamps"])
        self.assertIn("lamps, horn, indicators or wipers", self.room("before"))

    def test_what_flipped_and_what_to_ask_come_up_before_leaving_the_seat(self):
        for result in ("works", "fails"):
            self.write("function.tried", Tried(item="horn", result=result))
        self.write("general.ask_seller", AskSeller(question="who drove it last winter"), place="inside_front")
        text = self.room("noticed")
        self.assertIn("try once more: horn", text)
        self.assertIn("who drove it last winter", text)
        self.assertIn("Add a sound", text)

    def test_what_is_left_after_the_drive_can_ring(self):
        self.write("road.drive", DriveDone(level="low"))
        self.assertIn("Ring in 10", self.room("after"))
        form = {"label": "levels", "minutes": "10"}
        self.assertEqual(self.client.post(f"{self.here}/timers/start", data=form).status_code, 200)
        self.assertIn("levels", self.client.get(f"{self.here}/road/after").text)

    def test_a_tap_and_its_form_are_one_finding(self):
        self.write("road.noticed", Noticed(sign="pulls"))
        self.write("road.noticed", Noticed(sign="pulls", side="left", ways="both"))
        told = self.reckoned().findings_of("road")
        self.assertEqual(len(told), 1)
        self.assertNotIn("one direction", told[0].open.why)

    def test_a_grade_by_hand_goes_before_what_the_road_says(self):
        self.write("road.drive", DriveDone(level="normal"))
        self.write("road.noticed", Noticed(sign="rumbles_turning", side="left"))
        self.write("corner.gear", Gear(part="wheel_bearing", grade="sound"), place="wheel_front_right")
        self.assertEqual(self.reckoned().condition.grades["wheel_bearing:front_right"], "sound")

    def test_what_was_fine_at_a_level_that_shows_it_is_sound_and_a_later_drive_says_nothing_of_it(self):
        self.write("road.rest", RestFine(subject="power"))
        self.write("road.drive", DriveDone(level="low"))
        self.assertNotIn("turbo", self.reckoned().condition.grades)
        self.write("road.drive", DriveDone(level="normal"))
        self.assertNotIn("turbo", self.reckoned().condition.grades)
        self.assertIn("Power (low speed", self.client.get(f"{self.here}/report").text)
        self.write("road.rest", RestFine(subject="power"))
        self.assertEqual(self.reckoned().condition.grades["turbo"], "sound")

    def test_between_two_drives_the_lower_level_counts(self):
        self.write("road.drive", DriveDone(level="low"))
        self.write("road.rest", RestFine(subject="power"))
        self.write("road.drive", DriveDone(level="normal"))
        self.assertNotIn("turbo", self.reckoned().condition.grades)

    def test_our_own_mis_shift_counts_for_nothing(self):
        self.write("road.noticed", Noticed(sign="crunches"), own_doing=True)
        told = self.reckoned().findings_of("road")
        self.assertEqual([one.excused for one in told], ["own_doing"])

    def test_a_slipping_clutch_is_settled_and_graded(self):
        self.write("road.clutch", ClutchTried(bites=0.8, slip="slips"))
        self.assertIn("clutch slips", self.client.get(f"{self.here}/life/sheet").text.lower())
        self.assertEqual(self.reckoned().condition.grades["clutch"], "failed")

    def test_after_the_drive_a_list_stands_and_hubs_tick_it(self):
        self.assertIn("Once a drive is saved", self.room("after"))
        self.write("road.drive", DriveDone(level="normal"))
        self.assertIn("restart, hot", self.room("after").lower())
        self.write("road.hub", HubRead(temp_c=90), place="wheel_front_left")
        self.write("road.hub", HubRead(temp_c=40), place="wheel_front_right")
        self.assertIn("differ", self.room("after"))
        done = {one.words: one.done for one in self.reckoned().station(RoadReckoned).after}
        self.assertTrue(done["hubs of the front axle, within two minutes"])
        self.assertIn("hotter after the drive", self.client.get(f"{self.here}/report").text)

    def test_a_record_is_matched_kept_and_drawn(self):
        answer = self.upload(csv_of(12.5))
        self.assertEqual(answer.status_code, 200)
        self.assertIn("tyre, first order", answer.text)
        self.assertIn("Spectrum, peaks at 12.5 Hz", answer.text)
        self.assertIn("fits a wheel or tyre", self.client.get(f"{self.here}/report").text)

    def test_a_record_of_nothing_finds_nothing(self):
        flat = b"t,ax,ay,az\n" + b"".join(b"%.2f,0,0,9.81\n" % (0.01 * i) for i in range(1500))
        self.assertIn("no tone", self.upload(flat).text)
        self.assertEqual(self.reckoned().findings_of("road"), [])

    def test_bad_files_and_figures_are_said_at_the_place_and_nothing_is_kept(self):
        for data, form, words in (
            (b"t,ax\n0,1\n", {}, "no column ay"),
            (b"t,ax,ay,az\n0,x,0,0\n", {}, "row 2, ax"),
            (b"", {}, "Pick a file first"),
            (csv_of(12.5), {"kmh": "fast"}, "“fast” is no number"),
            (csv_of(12.5), {"kmh": "400"}, "between 1 and 300"),
            (csv_of(12.5), {"rolling_m": ""}, "rolling circumference is needed"),
        ):
            with self.subTest(words):
                answer = self.upload(data, **form)
                self.assertEqual(answer.status_code, 422)
                self.assertIn(words, answer.text)
        self.assertEqual(self.reckoned().station(RoadReckoned).measurements, [])

    def test_an_upload_is_the_only_way_a_match_comes_in(self):
        body = {"kmh": 90, "rolling_m": 2, "rate_hz": 100, "usable_hz": 45, "none": 0.1}
        one = {"id": str(uuid4()), "at": NOON.isoformat(), "version": 1, "kind": "road.vibration", "body": body}
        accept = {"accept": "application/json"}
        answer = self.client.post(f"{self.here}/entries", json={"entries": [one]}, headers=accept).json()
        self.assertFalse(answer["acknowledged"])
