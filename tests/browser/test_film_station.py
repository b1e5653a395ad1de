from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase

CASES = """
const { readLine, looksLike } = await import("/static/js/film/line.js");
const station = { panel: "roof", unit: "um", fitted: new Map([["ro", "roof"], ["fdl", "front_door_left"]]),
  codes: { ro: "Roof", fdl: "Front door, left", bsl: "Load-bed side, left" } };
return arguments[0].map(([text, unit]) => {
  const line = readLine(text, { ...station, unit: unit || "um" });
  return [line.fault, line.panel, line.actions.map((a) => a.kind === "reading"
    ? [a.panel, a.value, a.unit, a.status, a.edge, a.repeat, looksLike(a, { um_below: 20, mil_above: 30 })].join(" ")
    : a.kind)];
});
"""


class LineGrammar(BrowserCase):
    def read(self, *lines):
        self.open("/")
        return self.driver.execute_script(CASES, [[line] if isinstance(line, str) else line for line in lines])

    def test_readings_codes_and_marks(self):
        wanted = {
            "112": ["roof 112 um ok false false "],
            "fdl 112 118": ["go", "front_door_left 112 um ok false false ", "front_door_left 118 um ok false false "],
            "FDL": ["go"],
            "over": ["roof  um over false false "],
            ">1500": ["roof 1500 um over false false "],
            "none": ["roof  um none false false "],
            "88e": ["roof 88 um ok true false "],
            "4.4mil 112um": ["roof 4.4 mil ok false false ", "roof 112 um ok false false "],
            "4,4": ["roof 4.4 um ok false false mil"],
            "r 214 209": ["roof 214 um ok false true ", "roof 209 um ok false true "],
            "+": ["next"],
            "/": ["undo"],
        }
        for line, (fault, _, actions) in zip(wanted, self.read(*wanted), strict=True):
            with self.subTest(line):
                self.assertEqual((fault, actions), (None, wanted[line]))

    def test_what_is_not_understood_does_nothing_and_says_why(self):
        lines = ("112 11q", "fdx 112", "bsl 112", "0", "r", "-5", "1e3", "fdl 112 r 118")
        for line, (fault, panel, actions) in zip(lines, self.read(*lines), strict=True):
            with self.subTest(line):
                self.assertTrue(fault)
                self.assertEqual((panel, actions), ("roof", []))

    def test_numbers_that_look_like_the_other_unit(self):
        lines = ("4.6", "19", "20", ["112", "mil"], ["31", "mil"], ["30", "mil"], "4.6um")
        doubts = [actions[0].split(" ")[-1] for _, _, actions in self.read(*lines)]
        self.assertEqual(doubts, ["mil", "mil", "", "um", "um", "", ""])


