"""A film survey typed as fast as a driver can: every reading on the panel that was shown, none glued to the next."""

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase

PANELS = 15
EACH = 4


class FastTyping(BrowserCase):
    def stored(self, here):
        script = "return fetch(arguments[0]).then((answer) => answer.json())"
        entries = self.driver.execute_script(script, f"{here}/entries")
        return [(e["place"], e["body"]["value_um"]) for e in entries if e["kind"] == "film.reading"]

    def survey(self, here):
        """Four numbers on each of fifteen panels, never pausing; what they must become."""
        keys = self.driver.execute_script(
            "const { config } = document.querySelector('[data-film-station]').dataset;"
            "return JSON.parse(config).panels.map((one) => one.key)"
        )
        start = self.driver.execute_script("return document.querySelector('[data-now]').dataset.panel")
        at = keys.index(start)
        line, wanted = self.one("#line"), []
        for panel in range(PANELS):
            values = [101 + EACH * panel + i for i in range(EACH)]
            line.send_keys("".join(f"{value}{Keys.ENTER}" for value in values), Keys.ARROW_DOWN)
            wanted += [(keys[(at + panel) % len(keys)], value) for value in values]
        self.wait_saved()
        self.wait(lambda: len(self.stored(here)) >= len(wanted), f"{len(self.stored(here))} of {len(wanted)} stored")
        return wanted

    def test_sixty_readings_over_fifteen_panels_are_all_where_they_belong(self):
        here = self.new_inspection()
        wanted = self.survey(here)
        self.assertEqual(self.stored(here), wanted)
        self.assertEqual(self.text("#aside-open"), "")

    def test_also_on_a_slow_processor(self):
        here = self.new_inspection()
        self.driver.execute_cdp_cmd("Emulation.setCPUThrottlingRate", {"rate": 6})
        self.addCleanup(self.driver.execute_cdp_cmd, "Emulation.setCPUThrottlingRate", {"rate": 1})
        self.assertEqual(self.stored(here), [])
        wanted = self.survey(here)
        self.assertEqual(self.stored(here), wanted)

    def test_all_of_it_in_one_burst_of_keys(self):
        here = self.new_inspection()
        numbers = [str(111 + i) for i in range(12)]
        self.one("#line").send_keys("".join(f"{number}{Keys.ENTER}" for number in numbers))
        self.wait_saved()
        self.assertEqual([value for _, value in self.stored(here)], [int(number) for number in numbers])

    def test_two_numbers_run_together_are_asked_about_and_nothing_else_waits(self):
        here = self.new_inspection()
        line = self.one("#line")
        line.send_keys("11811", Keys.ENTER, "119", Keys.ENTER)
        self.wait_saved()
        self.assertIn("two numbers run together", self.text("[data-question]"))
        self.assertEqual(self.stored(here), [("roof", 119)])
        line.send_keys(Keys.ESCAPE)
        self.assertEqual(line.get_property("value"), "11811")
        self.assertFalse(self.one("[data-question]").is_displayed())
