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

    def test_a_reading_may_stand_without_a_minute_and_then_needs_only_its_digits(self):
        self.station()
        self.one("#e-coolant_c").send_keys("20", Keys.ENTER)
        self.wait(lambda: "Coolant 20 °C" in self.text("[data-fragment=engine_run]"))
        self.assertNotIn("Minute 0", self.text("[data-fragment=engine_run]"))
        self.wait_saved()
        self.one("#s-cranking_s").send_keys("1.5", Keys.ENTER)
        self.wait(lambda: "Cranked 1.5 s" in self.text("[data-fragment=engine_run]"))
        self.reading(None, 21)
        self.wait(lambda: "Minute 0" in self.text("[data-fragment=engine_run]"))
        said = "[data-entry='engine.sample'] .field-fault"
        self.one("#e-minute").send_keys("5")
        self.one("#e-coolant_c").send_keys("60", Keys.ENTER)
        self.wait(lambda: "minute 5 is still to come" in self.text(said))
        self.assertEqual(self.driver.switch_to.active_element.get_property("id"), "e-minute")
        self.assertEqual(self.one("#e-minute").get_attribute("aria-invalid"), "true")
        self.assertNotIn("Minute 5", self.text("[data-fragment=engine_run]"))
        self.one("#e-coolant_c").send_keys(Keys.ENTER)
        self.wait(lambda: "Minute 5" in self.text("[data-fragment=engine_run]"))
        self.wait_saved()
        for minute, coolant in ((10, 95), (14, 113), (15, 119)):
            self.reading(minute, coolant)
        self.wait(lambda: "Stand-down: coolant at 118 °C or more" in self.text("[data-fragment=standing]"))
        self.assertIn("Stop the engine", self.text("[data-fragment=engine_run] h2"))

    def test_a_reading_in_another_unit_is_asked_about_and_mended(self):
        self.station()
        self.one("#s-cranking_s").send_keys("1", Keys.ENTER)
        self.reading(0, 20)
        said = "[data-entry='engine.sample'] .field-fault"
        self.one("#e-minute").send_keys("1")
        self.one("#e-coolant_c").send_keys("79", Keys.ENTER)
        self.wait(lambda: "typed in Fahrenheit?" in self.text(said))
        self.one("#e-coolant_c").clear()
        self.one("#e-coolant_c").send_keys("26", Keys.ENTER)
        self.wait(lambda: "Minute 1, coolant 26 °C" in self.text("[data-fragment=engine_run]"))
        self.assertNotIn("79", self.text("[data-fragment=engine_run]"))

    def test_what_is_typed_on_while_the_server_is_asked_stays(self):
        self.station()
        self.one("#s-cranking_s").send_keys("1", Keys.ENTER)
        self.reading(0, 20)
        slow = """const real = window.fetch; window.fetch = async (...all) => {
            if (String(all[0]).endsWith("/doubts")) await new Promise((on) => setTimeout(on, 600));
            return real(...all); };"""
        self.driver.execute_script(slow)
        self.one("#e-minute").send_keys("1")
        self.one("#e-coolant_c").send_keys("27", Keys.ENTER)
        self.one("#e-minute").clear()
        self.one("#e-minute").send_keys("2")
        self.wait(lambda: "Minute 1, coolant 27 °C" in self.text("[data-fragment=engine_run]"))
        self.assertEqual(self.one("#e-minute").get_property("value"), "2")
        self.assertEqual(self.one("#e-coolant_c").get_property("value"), "")

    def test_a_stopwatch_fills_the_seconds(self):
        self.station()
        self.press("[data-entry='engine.start'] [data-watch=noise_s]")
        self.wait(lambda: float(self.one("#s-noise_s").get_property("value") or 0) > 0.2)
        self.press("[data-entry='engine.start'] [data-watch=noise_s]")
        held = self.one("#s-noise_s").get_property("value")
        self.one("#s-noise").send_keys("rattle", Keys.ENTER)
        self.wait(lambda: f"Rattle, for {float(held):g} s" in self.text("[data-fragment=engine_run]"))

    def test_the_link_fills_the_run_by_itself(self):
        self.station()
        self.driver.execute_script("document.querySelector('#link-more').open = true")
        for name, value in (("engine", "stuck_open"), ("fast", "60")):
            self.driver.execute_script(f"document.querySelector('[data-link]').elements.{name}.value = '{value}'")
        self.press("[data-link] [type=submit]")
        self.wait(lambda: "Stand-in open: minute" in self.text("[data-live]"))
        self.wait(lambda: "rpm, by link" in self.text("[data-fragment=engine_run]"))
        self.press("[data-idle]")
        self.wait(lambda: "speed 1" in self.text("[data-live]"))
        self.press("[data-close]")
        self.wait(lambda: self.text("[data-live]") == "")
        self.one("#n-url").send_keys("socket://127.0.0.1:1")
        self.press("[data-link] [type=submit]")
        self.wait(lambda: "no adapter at socket://127.0.0.1:1" in self.text("[data-link] [data-said]"))

    def test_grades_under_the_bonnet_take_one_tap(self):
        here = self.new_inspection()
        self.open(f"{here}/engine/bay")
        self.wait(lambda: self.all("html[data-ready=engine]"))
        self.press("[data-gear=coolant_hoses][data-grade=failing]")
        self.wait(lambda: "Coolant hoses: failing" in self.text("[data-fragment=engine_bay]"))
        self.driver.execute_script("document.querySelector('[value=\"pulley\"]').click()")
        self.press("[data-entry='engine.bay'] [type=submit]")
        self.wait(lambda: "its belt will go" in self.text("[data-fragment=engine_bay]"))
        self.wait(lambda: "Auxiliary belt: failing" in self.text("[data-fragment=engine_bay]"))
