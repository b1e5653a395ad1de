from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase

MOST_TABS = 400


class KeyboardOnly(BrowserCase):
    """From a new inspection to its report without a pointer: nothing is clicked, nothing is focused but by its keys."""

    def press_keys(self, *keys):
        ActionChains(self.driver).send_keys(*keys).perform()

    def tab_to(self, selector):
        """Press Tab until what is meant has the focus, as somebody would who sees where it is."""
        for _ in range(MOST_TABS):
            if self.driver.execute_script("return document.activeElement?.matches(arguments[0]) ?? false", selector):
                box = self.driver.switch_to.active_element.rect
                self.assertGreater(box["width"] * box["height"], 0, f"{selector} cannot be seen")
                return
            self.press_keys(Keys.TAB)
        self.fail(f"Tab never comes to {selector}")

    def follow(self, selector):
        self.tab_to(selector)
        before = self.driver.current_url
        self.press_keys(Keys.ENTER)
        self.wait(lambda: self.driver.current_url != before, f"{selector} leads nowhere")

    def ready(self, page):
        self.wait(lambda: self.all(f"html[data-ready={page}]"), f"{page} did not get ready")

    def test_from_a_new_inspection_to_its_report(self):
        self.open("/")
        self.follow("a[href='/inspections/new']")
        self.tab_to("#name")
        self.press_keys("Skarrow Fell 4×4, 2012")
        self.tab_to("#buyer")
        self.press_keys("Heugh Light Trust")
        self.follow("form button[type=submit]")
        self.ready("facts")
        here = self.driver.current_url.split("/facts")[0].removeprefix(self.server.address)

        self.follow(f"a[href$='{here}/arrival']")
        self.tab_to("#weather")
        self.press_keys("dry")
        self.follow_form("form[method=post] button.button-main", "dry")

        self.follow(f"a[href='{here}/film']")
        self.ready("film")
        self.tab_to("#line")
        self.press_keys("fwl 118 121 240", Keys.ENTER)
        self.wait(lambda: self.count_on("front_wing_left").startswith("3"))

        self.follow(f"a[href='{here}/round']")
        self.follow("a[href$='place/front_corner_left']")
        self.ready("place")
        self.tab_to("[data-lines] summary")
        letter = self.driver.execute_script(
            "return [...document.querySelectorAll('[data-letter]')]"
            ".find((one) => one.innerText.includes('Tyres')).dataset.letter"
        )
        self.press_keys(letter)
        self.press_keys("1.2", Keys.TAB, "1.3", Keys.TAB, "1.2", Keys.ENTER)
        self.wait_saved()
        self.tab_to("#remark")
        self.press_keys("valve cap missing")
        self.tab_to("[name=kind][value='general.seen']")
        self.press_keys(Keys.ENTER)
        self.wait(lambda: "valve cap missing" in self.text("[data-fragment=place_said]"))

        self.follow(f"a[href='{here}/report']")
        report = self.text("article")
        for words in ("Skarrow Fell 4×4, 2012", "Heugh Light Trust", "valve cap missing", "Front wheel, left"):
            self.assertIn(words, report)
        self.assertIn("Settle before paying", report)

    def follow_form(self, selector, words):
        """Send a form that comes back to its own page with what was said."""
        self.tab_to(selector)
        self.press_keys(Keys.ENTER)
        self.wait(lambda: words in self.text("[data-fragment=next], main"))
