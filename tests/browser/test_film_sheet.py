"""The film station beyond the line: shell sheet, cues, verification, and a connected gauge."""

import re

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase


class FilmCase(BrowserCase):
    def setUp(self):
        self.driver.execute_script("try { localStorage.clear(); } catch {}")
        self.here = self.new_inspection()

    def entries(self, kind):
        script = "return fetch(arguments[0]).then((answer) => answer.json())"
        found = self.driver.execute_script(script, f"{self.here}/entries")
        return [entry for entry in found if entry["kind"] == kind]

    def choose(self, drawing):
        self.press(f'[data-drawing-choice="{drawing}"]')
        self.wait(lambda: self.all("[data-shell]" if drawing == "sheet" else ".film-profile"))

    def tap(self, panel, u, v):
        """Tap a panel's patch at a share of its box."""
        upright = ".sh-upright" if self.width < 768 else ":not(.sh-upright)"
        patch = self.one(f'[data-shell]{upright} [data-panel="{panel}"] .sh-patch')
        box = patch.rect
        dx, dy = (u - 0.5) * box["width"], (v - 0.5) * box["height"]
        ActionChains(self.driver).move_to_element_with_offset(patch, dx, dy).click().perform()


class Sheet(FilmCase):
    def test_a_tapped_place_goes_with_the_next_reading_and_shows_on_the_sheet(self):
        self.choose("sheet")
        self.tap("bonnet", 0.25, 0.75)
        self.wait(lambda: self.text("[data-current-name]") == "Bonnet")
        self.wait(lambda: " at " in self.text("[data-aim-words]") or "at" in self.text("[data-aim-words]"))
        self.type_line("133")
        (entry,) = self.entries("film.reading")
        # The sheet's nose points left, its left side down: a quarter from the left and low means u and v near ¼.
        self.assertEqual(entry["place"], "bonnet")
        self.assertAlmostEqual(entry["body"]["u"], 0.25, delta=0.06)
        self.assertAlmostEqual(entry["body"]["v"], 0.25, delta=0.06)
        self.wait(lambda: "133" in self.texts(".sh-number"))
        self.assertEqual(self.text("[data-aim-words]"), "")

    def test_layers_are_switched_and_stay_so(self):
        self.choose("sheet")
        self.tap("roof", 0.5, 0.5)
        self.type_line("118")
        self.one('[data-layer-switch="readings"]').click()
        self.assertFalse(self.one('[data-layer="readings"]').is_displayed())
        self.type_line("121")
        self.assertFalse(self.one('[data-layer="readings"]').is_displayed())
        self.one('[data-layer-switch="readings"]').click()
        self.assertTrue(self.one('[data-layer="readings"]').is_displayed())

    def test_the_drawing_chosen_is_there_again_next_time(self):
        self.choose("sheet")
        self.open(f"{self.here}/film")
        self.wait(lambda: self.all("[data-shell]"))
        self.choose("profile")
        self.assertFalse(self.all("[data-shell]"))

    def test_by_keyboard_a_panel_of_the_sheet_is_reached_and_its_spots_picked(self):
        self.choose("sheet")
        self.one('[data-shell] [data-panel="tailgate"]').send_keys(Keys.ENTER)
        self.wait(lambda: self.text("[data-current-name]") == "Tailgate")
        self.wait_arrived()
        self.one('[data-spot="tailgate"][data-words="low left"]').send_keys(Keys.ENTER)
        self.wait(lambda: self.text("[data-aim-words]") == "at low left")
        self.type_line("119")
        (entry,) = self.entries("film.reading")
        self.assertEqual((entry["body"]["u"], entry["body"]["v"]), (0.25, 0.25))

    def test_in_pattern_order_several_numbers_take_the_spots_one_after_the_other(self):
        self.one('[data-do="follow"]').click()
        self.wait(lambda: self.text("[data-aim-words]") == "at centre")
        self.type_line("118 121 119")
        places = [(e["body"]["u"], e["body"]["v"]) for e in self.entries("film.reading")]
        self.assertEqual(places, [(0.5, 0.5), (0.25, 0.75), (0.75, 0.75)])

    def test_filler_is_drawn_with_its_contour_and_the_table_holds_the_numbers(self):
        for code in ("ro", "bo", "fdl", "rdl", "tg"):
            self.type_line(f"{code} 118 121 117")
        self.type_line("rqr")
        self.choose("sheet")
        for (u, v), film in {(0.3, 0.25): "640", (0.5, 0.15): "910", (0.3, 0.8): "236", (0.75, 0.8): "229"}.items():
            self.tap("rear_quarter_right", u, v)
            self.wait(lambda: self.text("[data-aim-words]"))
            self.type_line(film)
        self.wait(lambda: self.all(".sh-filler"))
        self.assertIn("cm²", self.text("[data-fragment=panel]"))
        self.assertIn("640 at 0.", self.one("#numbers").get_property("textContent"))

    def test_the_advice_leads_to_its_spot(self):
        for code in ("bo", "fdl", "rdl", "tg"):
            self.type_line(f"{code} 118 121 117")
        self.type_line("fwl 158")
        self.wait(lambda: self.all("[data-go-spot]"))
        name = self.text("[data-advice]")
        self.one("[data-go-spot]").click()
        self.wait(lambda: self.text("[data-current-name]") in name)
        self.wait(lambda: self.text("[data-aim-words]"))


