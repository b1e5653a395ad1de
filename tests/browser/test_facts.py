"""Key facts as they are asked at the start: a field that was left is saved, what follows is taken with a tap."""

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase


class KeyFacts(BrowserCase):
    width, height = 390, 844

    def test_fields_save_themselves_proposals_are_taken_and_lists_cleared(self):
        here = self.new_inspection()
        self.open(f"{here}/facts")
        self.wait(lambda: self.all("html[data-ready=facts]"))
        self.one("#k-first_used").send_keys("1950", Keys.TAB)
        self.one("#k-power").send_keys("petrol", Keys.TAB)
        self.wait(lambda: "Front brakes: drums" in self.text("[data-fragment=facts_proposed]"))
        self.press("[data-take=front_brakes]")
        self.wait(lambda: "Front brakes" not in self.text("[data-fragment=facts_proposed]"))
        self.assertEqual(self.one("#k-front_brakes").get_attribute("value"), "drums")
        self.press("[data-none='to try']")
        self.wait(lambda: "To try (" not in self.text("[data-fragment=facts_may_have]"))
        self.assertTrue(all(one.size["height"] >= 44 for one in self.all("main .button") if one.is_displayed()))
        self.assertLessEqual(self.driver.execute_script("return document.documentElement.scrollWidth"), self.width)

    def test_a_bad_value_is_told_at_its_field_and_stays(self):
        here = self.new_inspection()
        self.open(f"{here}/facts")
        self.wait(lambda: self.all("html[data-ready=facts]"))
        self.one("#k-first_used").send_keys("the fifties", Keys.TAB)
        self.wait(lambda: self.one("#k-first_used").get_attribute("aria-invalid") == "true")
        self.assertEqual(self.one("#k-first_used").get_attribute("value"), "the fifties")

    def test_a_second_source_is_kept_beside_the_first(self):
        here = self.new_inspection()
        self.open(f"{here}/facts")
        self.wait(lambda: self.all("html[data-ready=facts]"))
        self.one("#k-model").send_keys("Sund", Keys.TAB)
        self.wait(lambda: "Saved" in self.text("#facts [data-said]"))
        self.press("[data-beside]")
        self.one("#k-model").send_keys(Keys.CONTROL, "a")
        self.one("#k-model").send_keys("Carry", Keys.TAB)
        self.wait(lambda: "told in two ways" in self.text("[data-fragment=facts_differing]"))
