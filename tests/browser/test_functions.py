"""Functions by touch: one tap a try, more than yes or no through the form, a lamp."""

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase


class Taps(BrowserCase):
    width, height = 390, 844

    def test_a_tap_is_a_try_and_what_is_more_says_how(self):
        here = self.new_inspection()
        self.open(f"{here}/functions")
        self.wait(lambda: self.all("html[data-ready=functions]"))
        self.press("[data-item=horn][data-result=works]")
        self.wait(lambda: "Horn: works" in self.text("[data-fragment=functions_list]"))
        self.press("[data-more=wipers]")
        self.press("[data-entry='function.tried'] [value=but]")
        self.wait(lambda: "unlike it should be" in self.text("[data-entry='function.tried'] .field-fault"))
        self.one("#f-but").send_keys("smears")
        self.press("[data-entry='function.tried'] [value=but]")
        self.wait(lambda: "works, but smears" in self.text("[data-fragment=functions_list]"))
        self.press("[data-more=sockets]")
        self.press("[data-entry='function.tried'] [value=absent]")
        self.wait(lambda: not self.all("[data-item=sockets]"))
        self.assertTrue(self.all("[data-fitted=sockets]"))
        self.press("[data-item=horn][data-result=fails]")
        self.wait(lambda: "Try once more" in self.text("[data-fragment=functions_list]"))
        self.one("#f-lamp").send_keys("brakes")
        self.driver.execute_script("document.querySelector('[data-entry=\"function.lamp\"] [name=red]').click()")
        self.one("#f-lamp").send_keys(Keys.TAB)
        self.press("[data-entry='function.lamp'] [value=fault]")
        self.wait(lambda: "Stand-down: red lamp" in self.text("[data-fragment=standing]"))
        self.assertLessEqual(self.driver.execute_script("return document.documentElement.scrollWidth"), self.width)

    def test_the_lamps_left_all_work_in_one_tap(self):
        here = self.new_inspection()
        self.open(f"{here}/functions")
        self.wait(lambda: self.all("html[data-ready=functions]"))
        self.press("[data-item=low_beam_left][data-result=fails]")
        self.wait(lambda: "1 of 58 tried" in self.text("[data-fragment=functions_list] h1"))
        self.press("[data-rest^=low_beam_right]")
        self.wait(lambda: "19 of 58 tried" in self.text("[data-fragment=functions_list] h1"))
        self.assertIn("Low beam, left: fails", self.text("[data-fragment=functions_list]"))
