"""A morning at the vehicle: the plan, a place, a stand-down, a replan."""

from selenium.webdriver.common.keys import Keys as Keyboard

from tests.browser.case import BrowserCase


class Morning(BrowserCase):
    def test_plan_place_stand_down_and_replan(self):
        here = self.new_inspection("Skarrow Fell 4×4")
        self.open(f"{here}/runsheet")
        self.one("#available").clear()
        self.one("#available").send_keys("300")
        self.one("[name=lift]").click()
        self.press("[action$='conditions'] button")
        self.wait(lambda: self.all(".time-strip"))
        self.assertIn("Under: rust", self.text("main"))
        self.press("[aria-label='Begin: Prove that the engine is cold']")
        self.wait(lambda: self.all("[aria-label='Done: Prove that the engine is cold']"))
        self.stand_at_the_front(here)
        self.fuel_is_wet(here)
        self.open(f"{here}/runsheet")
        self.one("[name=lift]").click()
        self.press("[action$='conditions'] button")
        self.wait(lambda: "Under from outside" in self.text("main"))
        self.assertNotIn("Cold start with smoke", self.text("section[aria-label='The plan']"))

    def stand_at_the_front(self, here):
        self.open(f"{here}/place/front")
        self.wait(lambda: self.all("html[data-ready=place]"))
        self.one("#line").send_keys("bo 118 121 117", Keyboard.ENTER)
        self.wait(lambda: "3/3" in self.text("[data-fragment=place_due]"))
        self.one("#line").send_keys("fwl 118", Keyboard.ENTER)
        self.assertIn("not fitted", self.text("[data-film-line] [data-said]"))
        self.one("#remark").send_keys("lamp bracket bent")
        self.press("[value='general.hint']")
        self.wait(lambda: "lamp bracket bent" in self.text("[data-fragment=place_said]"))
        self.press("[value='general.seen']")
        self.assertIn("Write it down first", self.text("[data-remark-fault]"))
        self.press("[data-nothing-how='close, with hand and lamp']")
        self.wait(lambda: "Looked, nothing found" in self.text("[data-fragment=place_said]"))
        self.press("[data-fragment=place_said] [data-strike]")
        self.wait(lambda: len(self.all("[data-fragment=place_said] [data-strike]")) == 1)

    def fuel_is_wet(self, here):
        self.open(f"{here}/standdowns")
        self.one("[value=fuel_wet]").click()
        self.one("#note").send_keys("at the filter", Keyboard.ENTER)
        self.wait(lambda: "at the filter" in self.text("main"))
        self.open(f"{here}/runsheet")
        self.press("[aria-label='Begin: Cold start with smoke and noises']")
        self.wait(lambda: "is refused" in self.text("[role=alert]") or "is refused" in self.text("main"))
        self.assertIn("Air it, keep clear", self.text("main"))


