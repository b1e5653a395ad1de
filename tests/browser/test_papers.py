"""Papers as they are read: the number on a telephone at its place and from a picture, records and marks at the desk."""

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase

GOOD = "0RNTSTRAND1900388"


class OnThePhone(BrowserCase):
    width, height = 390, 844

    def go(self, here, room):
        self.open(f"{here}/papers/{room}")
        self.wait(lambda: self.all("html[data-ready=papers]"))

    def test_the_number_is_counted_while_it_is_typed_and_compared_when_saved(self):
        here = self.new_inspection()
        self.go(here, "identity")
        self.one("#n-text").send_keys("ornt strand")
        self.assertIn("10 of 17; not used in one: O", self.text("#n-count"))
        self.one("#n-text").clear()
        self.one("#n-text").send_keys(GOOD, Keys.ENTER)
        self.wait(lambda: self.all("[data-fragment=papers_identity] svg"))
        self.assertEqual(self.one("#n-text").get_property("value"), "")
        self.one("#n-where").send_keys("registration")
        self.one("#n-text").send_keys("0RNTSTRAND19?4172")
        self.press("[data-entry='papers.number'] [type=submit]")
        self.wait(lambda: "plate and papers differ" in self.text("[data-fragment=papers_found]"))
        self.assertLessEqual(self.driver.execute_script("return document.documentElement.scrollWidth"), self.width)
        self.press("[data-fragment=papers_identity] [data-strike]")
        self.wait(lambda: "differ" not in self.text("[data-fragment=papers_found]"))

    def test_nothing_read_is_refused_at_the_form_and_kept(self):
        here = self.new_inspection()
        self.go(here, "identity")
        self.one("#n-text").send_keys("???")
        self.press("[data-entry='papers.number'] [type=submit]")
        self.wait(lambda: "nothing of it was read" in self.text("[data-entry='papers.number']"))
        self.assertEqual(self.one("#n-text").get_property("value"), "???")

    def test_at_the_place_where_it_stands(self):
        here = self.new_inspection()
        self.open(f"{here}/place/bay")
        self.wait(lambda: self.all("html[data-ready]"))
        line = next(one for one in self.all("[data-lines] details") if "Identity number here" in one.text)
        self.driver.execute_script("arguments[0].scrollIntoView({block: 'center'}); arguments[0].open = true", line)
        line.find_element("css selector", "[name=text]").send_keys(GOOD)
        line.find_element("css selector", "[name=text]").send_keys(Keys.ENTER)
        self.wait(lambda: line.find_element("css selector", "[data-fragment=state_numbers]").text == "1")
        self.go(here, "identity")
        self.assertIn(
            "stamped number: " + GOOD, self.text("[data-fragment=papers_identity]").replace("Stamped", "stamped")
        )


class AtTheDesk(BrowserCase):
    def test_records_in_a_row_by_keyboard_and_a_mark_by_its_kind(self):
        here = self.new_inspection()
        self.open(f"{here}/papers/distance")
        self.wait(lambda: self.all("html[data-ready=papers]"))
        for on, value in (
            ("2018-05-03", "30000"),
            ("2019-05-03", "61000"),
            ("2020-05-03", "92000"),
            ("2021-05-03", "41000"),
        ):
            self.one("#d-value").send_keys(value)
            self.one("#d-on").send_keys(on, Keys.ENTER)
            self.wait(lambda: self.one("#d-value").get_property("value") == "")
        self.wait(lambda: "do not fit one continuous run" in self.text("[data-fragment=papers_distance]"))
        self.one("#d-value").send_keys("1000000000")
        self.one("#d-on").send_keys("2022-05-03", Keys.ENTER)
        self.wait(lambda: self.one("#d-value").get_property("value") == "1000000000")
        self.open(f"{here}/papers/dates")
        self.wait(lambda: self.all("html[data-ready=papers]"))
        self.assertFalse(self.one("#m-table").is_displayed())
        self.one("#m-text").send_keys("2019-03", Keys.ENTER)
        self.wait(lambda: "Built March 2019" in self.text("[data-fragment=papers_dates]"))
        self.one("#m-mark").send_keys("pane")
        self.wait(lambda: self.one("#m-table").is_displayed())
        self.assertEqual(self.one("#m-code").get_property("value"), "glass_dot_month")
        self.one("#m-text").send_keys("·22")
        self.one("#m-table").send_keys("before:7-n after:13-n", Keys.ENTER)
        self.wait(lambda: "later: replaced then" in self.text("[data-fragment=papers_dates]"))
