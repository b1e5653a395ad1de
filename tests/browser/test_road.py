"""The road as it is done: before and after the drive at a stop, big answers by a passenger, a record, hubs."""

import tempfile
from pathlib import Path

import numpy as np

from tests.browser.case import BrowserCase


class OnThePhone(BrowserCase):
    width, height = 390, 844

    def go(self, here, room):
        self.open(f"{here}/road/{room}")
        self.wait(lambda: self.all("html[data-ready=road]"))

    def test_a_drive_from_before_to_after(self):
        here = self.new_inspection()
        self.go(here, "before")
        self.one("#b-insurance").send_keys("no")
        self.press("[data-entry='road.before'] [type=submit]")
        self.wait(lambda: "No test on public roads" in self.text("[data-fragment=road_before]"))
        self.press("[name=level][value=low]")
        self.one("#d-km_start").send_keys("81230")
        self.one("#d-km_end").send_keys("81220")
        self.press("[data-entry='road.drive'] [type=submit]")
        self.wait(lambda: "ran backwards" in self.text("[data-entry='road.drive']"))
        self.assertEqual(self.one("#d-km_end").get_property("value"), "81220")
        self.one("#d-km_end").clear()
        self.one("#d-km_end").send_keys("81238")
        self.press("[name=level][value=low]")
        self.press("[data-entry='road.drive'] [type=submit]")
        self.wait(lambda: "Low speed" in self.text("[data-fragment=road_before]"))
        self.go(here, "noticed")
        self.assertIn("Level reached: low speed", self.text("[data-fragment=road_noticed]"))
        self.assertTrue(all(one.size["height"] >= 56 for one in self.all("[data-sign]")))
        self.wait(lambda: not self.one("#n-gear").is_displayed())
        self.one("#n-sign").send_keys("rumble")
        self.wait(lambda: self.one("#n-place").is_displayed() and not self.one("#n-ways").is_displayed())
        self.press("[data-sign=pulls]")
        self.wait(lambda: "one direction only" in self.text("[data-fragment=road_found]"))
        self.press("[data-rest-of=braking]")
        self.wait(lambda: "Nothing noticed on the road ✓" in self.text("[data-fragment=road_noticed]"))
        self.go(here, "after")
        self.one("#wheel_front_left-temp_c").send_keys("95")
        self.press("[data-place=wheel_front_left] [type=submit]")
        self.wait(lambda: "the other side is missing" in self.text("[data-fragment=road_after]"))
        self.one("#wheel_front_right-temp_c").send_keys("50")
        self.press("[data-place=wheel_front_right] [type=submit]")
        self.wait(lambda: "much hotter" in self.text("[data-fragment=road_found]").lower())
        self.assertLessEqual(self.driver.execute_script("return document.documentElement.scrollWidth"), self.width)


class AtTheDesk(BrowserCase):
    def test_a_record_is_picked_and_a_bad_one_keeps_what_was_typed(self):
        here = self.new_inspection()
        self.open(f"{here}/road/measured")
        self.wait(lambda: self.all("html[data-ready=road]"))
        with tempfile.TemporaryDirectory() as directory:
            bad, good = Path(directory) / "bad.csv", Path(directory) / "good.csv"
            bad.write_text("t,ax\n0,1\n")
            t = np.arange(0, 10, 0.01)
            rows = [f"{at:.2f},{np.sin(2 * np.pi * 12.5 * at):.4f},0,9.81" for at in t]
            good.write_text("t,ax,ay,az\n" + "\n".join(rows))
            self.one("#v-file").send_keys(str(bad))
            self.one("#v-kmh").send_keys("90")
            self.one("#v-rolling_m").clear()
            self.one("#v-rolling_m").send_keys("2,0")
            self.press("#vibration [type=submit]")
            self.wait(lambda: "no column ay" in self.text("#vibration"))
            self.assertEqual(self.one("#v-kmh").get_property("value"), "90")
            self.one("#v-file").send_keys(str(good))
            self.press("#vibration [type=submit]")
            self.wait(lambda: "tyre, first order" in self.text("#records"))
        self.assertTrue(self.all("#records svg[role=img]"))
        self.press("#records [data-strike]")
        self.wait(lambda: "first order" not in self.text("#records"))