class FollowUps(BrowserCase):
    def remark(self, words, kind="general.seen"):
        self.one("#remark").send_keys(words)
        self.press(f"[value='{kind}']")
        self.wait(lambda: words in self.text("[data-fragment=place_said]"))

    def test_a_range_a_second_look_and_a_proposed_limit_at_a_place(self):
        here = self.new_inspection()
        self.open(f"{here}/place/bay")
        self.wait(lambda: self.all("html[data-ready=place]"))
        self.press("#remark-more summary")
        self.one("#low").send_keys("60")
        self.one("#high").send_keys("50")
        self.one("#unit").send_keys("%")
        self.one("#remark").send_keys("battery cells")
        self.press("[value='general.seen']")
        self.wait(lambda: "lower end of a range comes first" in self.text("[data-remark]"))
        self.assertEqual(self.one("#remark").get_attribute("value"), "battery cells")
        self.one("#high").clear()
        self.one("#high").send_keys("70", Keyboard.ENTER)
        self.wait(lambda: "battery cells (60 to 70 %)" in self.text("[data-fragment=place_said]"))
        self.remark("damp hose at the pump")
        self.wait(lambda: "after running" in self.text("[data-fragment=follow_up]"))
        self.one("[data-again] [name=text]").send_keys("dry now")
        self.press("[data-again] [value=gone]")
        self.wait(lambda: "Look again" not in self.text("main"))
        self.remark("temperature gauge dead", "general.did_not_work")
        self.wait(lambda: "1 limit proposed" in self.text("[data-fragment=rail]"))
        self.press("[data-proposal] [value=take]")
        self.wait(lambda: "limit proposed" not in self.text("[data-fragment=rail]"))
        self.open(f"{here}/report")
        self.assertIn("damp hose at the pump; looked again: gone, dry now", self.text("main"))
        self.assertIn("Instead: infrared thermometer", self.text("main"))

    def test_words_and_units_are_changed_by_keyboard_and_follow_everywhere(self):
        here = self.new_inspection()
        self.open("/settings")
        self.one("#names").send_keys("hood", Keyboard.TAB)
        self.one("#distance").send_keys("mi", Keyboard.TAB)
        self.one("#labour_rate").clear()
        self.one("#labour_rate").send_keys("dear", Keyboard.ENTER)
        self.wait(lambda: self.all("#labour_rate-fault"))
        self.assertEqual(self.one("#distance").get_attribute("value"), "mi")
        self.one("#labour_rate").clear()
        self.one("#labour_rate").send_keys("70", Keyboard.ENTER)
        self.wait(lambda: not self.all(".fault"))
        self.open(f"{here}/vehicle")
        self.assertIn("Miles a year", self.text("main"))
        self.assertIn("Hood", self.text("main"))
        self.open(f"{here}/settings")
        self.one("#names").send_keys("bonnet")
        self.press("main form .button-main")
        self.wait(lambda: self.one("#names").get_attribute("value") == "british")
        self.open(f"{here}/film")
        self.assertIn("Bonnet", self.text("main"))


class Watch(BrowserCase):
    def test_a_timer_counts_on_every_page_survives_a_dead_server_and_rings(self):
        here = self.new_inspection()
        self.open(f"{here}/runsheet")
        self.one("#label").send_keys("idle watch")
        self.one("#minutes").clear()
        self.one("#minutes").send_keys("0.05", Keyboard.ENTER)
        self.wait(lambda: self.all("[data-timer]"))
        self.server.kill()
        self.server.start()
        self.open(f"{here}/film")
        self.wait(lambda: "Time to look: idle watch" in self.text("[data-timers]"))
        self.assertRegex(self.text("[data-left]"), r"\d+:\d\d over")
        self.one("[name=seen]").send_keys("even", Keyboard.ENTER)
        self.wait(lambda: "Looked (1)" in self.text("[data-timers]"))
        self.press("[aria-label='Stop idle watch']")
        self.wait(lambda: not self.all("[data-timer]"))


class Narrow(BrowserCase):
    width, height = 390, 844

    def test_a_place_by_touch_and_nothing_sticks_out(self):
        here = self.new_inspection()
        for name in ("round", "place/rear", "runsheet", "standdowns", "settings", "gaps"):
            self.open(f"{here}/{name}")
            with self.subTest(name):
                width = self.driver.execute_script("return document.documentElement.scrollWidth")
                self.assertLessEqual(width, self.width)
        self.open(f"{here}/place/rear")
        self.wait(lambda: self.all("html[data-ready=place]"))
        self.press("[data-place-limit='dirty or wet']")
        self.wait(lambda: "limited" in self.text("[data-fragment=place_due]"))


class Keys(BrowserCase):
    def test_question_mark_lists_the_keys_of_the_page_and_slash_leads_to_search(self):
        here = self.new_inspection()
        self.open(f"{here}/place/front")
        self.wait(lambda: self.all("html[data-ready=place]"))
        self.one("#remark").send_keys("why? and/or")
        self.assertFalse(self.one("#keys").is_displayed())
        self.driver.execute_script("document.activeElement.blur()")
        self.one("body").send_keys("?")
        self.wait(lambda: self.one("#keys").is_displayed())
        self.assertIn("readings on the panel of that code", self.text("#keys"))
        self.press("#keys button")
        self.open(f"{here}/round")
        self.one("body").send_keys("?")
        self.wait(lambda: "Keys of this page" in self.text("#keys"))
        self.press("#keys button")
        self.one("body").send_keys("/")
        self.wait(lambda: self.all("#q"))
        self.one("#q").send_keys("Pellin", Keyboard.ENTER)
        self.wait(lambda: "with every word" in self.text("main") or "Nothing holds" in self.text("main"))
