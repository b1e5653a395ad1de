"""The scan as it is done: practise on the stand-in, watch, go on meanwhile; lamp, number, a reader's result by hand."""

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase


class Scan(BrowserCase):
    width, height = 390, 844

    def test_a_sweep_is_watched_and_told_and_the_forms_note_what_was_seen(self):
        here = self.new_inspection()
        self.open(f"{here}/scan")
        self.wait(lambda: self.all("html[data-ready=scan]"))
        self.assertTrue(all(one.size["height"] >= 44 for one in self.all("[data-sweep] .button") if one.is_displayed()))
        self.press("#practise > summary")
        self.one("#s-scenario").send_keys("misfire")
        self.press("[data-practise]")
        self.wait(lambda: "units read" in self.text("[data-doing]") or self.all("[data-stop]:not([hidden])"))
        self.assertIn("Carry on with other steps", self.text("[data-meanwhile]"))
        self.wait(lambda: "cylinder 1 misses" in self.text("[data-fragment=scan_units]"), seconds=40)
        self.assertIn("Simulated", self.text("[data-fragment=scan_found]"))
        self.one("#l-running").send_keys("dark")
        self.press("[data-entry='scan.lamp'] [type=submit]")
        self.wait(lambda: "switched on by its unit and stays dark" in self.text("[data-fragment=scan_found]"))
        self.one("#p-vin").send_keys("0rn1skarrw2000452", Keys.ENTER)
        self.wait(lambda: "names another vehicle" in self.text("[data-fragment=scan_found]"))
        self.assertLessEqual(self.driver.execute_script("return document.documentElement.scrollWidth"), self.width)

    def test_a_readers_result_by_hand_and_a_bad_code_keeps_what_was_typed(self):
        here = self.new_inspection()
        self.open(f"{here}/scan")
        self.wait(lambda: self.all("html[data-ready=scan]"))
        self.press("#by-hand > summary")
        self.one("#h-module").send_keys("seat")
        self.one("#h-codes").send_keys("B99", Keys.ENTER)
        self.wait(lambda: self.all("[role=alert]"))
        self.assertEqual(self.one("#h-codes").get_attribute("value"), "B99")
        self.one("#h-codes").clear()
        self.one("#h-count").send_keys("3", Keys.ENTER)
        self.wait(lambda: "Seat: 3 stored" in self.text("[data-fragment=scan_noted]"))
        self.press("[data-fragment=scan_noted] [data-strike]")
        self.wait(lambda: not self.text("[data-fragment=scan_noted]").strip())

    def test_nobody_answers(self):
        here = self.new_inspection()
        self.open(f"{here}/scan")
        self.wait(lambda: self.all("html[data-ready=scan]"))
        self.press("#practise > summary")
        self.one("#s-scenario").send_keys("no link")
        self.press("[data-practise]")
        self.wait(lambda: "no control unit answers" in self.text("[data-sweep] [data-said]"), seconds=30)
        self.one("#n-why").send_keys("no link on this vehicle")
        self.press("[data-entry='scan.none'] [type=submit]")
        self.wait(lambda: "no link on this vehicle" in self.text("[data-fragment=scan_noted]"))
