"""Walking round the vehicle: marks by touch on the sheet, by keyboard, and one contact across a seam."""

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys as Keyboard

from tests.browser.case import BrowserCase


class Marks(BrowserCase):
    def room(self, here, name):
        self.open(f"{here}/outside/{name}")
        self.wait(lambda: self.all("html[data-ready=outside]"))

    def drag(self, panel, start, end):
        """Drag on a panel from a share of its box to another, as a finger does along a scratch."""
        patch = self.one(f"[data-draw] a[data-panel='{panel}'] path")
        box = patch.rect
        left, top = -box["width"] / 2, -box["height"] / 2
        chain = ActionChains(self.driver)
        chain.move_to_element_with_offset(patch, left + box["width"] * start[0], top + box["height"] * start[1])
        chain.click_and_hold()
        chain.move_by_offset(box["width"] * (end[0] - start[0]), box["height"] * (end[1] - start[1]))
        chain.release().perform()

    def listed(self):
        return self.text("[data-fragment=outside_list]")

    def test_scratches_along_a_flank_become_one_contact_and_their_cost_follows(self):
        here = self.new_inspection()
        self.room(here, "blemishes")
        self.drag("front_door_left", (0.5, 0.5), (0.95, 0.5))
        self.assertEqual(self.text("[data-path-words]"), "a line on the sheet")
        self.assertEqual(self.one("#f-place").get_attribute("value"), "front_door_left")
        self.one("#f-length_mm").send_keys("260")
        self.press("[value=scratch]")
        self.wait(lambda: "1 mark:" in self.listed())
        self.assertEqual(self.text("[data-path-words]"), "no place on it yet")
        self.drag("rear_door_left", (0.05, 0.5), (0.4, 0.5))
        self.press("[value=scratch]")
        self.wait(lambda: "were 1 and 2 one contact?" in self.listed())
        self.one("[data-entry='body.event'] [name=what]").send_keys("a gate", Keyboard.ENTER)
        self.wait(lambda: "One contact: a gate" in self.listed())
        self.assertEqual(len(self.all(".shell-sheet:not(.sh-upright) .bl-joined")), 2)
        self.press("[aria-label='take back mark 1']")
        self.wait(lambda: "1 mark:" in self.listed())

    def test_corners_tapped_in_outline_mode_become_a_field(self):
        here = self.new_inspection()
        self.room(here, "blemishes")
        self.one("[data-outline]").click()
        for corner in ((0.3, 0.3), (0.6, 0.3), (0.6, 0.6)):
            self.drag("bonnet", corner, corner)
        self.assertEqual(self.text("[data-path-words]"), "a field of 3 corners")
        self.press("[value=scuff]")
        self.wait(lambda: self.all(".bl-field"))
        self.assertIn("1 mark:", self.listed())

    def test_by_keyboard_alone_with_a_fault_and_nothing_lost(self):
        here = self.new_inspection()
        self.room(here, "blemishes")
        self.one("[data-draw] a[data-panel='bonnet']").send_keys(Keyboard.ENTER)
        self.wait(lambda: self.one("#f-place").get_attribute("value") == "bonnet")
        self.one("#f-length_mm").send_keys("2mm", Keyboard.ENTER)
        self.wait(lambda: "is no number" in self.text(".field-fault"))
        self.assertEqual(self.one("#f-length_mm").get_attribute("value"), "2mm")
        self.one("#f-length_mm").clear()
        self.one("#f-length_mm").send_keys("2")
        self.one("#f-length_mm").send_keys("00000")
        self.press("[value=chip]")
        self.wait(lambda: "Input should be less than" in self.text(".field-fault"))
        self.assertEqual(self.one("#f-length_mm").get_attribute("aria-invalid"), "true")
        self.assertEqual(self.one("#f-length_mm").get_attribute("value"), "200000")  # refused, and given back
        self.one("#f-length_mm").clear()
        self.one("#f-length_mm").send_keys("2")
        self.one("#f-depth").send_keys("to primer")
        self.one("[value=chip]").send_keys(Keyboard.ENTER)
        self.wait(lambda: "chip, 2 mm, to primer" in self.listed())
        self.assertEqual(self.one("#f-depth").get_attribute("value"), "primer")  # the last used stays
        self.one("[data-other-kind]").send_keys("unidentified")
        self.press("[data-other]")
        self.wait(lambda: "say what was tried" in self.text(".field-fault"))
        self.one("#f-note").send_keys("wiped, no change")
        self.press("[data-other]")
        self.wait(lambda: "2 marks" in self.listed())

    def test_fit_glass_and_rust_in_one_walk(self):
        here = self.new_inspection()
        self.room(here, "fit")
        self.one("#f-place").send_keys("Front door, left")
        self.one("#f-front_mm").send_keys("4,2", Keyboard.ENTER)
        self.wait(lambda: "4.2" in self.text("[data-fragment=outside_list]"))
        self.room(here, "glass")
        self.press("[aria-label='Nothing wrong: Windscreen']")
        self.wait(lambda: not self.all("[aria-label='Nothing wrong: Windscreen']"))
        self.room(here, "rust")
        self.press("[data-value='door hems']")
        self.one("[name=structural]").click()
        self.one("#f-grade").send_keys("perforated")
        self.press("[data-entry='body.rust'] .button-main")
        self.wait(lambda: "nobody lifts there" in self.listed())
        self.press("[data-none=rust]")
        self.wait(lambda: "Looked, none found" in self.listed())
        self.open(f"{here}/round")
        self.assertIn("Stand-down: perforated sill", self.text("main"))

    def test_by_place_what_is_due_leads_there_and_comes_back_done(self):
        here = self.new_inspection()
        self.open(f"{here}/place/front_corner_left")
        self.wait(lambda: self.all("html[data-ready=place]"))
        due = self.text("[data-fragment=place_due]")
        self.assertIn("Film: Front wing, left", due)
        glass = "//summary[contains(., 'Glass and lamps: Headlamp, left')]"
        self.driver.find_element(By.XPATH, glass).click()
        self.press("details[open] a[href$='outside/glass']")
        self.wait(lambda: self.all("html[data-ready=outside]"))
        self.press("[aria-label='Nothing wrong: Headlamp, left']")
        self.wait_saved_here()
        self.open(f"{here}/place/front_corner_left")
        self.assertIn("Due here: 6 of 7", self.text("[data-fragment=place_due]"))

    def wait_saved_here(self):
        self.wait(
            lambda: self.text("#saved") == "saved" and not self.all("[aria-label='Nothing wrong: Headlamp, left']")
        )


class Narrow(BrowserCase):
    width, height = 390, 844

    def test_every_room_fits_a_narrow_screen(self):
        here = self.new_inspection()
        for room in ("blemishes", "fit", "glass", "rust", "trim", "additions"):
            self.open(f"{here}/outside/{room}")
            with self.subTest(room):
                width = self.driver.execute_script("return document.documentElement.scrollWidth")
                self.assertLessEqual(width, self.width)
