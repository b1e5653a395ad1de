import tempfile
from pathlib import Path

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase
from tests.exchange.test_film_csv import HEADER

SURVEY = {
    "ro": "118 121 117 119",
    "bo": "116 119 120",
    "fwl": "231 244 226 238 219",
    "fdl": "117 115 119",
    "rdl": "120 118 116",
    "rql": "119 121 117",
    "tg": "118 116 121",
    "rqr": "117 120 118",
    "fdr": "119 118 116",
}


class Newcomer(BrowserCase):
    """One newcomer, from an empty day to the report, in the order a user goes."""

    def test_the_whole_way(self):
        self.open("/")
        self.assertIn("Begin an inspection", self.text("main"))
        self.one("a[href='/inspections/new']").click()
        here = self.new_inspection("Skarrow Fell 4×4", buyer="Heugh Light Trust")
        self.key_in_thirty_readings()
        self.the_repainted_panel_is_flagged()
        self.strike_a_reading()
        self.import_a_file_with_two_bad_rows(here)
        self.open(f"{here}/report")
        found = self.text("article")
        self.assertIn("Front wing, left: ", found)
        self.assertIn("refinish", found)
        self.assertIn("Front bumper: plastic", found)
        self.open(f"{here}/logbook")
        self.assertEqual(len(self.all("tbody s")), 1)

    def key_in_thirty_readings(self):
        for code, numbers in SURVEY.items():
            self.type_line(f"{code} {numbers}")
        self.assertEqual(sum(len(n.split()) for n in SURVEY.values()), 30)
        self.assertIn("30 readings", self.text("[data-fragment=left]"))
        self.assertEqual(self.count_on("roof"), "4/3")

    def the_repainted_panel_is_flagged(self):
        self.type_line("fwl")
        self.wait(lambda: self.text("[data-current-name]") == "Front wing, left")
        self.wait(lambda: "refinish" in self.text("[data-fragment=glance]"))
        why = self.text("[data-fragment=panel]")
        self.assertIn("5 of 5 readings", why)
        self.assertIn("over this car’s baseline", why)

    def strike_a_reading(self):
        self.one("[data-fragment=panel] [data-strike]").click()
        self.wait(lambda: "4/3" in self.text("[data-current-count]"))
        self.assertIn("Taken back: 231 µm", self.text("[data-said]"))

    def import_a_file_with_two_bad_rows(self, here):
        rows = "s,sill_left,,,121,um,ok,steel,factory,1500,1\ns,hood,,,1,um,ok,steel,factory,,\n"
        rows += "s,sill_left,,,12x,um,ok,steel,factory,,\ns,sill_left,,,118,um,ok,steel,factory,1500,1\n"
        self.one("a[href='film/import']").click()
        with tempfile.NamedTemporaryFile("w", suffix=".csv") as file:
            Path(file.name).write_text(HEADER + rows)
            self.one("#file").send_keys(file.name)
            self.one("[data-drop] button").click()
            # The browser reads the file while it sends the form: it must be there until the answer is.
            self.wait(lambda: self.all("#bad-rows td"))
        cells = self.texts("#bad-rows td")
        self.assertEqual(cells[:4], ["3", "panel", "hood", "not a panel name"])
        self.assertEqual(cells[4:], ["4", "reading", "12x", "not a number"])
        self.driver.find_element(By.XPATH, "//button[contains(., 'Store 2 readings')]").click()
        self.wait(lambda: "There are bad rows" in self.text("main"))
        self.one("[name=accept_clean]").send_keys(Keys.SPACE)
        self.driver.find_element(By.XPATH, "//button[contains(., 'Store 2 readings')]").click()
        self.wait(lambda: self.all("html[data-ready=film]"))
        self.assertEqual(self.count_on("sill_left"), "2/2")
        self.assertTrue(self.driver.current_url.endswith(f"{here}/film") or "?panel=" in self.driver.current_url)
