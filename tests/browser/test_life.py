"""Life and money as a user meets them: a control that moves the picture, the negotiation sheet, facts and proofs."""

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase


class LifeStation(BrowserCase):
    def room(self, here, name):
        self.open(f"{here}/life/{name}")
        self.wait(lambda: self.all("html[data-ready=life]"))

    def type_over(self, selector, text):
        field = self.one(selector)
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(text)

    def row(self, name):
        rows = self.texts("[data-fragment=life_calendar] tbody tr")
        return next(one for one in rows if one.startswith(name))

    def tell(self, here):
        self.open(f"{here}/facts")
        self.wait(lambda: self.all("html[data-ready=facts]"))
        for key, value in (("first_used", "2016-05-01"), ("odometer_km", "150000"), ("power", "diesel"),
                           ("drive", "front"), ("gearbox", "manual"), ("timing", "belt"), ("rear_axle", "beam"),
                           ("rear_brakes", "discs")):  # fmt: skip
            self.one(f"#k-{key}").send_keys(value, Keys.TAB)
        self.wait_saved()

    def test_facts_then_a_control_that_moves_the_picture_and_is_kept_only_when_said(self):
        here = self.new_inspection(km_per_year="12000")
        self.tell(here)
        self.room(here, "calendar")
        before = self.row("Clutch")
        self.type_over("#km", "30000")
        self.wait(lambda: self.row("Clutch") != before)
        moved = self.row("Clutch")
        self.driver.refresh()
        self.wait(lambda: self.all("html[data-ready=life]"))
        self.assertEqual(self.row("Clutch"), before)
        self.type_over("#km", "30000")
        self.wait(lambda: self.row("Clutch") == moved)
        self.press("[data-keep]")
        self.wait_saved()
        self.driver.refresh()
        self.wait(lambda: self.all("html[data-ready=life]"))
        self.assertEqual(self.one("#km").get_property("value"), "30,000")
        self.assertEqual(self.row("Clutch"), moved)

    def test_use_to_come_and_a_distance_that_is_none(self):
        here = self.new_inspection(km_per_year="12000")
        self.tell(here)
        self.room(here, "calendar")
        before = self.row("Steel brake pipes")
        self.press("#use-details summary")
        self.one("[data-use=salt]").click()
        self.wait(lambda: self.row("Steel brake pipes") != before)
        self.type_over("#km", "lots")
        self.wait(lambda: "in figures" in self.text("[data-control] [data-said]"))
        self.assertEqual(self.one("#km").get_property("value"), "lots")

    def test_the_sheet_is_treated_line_by_line(self):
        here = self.new_inspection(km_per_year="12000", asking_price="5000")
        self.open(f"{here}/corners")
        self.wait(lambda: self.all("html[data-ready=corners]"))
        self.one("#whole-boils_c").send_keys("150", Keys.ENTER)
        self.wait_saved()
        self.room(here, "sheet")
        sheet = "[data-fragment=life_sheet]"
        self.assertIn("Asked €5,000.00, less items to settle €69.50: €4,930.50", self.text(sheet))
        line = "[data-code=job][data-subject=brake_fluid]"
        self.one(f"{line} [name=amount]").send_keys("cheap")
        self.press(f"{line} [value=settle]")
        self.wait(lambda: "is no amount" in self.text(f"{line} .field-fault"))
        self.type_over(f"{line} [name=amount]", "80,50")
        self.press(f"{line} [value=settle]")
        self.wait(lambda: "less items to settle €80.50: €4,919.50" in self.text(sheet))
        self.press(f"{line} [value=disclosed]")
        self.wait(lambda: "told of before the price: not taken off" in self.text(line))
        self.assertIn("€80.50", self.text(line))  # its own amount stays
        self.assertIn("less items to settle €0.00: €5,000.00", self.text(sheet))
        self.press(f"{line} [value=taken_off]")
        self.wait(lambda: "less items to settle €80.50: €4,919.50" in self.text(sheet))
        self.press(f"{line} [value=new]")
        self.wait(lambda: "told of before" not in self.text(line))
        self.press(f"{line} [value=budget]")
        self.wait(lambda: "less items to settle €0.00: €5,000.00" in self.text(sheet))

    def test_a_proof_makes_what_is_due_later(self):
        here = self.new_inspection(km_per_year="12000")
        self.tell(here)
        self.room(here, "facts")
        self.one("#f-part").send_keys("timing belt")
        self.one("#f-when").send_keys("2025-06")
        self.one("#f-proof").send_keys("invoice", Keys.ENTER)
        self.wait(lambda: "new or done 2025-06" in self.text("[data-fragment=life_facts]"))
        self.room(here, "calendar")
        self.assertIn("2033", self.row("Timing belt"))

    def test_what_looks_new_is_a_proof_by_eye(self):
        here = self.new_inspection(km_per_year="12000")
        self.tell(here)
        self.room(here, "facts")
        self.one("#f-part").send_keys("starter battery")
        self.press("[name=looks_new]")
        self.one("#f-proof").send_keys("clean, no date found", Keys.ENTER)
        self.wait(lambda: "looks new, clean, no date found" in self.text("[data-fragment=life_facts]"))

    def test_at_an_auction_the_sheet_says_what_comes_on_top(self):
        here = self.new_inspection(km_per_year="12000")
        self.open(f"{here}/vehicle")
        self.one("form details summary").click()
        self.one("[name=auction]").click()
        for name, text in (("lot", "217"), ("fees", "310"), ("transport", "95,50"), ("collect_by", "Friday")):
            self.one(f"#{name}").send_keys(text)
        self.one("#collect_by").send_keys(Keys.ENTER)
        self.wait(lambda: "Write a day" in self.text("#collect_by-fault"))
        self.assertEqual(self.one("#lot").get_property("value"), "217")
        self.type_over("#collect_by", "2026-12-04")
        self.type_over("#transport", "95.50")
        self.one("#collect_by").send_keys(Keys.ENTER)
        self.wait(lambda: not self.all("#collect_by-fault"))
        self.room(here, "sheet")
        self.assertIn("On top of the hammer price: €405.50", self.text("[data-fragment=life_sheet]"))
