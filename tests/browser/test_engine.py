"""The engine run as it is noted: start, readings by keyboard, minutes counted, heat that stands down."""

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase


class Run(BrowserCase):
    width, height = 390, 844

    def station(self):
        here = self.new_inspection()
        self.open(f"{here}/engine/run")
        self.wait(lambda: self.all("html[data-ready=engine]"))

    def reading(self, minute, coolant):
        if minute is not None:
            self.one("#e-minute").send_keys(str(minute))
        self.one("#e-coolant_c").send_keys(str(coolant), Keys.ENTER)
        self.wait(lambda: self.one("#e-coolant_c").get_property("value") == "")
        self.wait_saved()

    def test_a_reading_needs_a_start_or_a_minute_and_then_only_its_digits(self):
        self.station()
        self.one("#e-coolant_c").send_keys("20", Keys.ENTER)
        self.wait(lambda: "note the first start" in self.text("[data-entry='engine.sample'] [data-said]"))
        self.assertEqual(self.one("#e-coolant_c").get_property("value"), "20")
        self.one("#e-coolant_c").clear()
        self.one("#s-cranking_s").send_keys("1.5", Keys.ENTER)
        self.wait(lambda: "Cranked 1.5 s" in self.text("[data-fragment=engine_run]"))
        self.reading(None, 21)
        self.wait(lambda: "Minute 0" in self.text("[data-fragment=engine_run]"))
        for minute, coolant in ((5, 60), (10, 95), (14, 112), (15, 119)):
            self.reading(minute, coolant)
        self.wait(lambda: "Stand-down: coolant at 118 °C or more" in self.text("[data-fragment=standing]"))
        self.assertIn("Stop the engine", self.text("[data-fragment=engine_run] h2"))
