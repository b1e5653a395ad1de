"""Service papers and the variant in the browser: by keyboard at the desk, by taps on a telephone."""

import json
import tempfile
from pathlib import Path

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase

LIBRARY = {"version": 1, "variants": {"strand": {"name": "Velmora Strand", "features": [
    {"key": "stamp", "name": "engine stamp", "expected": "H18E", "weight": "stamp"}],
    "weak": [{"key": "drain", "name": "drain blocks", "place": "boot"}],
    "plan": [{"item": "engine_oil", "km": 30000, "months": 24}]}}}  # fmt: skip


class AtTheDesk(BrowserCase):
    def go(self, address, ready):
        self.open(address)
        self.wait(lambda: self.all(f"html[data-ready={ready}]"))

    def test_stamps_in_a_row_and_a_bad_day_stays_in_its_form(self):
        here = self.new_inspection()
        self.go(f"{here}/service/plan", "service")
        for on, km in (("2019-05-03", "15000"), ("2020-05-03", "30000")):
            self.one("#s-on").send_keys(on)
            self.one("[data-entry='service.done'] [name=whole]").send_keys(Keys.SPACE)
            self.one("#s-at_km").send_keys(km, Keys.ENTER)
            self.wait(lambda: self.one("#s-at_km").get_property("value") == "")
        self.wait(lambda: len(self.all("[data-fragment=service_plan] svg circle")) >= 2)
        self.one("#s-on").send_keys("2020-02-30", Keys.ENTER)
        self.wait(lambda: "no day of any calendar" in self.text("[data-entry='service.done']"))
        self.assertEqual(self.one("#s-on").get_property("value"), "2020-02-30")
        self.go(f"{here}/service/owners", "service")
        self.one("#k-there").send_keys("1", Keys.ENTER)
        self.wait(lambda: "one key only" in self.text("[data-fragment=service_found]").lower())

    def test_a_library_is_taken_in_and_a_variant_tapped_through(self):
        here = self.new_inspection()
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "library.json"
            file.write_text(json.dumps(LIBRARY))
            self.open("/library")
            self.one("#l-file").send_keys(str(file))
            self.press("form[action='/library'] [type=submit]")
            self.wait(lambda: "1 variant taken in" in self.text("main"))
        self.go(f"{here}/variant", "variant")
        self.one("#v-key").send_keys("Velmora")
        self.press("form[action='variant/taken'] [type=submit]")
        self.wait(lambda: self.all("[data-feature=stamp]"))
        self.assertTrue(all(one.size["height"] >= 44 for one in self.all("[data-feature]")))
        self.press("[data-feature=stamp][data-result=disagrees]")
        self.wait(lambda: "features disagree" in self.text("[data-fragment=variant_found]").lower())
        self.press("[data-weak=drain][data-result=found]")
        self.wait(lambda: "drain blocks" in self.text("[data-fragment=variant_found]").lower())
