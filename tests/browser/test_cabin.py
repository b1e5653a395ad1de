"""The cabin by touch: a tap grades, the form keeps what is smelt and felt."""

from tests.browser.case import BrowserCase


class Cabin(BrowserCase):
    width, height = 390, 844

    def test_taps_grade_and_a_look_is_noted(self):
        here = self.new_inspection()
        self.open(f"{here}/cabin")
        self.wait(lambda: self.all("html[data-ready=cabin]"))
        self.press("[data-part=rim][data-wear=heavy]")
        self.wait(lambda: "Steering wheel rim: heavy" in self.text("[data-fragment=cabin_parts]"))
        self.press("[data-part=rim][data-renewed=yes]")
        self.wait(lambda: "heavy, renewed" in self.text("[data-fragment=cabin_parts]"))
        self.driver.execute_script("document.querySelector('[value=damp]').click()")
        self.press("[data-entry='cabin.looked'] [type=submit]")
        self.wait(lambda: "lift every mat" in self.text("[data-fragment=cabin_found]"))
        self.press("[data-thing=lock_nut][data-there=missing]")
        self.wait(lambda: "No key for the wheel locks" in self.text("[data-fragment=cabin_found]"))
        self.press("[data-entry='cabin.control'] [type=submit]")
        self.wait(lambda: "This is needed." in self.text("[data-entry='cabin.control'] .field-fault"))
        self.one("#c-looks").send_keys("toggle, no mark")
        self.press("[data-entry='cabin.control'] [type=submit]")
        self.wait(lambda: "nobody knows what it does" in self.text("[data-fragment=cabin_controls]"))
        self.assertLessEqual(self.driver.execute_script("return document.documentElement.scrollWidth"), self.width)