class Keyboard(BrowserCase):
    def setUp(self):
        self.here = self.new_inspection()

    def readings(self):
        return self.texts("[data-fragment=panel] li:has([data-strike]) > span")

    def test_a_line_of_digits_and_enter_is_a_reading_and_the_profile_follows(self):
        before = self.one(".film-profile").get_attribute("aria-label")
        self.type_line("118")
        self.type_line("121")
        self.assertEqual(self.readings(), ["118 µm", "121 µm"])
        self.assertNotEqual(self.one(".film-profile").get_attribute("aria-label"), before)
        self.assertEqual(self.driver.switch_to.active_element.get_attribute("id"), "line")

    def test_the_baseline_and_its_doubts_stand_under_the_profile(self):
        self.assertIn("No baseline yet", self.text("[data-fragment=drawing]"))
        self.type_line("ro 118 121 119")
        self.assertIn("only one panel was read", self.text("[data-fragment=drawing]"))
        self.type_line("bo 117 120 118")
        self.assertRegex(self.text("[data-fragment=drawing]"), r"Baseline 1[12]\d µm \(1[12]\d to 1[12]\d µm")

    def test_schools_are_worked_out_where_they_are_opened_and_follow_from_then_on(self):
        self.type_line("ro 118 121 119")
        self.assertIn("Compared with other methods", self.text("[data-fragment=story]"))
        self.assertEqual(self.all("#schools table"), [])
        self.one("#schools summary").click()
        self.wait(lambda: self.all("#schools table"))
        self.assertEqual(len(self.all("#schools tbody tr")), 1)
        self.type_line("bo 340 352 361")
        self.wait(lambda: len(self.all("#schools tbody tr")) == 2)
        self.assertIn("panel", self.text("#schools p"))

    def test_arrows_walk_and_the_walk_wraps(self):
        line = self.one("#line")
        line.send_keys(Keys.ARROW_DOWN)
        self.wait(lambda: self.text("[data-current-name]") == "Bonnet")
        line.send_keys(Keys.ARROW_UP, Keys.ARROW_UP)
        self.wait(lambda: self.text("[data-current-name]") == "Front wing, right")

    def test_undo_strikes_and_can_be_brought_back(self):
        self.type_line("118 1190")
        self.one("#line").send_keys(Keys.CONTROL, "z")
        self.wait(lambda: self.readings() == ["118 µm"])
        self.assertIn("Taken back: 1190 µm on Roof", self.text("[data-said]"))
        self.driver.find_element(By.XPATH, "//button[.='Bring it back']").click()
        self.wait(lambda: len(self.readings()) == 2)

    def test_a_number_like_mil_is_questioned_and_both_answers_hold(self):
        self.one("#line").send_keys("4.6", Keys.ENTER)
        self.assertIn("looks like a number in mil", self.text("[data-question]"))
        self.assertEqual(self.readings(), [])
        self.assertEqual(self.driver.switch_to.active_element.get_attribute("id"), "line")  # typing goes on
        for key in (Keys.TAB, Keys.TAB, Keys.ENTER):
            self.driver.switch_to.active_element.send_keys(key)
        self.wait(lambda: self.readings() == ["4.6 mil"])
        self.one("#line").send_keys("15", Keys.ENTER)
        for key in (Keys.TAB, Keys.TAB, Keys.TAB, Keys.ENTER):
            self.driver.switch_to.active_element.send_keys(key)
        self.wait(lambda: self.readings() == ["4.6 mil", "15 µm"])

    def test_a_fault_keeps_what_was_typed(self):
        self.one("#line").send_keys("118 12q", Keys.ENTER)
        self.assertIn("12q", self.text("[data-said]"))
        self.assertEqual(self.one("#line").get_property("value"), "118 12q")
        self.assertEqual(self.readings(), [])

    def test_over_range_no_reading_and_edge(self):
        for button in ("over", "none"):
            self.one(f"[data-do={button}]").click()
            self.wait_saved()
        self.one("[data-do=edge]").click()
        self.type_line("72")
        self.wait(lambda: len(self.readings()) == 3)
        self.assertEqual(self.readings(), ["over range", "no reading", "72 µm (edge)"])

    def test_a_surprising_reading_asks_for_its_repeat_and_is_settled_by_two(self):
        self.type_line("bo 118 121 117")
        self.type_line("ro 118 121 119 244")
        self.wait(lambda: self.one("[data-repeat]").is_displayed())
        self.assertIn("244 µm stands out", self.text("[data-repeat]"))
        self.assertIn("1 reading to repeat", self.text("[data-fragment=left]"))
        self.type_line("r 119")
        self.assertIn("repeated 1 of 2", self.text("[data-repeat]"))
        self.one("[data-repeat-start]").click()
        self.type_line("121")
        self.wait(lambda: not self.one("[data-repeat]").is_displayed())
        self.assertIn("not repeated", self.text("[data-fragment=panel]"))

    def test_a_repeat_for_another_panel_is_refused_and_kept_in_the_line(self):
        self.type_line("bo 118 121 117")
        self.type_line("ro 118 121 119 244")
        self.one("#line").send_keys("bo r 119", Keys.ENTER)
        self.assertIn("Go to the panel first", self.text("[data-said]"))
        self.assertEqual(self.one("#line").get_property("value"), "bo r 119")

    def test_a_limit_and_nothing_to_read_are_noted_and_taken_back(self):
        self.one("#instead summary").click()
        self.one("[data-limit='wet or dirty']").click()
        self.wait(lambda: self.count_on("roof") == "limit")
        self.one("[data-fragment=panel] [data-strike]").click()
        self.wait(lambda: self.count_on("roof") == "0/3")

    def test_a_note_and_what_we_did_are_kept_with_the_panel_and_reach_the_report(self):
        self.one("#noted summary").click()
        self.one("#note").send_keys("runs along the lower edge", Keys.ENTER)
        self.wait(lambda: "runs along the lower edge" in self.text("[data-fragment=panel]"))
        self.one("#note").send_keys("wiped a trial spot")
        self.one("[value='general.intervention']").click()
        self.wait(lambda: "we did something: wiped a trial spot" in self.text("[data-fragment=panel]"))
        self.open(f"{self.here}/report")
        self.assertIn("Roof: runs along the lower edge", self.text("article"))

    def test_changing_the_gauge_changes_unit_and_what_is_shown(self):
        self.type_line("127")
        self.one("#gauge-details summary").click()
        for field, value in (("gauge-step", "0.5"), ("gauge-limit", "40")):
            self.one(f"#{field}").clear()
            self.one(f"#{field}").send_keys(value)
        self.one("#gauge-unit").send_keys("mil")
        self.one("[data-gauge-form] button").click()
        self.wait(lambda: self.text("[data-unit]") == "mil")
        self.type_line("4.5")
        self.wait(lambda: self.readings() == ["127 µm", "4.5 mil"])
        self.assertIn("[mil]", self.one("#numbers").get_property("textContent"))

    def test_a_gauge_that_cannot_be_is_refused_in_place(self):
        self.one("#gauge-details summary").click()
        self.one("#gauge-limit").clear()
        self.one("#gauge-limit").send_keys("9")
        self.one("[data-gauge-form] button").click()
        self.assertIn("The range ends between", self.text("[data-gauge-fault]"))

    def test_question_mark_lists_the_keys(self):
        self.one("#line").send_keys("?")
        self.wait(lambda: self.one("#keys").is_displayed())
        self.assertIn("fdl 112 118", self.text("#keys"))

    def test_two_windows_on_one_inspection_lose_nothing(self):
        first = self.driver.current_window_handle
        self.type_line("118")
        self.driver.switch_to.new_window("tab")
        self.open(f"{self.here}/film?panel=roof")
        self.wait(lambda: self.all("html[data-ready=film]"))
        self.type_line("121")
        self.driver.close()
        self.driver.switch_to.window(first)
        self.type_line("119")
        self.assertEqual(self.readings(), ["118 µm", "121 µm", "119 µm"])


