"""The place sheet takes everything due there: by keys, by taps, without leaving it."""

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase
from tests.browser.driving import sized

LINES = "[data-lines]"


class PlaceLines(BrowserCase):
    def place(self, here, key):
        self.open(f"{here}/place/{key}")
        self.wait(lambda: self.all("html[data-ready=place]"))

    def line(self, words):
        """The line that says something, opened."""
        for one in self.all(f"{LINES} details"):
            if words in one.find_element(By.TAG_NAME, "summary").text:
                if not one.get_attribute("open"):
                    one.find_element(By.TAG_NAME, "summary").click()
                return one
        raise AssertionError(f"no line says {words}")

    def entries(self, here, kind):
        self.wait_saved()
        read = "return fetch(arguments[0]).then((answer) => answer.json())"
        return [one for one in self.driver.execute_script(read, f"{here}/entries") if one["kind"].startswith(kind)]

    def state(self, words):
        return self.line(words).find_element(By.TAG_NAME, "summary").text.splitlines()[-1]

    def test_a_corner_is_done_at_its_place_by_keyboard(self):
        here = self.new_inspection(km_per_year="12000")
        self.place(here, "front_corner_left")
        letter = self.line("Tyres").get_attribute("data-letter")
        self.line("Tyres").find_element(By.TAG_NAME, "summary").click()  # shut again
        self.one("body").send_keys(letter)
        self.driver.switch_to.active_element.send_keys("5", Keys.TAB, "4.5", Keys.TAB, "5.5", Keys.ENTER)
        self.wait(lambda: "done" in self.state("Tyres"))
        brake = self.line("Brakes")
        brake.find_element(By.NAME, "pad_inner_mm").send_keys("7", Keys.TAB, "7.5", Keys.ENTER)
        self.wait(lambda: "done" in self.state("Brakes"))
        gear = self.line("Running gear")
        gear.find_element(By.CSS_SELECTOR, "[value=worn]").click()
        self.wait(lambda: "1 graded" in self.state("Running gear"))
        self.wait_saved()
        self.assertIn("Saved: Graded", self.text("[data-fragment=next]"))

    def test_marks_go_on_the_patch_of_their_panel_and_the_rest_is_fine_in_one_tap(self):
        here = self.new_inspection(km_per_year="12000")
        self.place(here, "flank_left")
        marks = self.line("Marks: Front door")
        marks.find_element(By.CSS_SELECTOR, "[data-patch] a[data-panel]").click()
        self.assertTrue(marks.find_element(By.NAME, "path").get_property("value"))
        marks.find_element(By.NAME, "length_mm").send_keys("120")
        marks.find_element(By.CSS_SELECTOR, "[value=scratch]").click()
        self.wait(lambda: self.state("Marks: Front door") == "1")
        self.press("[data-rest-fine]")
        self.wait(lambda: not self.all("[data-rest-fine]"))
        self.assertIn("done", self.state("Fit: Front door"))
        self.assertIn("done", self.state("Glass and lamps"))
        self.wait_saved()

    def test_an_empty_form_says_so_and_functions_are_one_tap_each(self):
        here = self.new_inspection(km_per_year="12000")
        self.place(here, "front")
        glass = self.line("Glass and lamps: Windscreen")
        glass.find_element(By.CSS_SELECTOR, "button.button-main").click()
        self.wait(lambda: "Nothing was entered yet" in glass.text)
        functions = self.line("Functions")
        before = self.state("Functions")
        functions.find_element(By.CSS_SELECTOR, "[data-item=bonnet_catch][data-result=works]").click()
        self.wait(lambda: self.state("Functions") != before)
        self.wait_saved()

    def test_lines_can_be_touched_and_read_on_a_phone(self):
        self.addCleanup(sized, self.driver, 1280, 800)
        here = self.new_inspection(km_per_year="12000")
        self.driver.set_window_size(390, 844)
        sized(self.driver, 390, 844)
        self.place(here, "rear_corner_left")
        for one in self.all(f"{LINES} summary"):
            self.assertGreaterEqual(one.size["height"], 44)
        wide = self.driver.execute_script("return document.documentElement.scrollWidth")
        self.assertLessEqual(wide, 390)

    def test_at_the_second_side_what_may_be_the_same_is_taken_over_and_what_is_measured_is_asked(self):
        here = self.new_inspection(km_per_year="12000")
        self.place(here, "front_corner_left")
        tyre = self.line("Tyres")
        tyre.find_element(By.NAME, "middle").send_keys("5.1")
        tyre.find_element(By.NAME, "size").send_keys("205/55 R16 91V", Keys.ENTER)
        self.wait_saved()
        self.place(here, "front_corner_right")
        tyre = self.line("Tyres")
        self.assertIn("205/55 R16 91V", tyre.text)
        tyre.find_element(By.CSS_SELECTOR, "[data-same]").click()
        values = {name: tyre.find_element(By.NAME, name).get_property("value") for name in ("size", "middle")}
        self.assertEqual(values, {"size": "205/55 R16 91V", "middle": ""})
        self.assertEqual(self.driver.switch_to.active_element.get_attribute("name"), "inner")

    def test_the_bay_takes_its_fluids_signs_parts_and_leaks(self):
        here = self.new_inspection()
        self.place(here, "bay")
        oil = self.line("Engine oil")
        oil.find_element(By.NAME, "level").send_keys("low")
        oil.find_element(By.NAME, "colour").send_keys("black", Keys.ENTER)
        self.press("details[open] [data-entry='fluid.looked'] [type=submit]")
        self.wait(lambda: "done" in self.state("Engine oil"))
        self.line("Signs of work").find_element(By.CSS_SELECTOR, "[data-none-seen]").click()
        self.wait(lambda: "done" in self.state("Signs of work"))
        leak = self.line("A leak")
        leak.find_element(By.NAME, "origin").send_keys("rocker cover")
        leak.find_element(By.NAME, "stage").send_keys("weep")
        leak.find_element(By.CSS_SELECTOR, "[type=submit]").click()
        self.wait(lambda: self.state("A leak") == "1")
        kinds = [one["kind"] for one in self.entries(here, "")]
        self.assertEqual(kinds[-3:], ["fluid.looked", "engine.bay", "leak.seen"])

    def test_one_entry_holds_for_an_axle_and_a_function_works_but(self):
        here = self.new_inspection()
        self.place(here, "front_corner_left")
        brake = self.line("Brakes")
        brake.find_element(By.NAME, "pad_percent").send_keys("50 to 60")
        self.press("details[open] [data-entry='corner.brake'] [data-axle]")
        brake.find_element(By.NAME, "pad_percent").send_keys(Keys.ENTER)
        self.wait(lambda: [one["place"] for one in self.entries(here, "corner.brake")] == ["axle_front"])
        self.place(here, "inside_front")
        self.line("Functions")
        self.press("details[open] ul li details summary")
        words = self.one("details[open] details[open] input")
        words.send_keys("stiff")
        self.press("details[open] details[open] [data-but]")
        self.wait(lambda: [one["body"].get("but") for one in self.entries(here, "function.tried")] == ["stiff"])