class Cues(FilmCase):
    def test_a_cue_moves_the_chances_says_by_how_much_and_can_be_taken_back(self):
        for code in ("ro", "bo", "fdl", "rdl", "tg"):
            self.type_line(f"{code} 118 121 117")
        self.type_line("fwl 131 134")
        self.type_line("fwl")
        self.one("#cues summary").click()
        self.driver.find_element(By.CSS_SELECTOR, "#cue-light").send_keys("lamp")
        self.one('[data-cue="overspray"][data-there="true"]').click()
        self.wait(lambda: self.all('[data-cue-effect="overspray"]'))
        before, after = (int(n) for n in re.findall(r"(\d+)\s*%", self.text('[data-cue-effect="overspray"]')))
        self.assertGreater(after, before + 5)
        self.assertIn("in lamp", self.text('[data-cue-effect="overspray"]'))
        self.assertIn("seen: overspray", self.text("[data-fragment=panel]"))
        self.one("[aria-label='not looked: overspray on rubbers, lamps or wells']").click()
        self.wait(lambda: not self.all('[data-cue-effect="overspray"]'))

    def test_magnet_and_film_are_noted_and_bad_thickness_is_refused_in_place(self):
        self.one("#magnet summary").click()
        self.one('[data-magnet="none"]').click()
        self.wait(lambda: "Magnet: does not hold" in self.text("[data-fragment=panel]"))
        self.wait(lambda: "filler" in self.text("[data-fragment=glance]"))
        self.one("#cover-um").send_keys("thick", Keys.ENTER)
        self.assertIn("A thickness lies above 0", self.text("[data-cover-fault]"))
        self.one("#cover-um").clear()
        self.one("#cover-um").send_keys("180", Keys.ENTER)
        self.wait(lambda: self.entries("film.cover"))
        self.assertEqual(self.entries("film.cover")[0]["body"], {"kind": "protection_film", "thickness_um": 180.0})

    def test_what_hand_and_eye_measure_is_noted_and_bad_numbers_are_refused_in_place(self):
        self.one("#by-hand summary").click()
        self.one("#hand-length").send_keys("30", Keys.TAB, "wide", Keys.ENTER)
        fault = "[data-hand-form='film.mapped'] [data-hand-fault]"
        self.wait(lambda: "Type a number in centimetres" in self.text(fault))
        self.assertEqual(self.driver.switch_to.active_element.get_attribute("id"), "hand-width")
        self.one("#hand-width").clear()
        self.one("#hand-width").send_keys("900", Keys.ENTER)
        self.wait(lambda: "0.1 to 500 cm" in self.text(fault))
        self.one("#hand-width").clear()
        self.one("#hand-width").send_keys("20,5", Keys.ENTER)
        self.wait(lambda: "a repair of 30 × 20.5 cm mapped by hand" in self.text("[data-fragment=panel]"))
        self.assertEqual(self.entries("film.mapped")[0]["body"], {"length_cm": 30.0, "width_cm": 20.5})
        self.one("[data-hand-form='film.workmanship'] button[type=submit]").click()
        self.wait(lambda: "Grade at least one" in self.text("[data-hand-form='film.workmanship'] [data-hand-fault]"))
        self.one("#work-trim").send_keys("trim masked")
        self.one("[data-hand-form='film.workmanship'] button[type=submit]").click()
        self.wait(lambda: "Workmanship of this repaint: fair, trim masked" in self.text("[data-fragment=panel]"))
        self.one("[aria-label='Take back the mapped repair']").click()
        self.wait(lambda: "mapped by hand" not in self.text("[data-fragment=panel]"))


