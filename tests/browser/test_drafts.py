"""What was typed into a form that goes to the server is not lost: kept on the device, restored, said so."""

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase


class Drafts(BrowserCase):
    def brief(self, here):
        self.open(f"{here}/vehicle")
        return self.one("#buyer")

    def test_text_left_behind_comes_back_and_can_be_dropped(self):
        here = self.new_inspection(km_per_year="12000")
        self.brief(here).send_keys("Ana Tressel")
        self.open(f"{here}/round")
        again = self.brief(here)
        self.wait(lambda: again.get_property("value") == "Ana Tressel")
        self.assertIn("was not saved; it is back", self.text("main form"))
        self.press("main form [role=status] button")
        self.assertEqual(self.one("#buyer").get_property("value"), "")
        self.open(f"{here}/vehicle")
        self.assertEqual(self.one("#buyer").get_property("value"), "")

    def test_without_a_server_the_page_stays_and_what_was_saved_is_no_draft(self):
        here = self.new_inspection(km_per_year="12000")
        self.brief(here).send_keys("Jory Quill")
        self.driver.execute_cdp_cmd("Network.enable", {})
        lost = {"offline": True, "latency": 0, "downloadThroughput": 0, "uploadThroughput": 0}
        back = {"offline": False, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}
        self.driver.execute_cdp_cmd("Network.emulateNetworkConditions", lost)
        self.addCleanup(self.driver.execute_cdp_cmd, "Network.emulateNetworkConditions", back)
        self.press("main form button.button-main")
        self.wait(lambda: "The server does not answer" in self.text("main"))
        self.assertEqual(self.one("#buyer").get_property("value"), "Jory Quill")
        self.driver.execute_cdp_cmd("Network.emulateNetworkConditions", back)
        self.press("main form button.button-main")
        self.wait(lambda: not self.all("[data-lost]"))
        self.wait(lambda: self.one("#buyer").get_property("value") == "Jory Quill")
        self.open(f"{here}/vehicle")
        self.assertNotIn("was not saved", self.text("main"))

    def test_what_stands_in_an_entry_form_comes_back_and_is_gone_once_it_was_sent(self):
        here = self.new_inspection(km_per_year="12000")
        self.open(f"{here}/place/front")
        self.wait(lambda: self.all("html[data-ready=place]"))
        self.one("#remark").send_keys("grille cracked at the badge")
        self.open(f"{here}/round")
        self.open(f"{here}/place/front")
        self.wait(lambda: self.one("#remark").get_property("value") == "grille cracked at the badge")
        self.press("[name=kind][value='general.seen']")
        self.wait(lambda: "grille cracked" in self.text("[data-fragment=place_said]"))
        self.wait_saved()
        self.open(f"{here}/place/front")
        self.wait(lambda: self.all("html[data-ready=place]"))
        self.assertEqual(self.one("#remark").get_property("value"), "")


class Undo(BrowserCase):
    """The last act of a page is taken back from its end or by its key, all of it, and the focus goes back."""

    def test_one_entry_and_all_the_rest_in_one(self):
        here = self.new_inspection()
        self.open(f"{here}/place/front")
        self.wait(lambda: self.all("html[data-ready=place]"))
        self.press("[data-place-limit='no light']")
        self.wait(lambda: self.one("[data-undo]").is_displayed())
        self.press("[data-undo]")
        self.wait(lambda: "no light" not in self.text("[data-fragment=place_said]"))
        self.wait(lambda: not self.one("[data-undo]").is_displayed())
        focus = self.driver.switch_to.active_element
        self.assertEqual(focus.get_attribute("data-place-limit"), "no light")
        due = self.text("[data-fragment=place_due]")
        self.press("[data-rest-fine]")
        self.wait(lambda: "Take back all" in self.text("[data-undo]"))
        self.wait(lambda: self.text("[data-fragment=place_due]") != due)
        self.one("h1").click()
        ActionChains(self.driver).key_down(Keys.CONTROL).send_keys("z").key_up(Keys.CONTROL).perform()
        self.wait(lambda: self.text("[data-fragment=place_due]") == due)
