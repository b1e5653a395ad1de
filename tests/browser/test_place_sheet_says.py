"""What is said at a place: how sure, more like these, limits with what they hide, nothing found of a station."""

from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase


class SaidAtAPlace(BrowserCase):
    width, height = 390, 844

    def entries(self, here, kind):
        script = "const done = arguments[1]; fetch(arguments[0]).then((r) => r.json()).then(done)"
        every = self.driver.execute_async_script(script, f"{here}/entries")
        return [one for one in every if one["kind"] == kind]

    def test_a_guess_more_like_these_and_a_limit_in_part(self):
        here = self.new_inspection()
        self.open(f"{here}/place/boot")
        self.wait(lambda: self.all("html[data-ready=place]"))
        self.one("#remark").send_keys("loading scratches")
        self.one("[name=said_as]").send_keys("a guess")
        self.press("[data-remark] [value='general.seen']")
        self.wait(lambda: [one["said_as"] for one in self.entries(here, "general.seen")] == ["guess"])
        self.one("#remark").send_keys("loading scratches")
        self.press("[data-remark] [value='general.more_alike']")
        self.wait(lambda: "at least" in self.text("[data-remark-fault]"))
        self.one("#at_least").send_keys("40")
        self.press("[data-remark] [value='general.more_alike']")
        self.wait(lambda: [one["body"]["at_least"] for one in self.entries(here, "general.more_alike")] == [40])
        self.one("#limit-because").send_keys("ply floor")
        self.one("#limit-hides").send_keys("the load floor")
        self.one("#limit-of").send_keys("Underside")
        self.press("[data-limit] [name=partly]")
        self.press("[data-limit] [type=submit]")
        self.wait(lambda: self.entries(here, "general.limit"))
        (limit,) = self.entries(here, "general.limit")
        self.assertEqual(
            limit["body"], {"station": "under", "because": "ply floor", "hides": "the load floor", "partly": True}
        )
        self.assertIsNone(limit["place"])
        self.assertLessEqual(self.driver.execute_script("return document.documentElement.scrollWidth"), self.width)

    def test_sizes_in_inches_and_an_axle_for_both_its_wheels(self):
        here = self.new_inspection()
        self.open(f"{here}/outside/rust")
        self.wait(lambda: self.all("html[data-ready=outside]"))
        self.one("#f-where").send_keys("arch")
        self.one("#f-size_mm").send_keys("2.5 in", Keys.ENTER)
        self.wait(lambda: [one["body"].get("size_mm") for one in self.entries(here, "body.rust")] == [63.5])
        self.assertNotIn("grade", self.entries(here, "body.rust")[0]["body"])
        self.open(f"{here}/corners?at=wheel_front_left")
        self.wait(lambda: self.all("html[data-ready=corners]"))
        form = "[data-entry='corner.brake'][data-place=wheel_front_left]"
        self.one(f"{form} [name=pad_percent]").send_keys("50 to 60")
        self.press(f"{form} [data-axle]")
        self.press(f"{form} [type=submit]")
        self.wait(lambda: [one["place"] for one in self.entries(here, "corner.brake")] == ["axle_front"])
        self.assertEqual(self.entries(here, "corner.brake")[0]["body"]["pad_percent"], [50, 60])
        tyre = "[data-entry='corner.tyre'][data-place=wheel_front_left]"
        self.one(f"{tyre} [name=range_mm]").send_keys("at least 4", Keys.ENTER)
        self.wait(lambda: self.entries(here, "corner.tyre"))
        self.assertEqual(self.entries(here, "corner.tyre")[0]["body"]["range_mm"], [4, 8])
