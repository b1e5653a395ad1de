"""The underside by touch: a tap chooses, one more says nothing found; a leak needs its origin."""

from tests.browser.case import BrowserCase


class Under(BrowserCase):
    def test_a_tap_on_the_schematic_then_nothing_found_then_the_rest(self):
        here = self.new_inspection()
        self.open(f"{here}/under")
        self.wait(lambda: self.all("html[data-ready=under]"))
        self.press("[data-zone=tunnel] rect")
        self.assertEqual(self.one("#u-zone").get_property("value"), "tunnel")
        self.press("[data-nothing]")
        self.wait(lambda: "1 of 23 zones" in self.text("[data-fragment=under_list]"))
        self.one("#u-zone").send_keys("underside of the sill, l")
        self.one("#u-rust").send_keys("scale")
        self.press("[data-entry='under.zone'] button[type=submit]:not([data-nothing])")
        self.wait(lambda: "look at it from the other side too" in self.text("[data-fragment=under_list]"))
        self.one("#k-stage").send_keys("seep")
        self.press("[data-entry='leak.seen'] button[type=submit]")
        self.wait(lambda: "where it comes from" in self.text("[data-entry='leak.seen'] .field-fault"))
        self.one("#k-fluid").send_keys("engine oil")
        self.one("#k-origin").send_keys("sump gasket")
        self.press("[data-entry='leak.seen'] button[type=submit]")
        self.wait(lambda: "engine oil, from sump gasket" in self.text("[data-fragment=under_list]").lower())
        self.press("[data-rest]")
        self.wait(lambda: "23 of 23 zones" in self.text("[data-fragment=under_list]"))

    def test_a_second_look_begins_with_what_the_first_said_and_our_own_doing_is_suspended(self):
        here = self.new_inspection()
        self.open(f"{here}/under")
        self.wait(lambda: self.all("html[data-ready=under]"))
        self.one("#k-origin").send_keys("filter housing")
        self.one("#k-zone").send_keys("engine bay")
        self.one("#k-stage").send_keys("seep")
        self.driver.execute_script("document.querySelector('[name=own_doing]').click()")
        self.press("[data-entry='leak.seen'] button[type=submit]")
        self.wait(lambda: "we caused it" in self.text("[data-fragment=under_list]"))
        self.assertIn("leak", self.one("[data-zone=bay_floor] title").get_property("textContent"))
        self.driver.execute_script("document.querySelector('[name=own_doing]').click()")
        self.one("#k-origin").clear()
        self.press("[data-again]")
        self.wait(lambda: self.one("#k-origin").get_property("value") == "filter housing")
        self.one("#k-stage").send_keys("drip")
        self.press("[data-entry='leak.seen'] button[type=submit]")
        self.wait(lambda: "settle before paying" in self.text("[data-fragment=under_list]"))
        self.assertNotIn("we caused it", self.text("[data-fragment=under_list] h3 + ul"))
