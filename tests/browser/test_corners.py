"""The corner station: a visit by keyboard, bad input at its field, one corner at a time on a narrow screen."""

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase

SMALL = """
const targets = "button, input:not([type=checkbox]), select, summary, label:has([type=checkbox])";
const low = (one) => one.offsetParent && one.getBoundingClientRect().height < 43.5;
const all = [...document.querySelector("main").querySelectorAll(targets)];
return all.filter(low).map((one) => one.outerHTML.slice(0, 90));
"""
FL, FR = "wheel_front_left", "wheel_front_right"


class CornerCase(BrowserCase):
    def station(self, at=FL):
        here = self.new_inspection()
        self.open(f"{here}/corners?at={at}")
        self.wait(lambda: self.all("html[data-ready=corners]"))
        return here

    def said(self, wheel):
        return self.text(f"[data-fragment=said_{wheel}]")

    def field(self, wheel, name):
        return self.one(f"#{wheel}-{name}")

    def unfold(self, wheel, part):
        self.driver.execute_script("document.getElementById(arguments[0]).open = true", f"{wheel}-{part}")

    def form(self, kind, wheel):
        return f"[data-entry='corner.{kind}'][data-place='{wheel}']"


class OnAWideScreen(CornerCase):
    def test_a_visit_by_keyboard_tyre_brake_and_what_they_mean(self):
        self.station()
        self.assertEqual(sum(one.is_displayed() for one in self.all("[data-corner^=wheel_]")), 5)
        for name, keys in (("inner", "3.1"), ("middle", "4,6"), ("outer", "4.8"), ("date_code", "3222")):
            self.field(FL, name).send_keys(keys)
        self.field(FL, "size").send_keys("205/55 R16 91V", Keys.ENTER)
        self.wait(lambda: "Inner shoulder worn" in self.said(FL))
        self.assertIn("Lowest 3.1 mm", self.said(FL))
        self.assertEqual(self.field(FL, "inner").get_property("value"), "3.1")  # the form keeps what is noted
        self.field(FL, "pad_inner_mm").send_keys("4.6")
        self.field(FL, "pad_outer_mm").send_keys("7.1")
        self.press(f"#{FL}-brake-more > summary")  # instruments lie behind one line
        self.field(FL, "disc_mm").send_keys("24.1 24.0 24.1")
        self.field(FL, "disc_min_mm").send_keys("22", Keys.ENTER)
        self.wait(lambda: "slide or piston stuck" in self.said(FL))
        self.wait_saved()
        self.driver.refresh()
        self.wait(lambda: self.all("html[data-ready=corners]"))
        self.assertEqual(self.field(FL, "disc_mm").get_property("value"), "24.1 24 24.1")

    def test_what_is_typed_at_one_corner_outlives_what_is_noted_at_another(self):
        self.station()
        self.field(FR, "middle").send_keys("5")
        self.field(FL, "middle").send_keys("4", Keys.ENTER)
        self.wait(lambda: "Lowest 4 mm" in self.said(FL))
        self.assertEqual(self.field(FR, "middle").get_property("value"), "5")
        self.field(FL, "size").send_keys("205/55 R16 91V", Keys.ENTER)
        self.press(f"[data-same={FR}]")
        self.assertEqual(self.field(FR, "size").get_property("value"), "205/55 R16 91V")

    def test_bad_input_is_told_at_its_form_and_nothing_is_lost(self):
        self.station()
        tyre = self.form("tyre", FL)
        self.field(FL, "middle").send_keys("four", Keys.ENTER)
        self.wait(lambda: "“four” is no number" in self.text(f"{tyre} .field-fault"))
        self.assertEqual(self.text(f"{tyre} .field-fault"), "“four” is no number.")
        fault = self.one(f"{tyre} .field-fault").get_attribute("id")
        self.assertEqual(self.field(FL, "middle").get_attribute("aria-describedby"), fault)
        self.field(FL, "middle").send_keys(Keys.BACKSPACE)
        self.assertEqual(self.texts(f"{tyre} .field-fault"), [])
        self.field(FL, "middle").clear()
        self.field(FL, "inner").send_keys("3")
        self.field(FL, "middle").send_keys("4", Keys.ENTER)
        self.wait(lambda: "Lowest 3 mm" in self.said(FL))  # two grooves of a tyre are told as two
        self.wait(
            lambda: "take back the tyre entry" in self.one(f"[data-fragment=said_{FL}]").get_attribute("innerHTML")
        )
        self.press(f"[data-fragment=said_{FL}] [data-strike]")
        self.wait(lambda: "rules" not in self.said(FL))

    def test_grades_one_after_the_other_and_the_rest_in_one_tap(self):
        self.station()
        self.unfold(FL, "gear")
        gear = self.form("gear", FL)
        self.press(f"{gear} [value=worn]")
        self.wait(lambda: "Damper: worn" in self.said(FL))
        part = self.field(FL, "part")
        self.assertEqual(part.get_property("value"), "spring")  # the next one is up
        self.assertEqual(self.texts(f"#{FL}-tested option"), ["by eye"])
        self.press(f"{gear} [value=failed]")
        self.wait(lambda: "Spring or torsion bar: failed" in self.said(FL))
        self.press(f"[data-rest={FL}]")
        self.wait(lambda: "Ball joint: sound" in self.said(FL))
        self.assertIn("Damper: worn", self.said(FL))

    def test_damage_stands_down_at_once(self):
        self.station()
        self.unfold(FL, "tyre-more")
        self.one(f"{self.form('tyre', FL)} [value=bulge]").click()
        self.press(f"{self.form('tyre', FL)} button[type=submit]")
        self.wait(lambda: "Stand-down: tyre with bulge" in self.text("[data-fragment=standing]"))


class OnANarrowScreen(CornerCase):
    width, height = 390, 844

    def test_one_corner_at_a_time_by_touch(self):
        self.station()
        shown = [one.get_attribute("data-corner") for one in self.all("[data-corner]") if one.is_displayed()]
        self.assertEqual(shown, [FL])
        self.field(FL, "middle").send_keys("5")
        self.driver.execute_script(f"document.querySelector('[data-at={FR}]').click()")
        self.wait(lambda: self.one(f"#{FR}").is_displayed())
        self.assertFalse(self.one(f"#{FL}").is_displayed())
        self.driver.execute_script(f"document.querySelector('[data-at={FL}]').click()")
        self.assertEqual(self.field(FL, "middle").get_property("value"), "5")  # not lost by looking elsewhere

    def test_targets_are_large_enough_and_nothing_runs_off_the_side(self):
        self.station()
        small = self.driver.execute_script(SMALL)
        self.assertEqual(small, [])
        self.assertLessEqual(self.driver.execute_script("return document.documentElement.scrollWidth"), self.width)