class Verification(FilmCase):
    def test_plate_and_shim_correct_what_follows_and_one_without_the_other_is_refused(self):
        self.one("#gauge-details summary").click()
        shown = self.all("[name=shown]")
        shown[0].send_keys("2")
        self.one("[data-verify-form] button").click()
        self.assertIn("at least one shim", self.text("[data-verify-fault]"))
        self.all("[name=reference]")[1].send_keys("125")
        shown[1].send_keys("128")
        self.one("[data-verify-form] button").click()
        self.wait(lambda: "verified at the start only" in self.text("[data-fragment=verified]"))
        self.assertIn("offset +2 µm", self.text("[data-fragment=verified]"))
        self.assertEqual(shown[0].get_property("value"), "")


class Gauge(FilmCase):
    def test_the_stand_in_reads_where_one_taps_and_walks_the_rest_by_itself(self):
        self.choose("sheet")
        self.one("#gauge-details summary").click()
        self.one("#practise summary").click()
        self.press('[data-link="stand-in"]')
        self.wait(
            lambda: "connected" in self.text("[data-link-state]") and "Stand-in" in self.text("[data-link-state]")
        )
        self.tap("front_wing_left", 0.5, 0.5)
        self.wait(lambda: "From the gauge" in self.text("[data-said]"))
        self.wait(lambda: self.all(".sh-number"))
        self.press('[data-link="walk"]')
        self.wait(lambda: self.one('[data-link="stop"]').is_displayed())
        self.wait(lambda: len(self.all(".sh-number")) >= 4)
        if self.one('[data-link="stop"]').is_displayed():  # a slow machine may see the walk's end first
            self.press('[data-link="stop"]')
        self.wait(lambda: not self.one('[data-link="stop"]').is_displayed())
        self.press('[data-link="close"]')
        self.wait(lambda: self.text("[data-link-state]") == "not connected")
        self.assertTrue(all(entry["body"]["source"] == "gauge" for entry in self.entries("film.reading")))

    def test_a_port_that_is_not_there_says_that_it_is_looked_for(self):
        self.one("#gauge-details summary").click()
        self.one("#link-url").send_keys("/dev/no-such-port", Keys.ENTER)
        self.wait(lambda: "looking for it" in self.text("[data-link-state]"))
        self.assertTrue(self.one("#gauge-chip").is_displayed())
        self.press('[data-link="close"]')
        self.wait(lambda: self.text("[data-link-state]") == "not connected")


class Narrow(FilmCase):
    width, height = 390, 844

    def test_the_sheet_works_by_touch_and_nothing_sticks_out(self):
        self.choose("sheet")
        self.tap("roof", 0.4, 0.4)
        self.wait(lambda: self.text("[data-aim-words]"))
        for key in "118":
            self.one(f'[data-key="{key}"]').click()
        self.one("[data-keypad] button[type=submit]").click()
        self.wait(lambda: self.entries("film.reading"))
        self.assertIn("u", self.entries("film.reading")[0]["body"])
        width = self.driver.execute_script("return document.documentElement.scrollWidth")
        self.assertLessEqual(width, self.width)