class Touch(BrowserCase):
    width, height = 390, 844
    SMALL = """
      // The label around a box to tick is what a finger hits.
      const target = (one) => (one.matches("[type=checkbox], [type=radio]") && one.closest("label")) || one;
      return [...document.querySelectorAll("a, button, input:not([type=hidden]), select, summary")].filter((one) => {
        const box = target(one).getBoundingClientRect();
        return box.width && box.height && !one.closest("svg, .skip") && (box.height < 44 || box.width < 44);
      }).map((one) => `${one.tagName} ${one.textContent.trim()} ${one.getBoundingClientRect().height}`);
    """

    def test_a_survey_by_touch_alone(self):
        self.new_inspection()
        for key in "118":
            self.one(f'[data-key="{key}"]').click()
        self.one("[type=submit][form=line-form]").click()
        self.wait(lambda: self.text("[data-current-count]") == "1/3")
        self.one('[data-key="9"]').click()
        self.one('[data-key="back"]').click()
        self.assertEqual(self.one("#line").get_property("value"), "")
        self.one("[data-do=next]").click()
        self.wait(lambda: self.text("[data-current-name]") == "Bonnet")
        self.assertEqual(self.one("#line").get_attribute("inputmode"), "none")

    def test_every_target_is_large_enough_and_nothing_sticks_out(self):
        here = self.new_inspection("Dampfschifffahrtsgesellschaft" * 4, buyer="B" * 120, registration="X" * 60)
        for path in (
            "/",
            "/inspections/new",
            f"{here}/film",
            f"{here}/film/import",
            f"{here}/vehicle",
            f"{here}/report",
        ):
            self.open(path)
            with self.subTest(path):
                self.assertEqual(self.driver.execute_script(self.SMALL), [])
                width = self.driver.execute_script("return document.documentElement.scrollWidth")
                self.assertLessEqual(width, self.width)
