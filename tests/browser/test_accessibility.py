import json

from selenium.webdriver.common.keys import Keys as Keyboard

from hakutsu.demo.building import demo_id
from tests.browser.case import BrowserCase
from tests.browser.driving import ROOT, sized

AXE = ROOT / "node_modules" / "axe-core" / "axe.min.js"
OPEN = "document.querySelectorAll('details').forEach((one) => { one.open = true; });"
EVERY_RULE = {"type": "tag", "values": ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa", "best-practice"]}
COLOURS = {"type": "rule", "values": ["color-contrast", "link-in-text-block"]}  # the rest is the same in the dark
RUN = """
const done = arguments[arguments.length - 1];
axe.run(document, { runOnly: arguments[0] })
  .then((found) => done(found.violations.map((v) => [v.id, v.nodes.map((n) => n.html.slice(0, 160))])));
"""


SHOWN = """
const clear = (one) => { const box = one.getBoundingClientRect(); return box.width > 0 && box.height > 0; };
const few = document.querySelectorAll("main a, main button, main input:not([type=hidden]), main select, main textarea");
return [...few].filter(clear).filter((one) => one.getBoundingClientRect().right > innerWidth + 1
  && !one.closest("[data-scrolls], .overflow-x-auto")).map((one) => one.outerHTML.slice(0, 120));
"""


class PagesCase(BrowserCase):
    """Every page of the demo, looked at as somebody would who sees, reads or touches it otherwise."""

    demo = True

    def pages(self):
        estate, hatch = f"/inspections/{demo_id('estate')}", f"/inspections/{demo_id('hatch')}"
        yield from ("/", "/account", "/inspections/new", "/nowhere", "/gauges", "/search?q=film", "/settings")
        yield from (f"{estate}/{name}" for name in ("film", "film/import", "vehicle", "logbook", "report"))
        yield from (
            f"{hatch}/{name}"
            for name in (
                "claims",
                "arrival",
                "round",
                "place/bay",
                "place/desk",
                "gaps?finishing=yes",
                "runsheet",
                "standdowns",
                "settings",
            )
        )
        rooms = ("blemishes", "fit", "glass", "rust", "trim", "additions")
        yield from (f"{estate}/outside/{room}" for room in rooms)
        yield from (f"{estate}/pictures", f"{estate}/desk", f"{estate}/corners")
        yield from (f"{estate}/functions", f"{estate}/under", f"{estate}/cabin", f"{estate}/scan")
        yield from (f"{estate}/engine/{room}" for room in ("fluids", "bay", "run", "air", "electric"))
        yield from (f"{estate}/life/{room}" for room in ("calendar", "money", "sheet", "condition", "facts"))
        yield from (f"{estate}/road/{room}" for room in ("before", "noticed", "measured", "after"))
        yield from (f"{estate}/papers/{room}" for room in ("identity", "dates", "distance", "registers"))
        yield from (f"{estate}/service/{room}" for room in ("plan", "tests", "owners"))
        yield from (f"{estate}/variant", f"{hatch}/variant", "/library")
        yield from (estate, hatch, "/?show=done", f"{hatch}/facts", f"{estate}/life/preparation")
        yield f"{hatch}/film?panel=rear_quarter_left"
        yield f"{estate}/film?panel=rear_quarter_right&drawing=sheet"

    def tearDown(self):
        sized(self.driver, self.width, self.height)

    def scheme(self, name):
        scheme = [{"name": "prefers-color-scheme", "value": name}]
        self.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": scheme})
        self.assertTrue(self.driver.execute_script(f"return matchMedia('(prefers-color-scheme: {name})').matches"))

    def nothing_is_found(self):
        """No page complains on the console, and axe finds nothing, with everything opened."""
        source = {"source": AXE.read_text(encoding="utf-8")}
        added = self.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", source)
        self.addCleanup(self.driver.execute_cdp_cmd, "Page.removeScriptToEvaluateOnNewDocument", added)
        for path in self.pages():
            self.open(path)
            with self.subTest(path):
                complaints = self.driver.get_log("browser")
                self.assertEqual([one for one in complaints if path != "/nowhere"], [])
            self.driver.execute_script(OPEN)
            for scheme, rules in (("light", EVERY_RULE), ("dark", COLOURS)):
                with self.subTest(path, scheme=scheme):
                    self.scheme(scheme)
                    found = self.driver.execute_async_script(RUN, rules)
                    self.assertEqual(found, [], json.dumps(found, indent=1))


class Accessibility(PagesCase):
    def test_no_page_complains_on_the_console_and_axe_finds_nothing_by_day_nor_in_the_dark(self):
        self.nothing_is_found()

    def test_ways_lie_apart_and_nothing_of_them_is_cut_off(self):
        driver = self.driver
        for wide in (390, 1280):
            sized(driver, wide, 844)
            driver.get(f"{self.server.address}/inspections/{demo_id('estate')}/functions")
            driver.execute_script("document.getElementById('ways').open = true")
            boxes = driver.execute_script(
                "return [...document.querySelectorAll('.tab, [data-fragment=rail] a, #ways summary')]"
                ".filter((one) => one.offsetParent).map((one) => {"
                " const box = one.getBoundingClientRect();"
                " return [box.left, box.right, box.top, box.bottom, one.scrollWidth - one.clientWidth]; })"
            )
            self.assertGreater(len(boxes), 10)
            for one, (left, right, top, bottom, spills) in enumerate(boxes):
                self.assertTrue(left >= 0 and right <= wide and spills <= 0, boxes[one])
                for other in boxes[one + 1 :]:
                    apart = right <= other[0] + 0.5 or other[1] <= left + 0.5
                    self.assertTrue(apart or bottom <= other[2] + 0.5 or other[3] <= top + 0.5, (boxes[one], other))

    def test_the_way_to_another_phase_by_keyboard_on_a_phone(self):
        driver = self.driver
        sized(driver, 390, 844)
        here = f"{self.server.address}/inspections/{demo_id('estate')}"
        driver.get(f"{here}/functions")
        summary = driver.find_element("css selector", "#ways summary")
        self.assertIn("At the vehicle", summary.text)
        self.assertIn("Functions", summary.text)
        self.assertGreaterEqual(summary.size["height"], 44)
        driver.execute_script("arguments[0].focus()", summary)
        summary.send_keys(Keyboard.ENTER)
        sheet = driver.find_element("link text", "Life and money")
        self.assertGreaterEqual(sheet.size["height"], 44)
        sheet.send_keys(Keyboard.ENTER)
        self.assertIn("/life", driver.current_url)

    def test_no_page_runs_sideways_on_a_phone(self):
        driver = self.driver
        sized(driver, 390, 844)
        fell = f"/inspections/{demo_id('fell')}"
        for path in (*self.pages(), f"{fell}/report", f"{fell}/arrival", f"{fell}/life/sheet"):
            with self.subTest(path):
                driver.get(self.server.address + path)
                self.assertLessEqual(driver.execute_script("return document.documentElement.scrollWidth"), 390)


class OnATelephone(PagesCase):
    width, height = 390, 844

    def test_axe_finds_nothing_on_a_telephone_by_day_nor_in_the_dark(self):
        self.nothing_is_found()


class LargeAndCalm(PagesCase):
    """Twice as large, and without motion."""

    def test_at_200_per_cent_nothing_is_cut_off(self):
        sized(self.driver, 640, 400)  # 1280 × 800 seen twice as large
        for path in self.pages():
            with self.subTest(path):
                self.driver.get(self.server.address + path)
                self.driver.execute_script(OPEN)
                self.assertLessEqual(self.driver.execute_script("return document.documentElement.scrollWidth"), 640)
                self.assertEqual(self.driver.execute_script(SHOWN), [])

    def test_who_wants_no_motion_sees_none(self):
        calm = [{"name": "prefers-reduced-motion", "value": "reduce"}]
        self.driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": calm})
        self.addCleanup(self.driver.execute_cdp_cmd, "Emulation.setEmulatedMedia", {"features": []})
        moving = """
        return document.getAnimations().length + [...document.querySelectorAll("*")].filter((one) => {
          const style = getComputedStyle(one);
          return style.animationName !== "none" || parseFloat(style.transitionDuration) > 0;
        }).length;
        """
        for path in list(self.pages())[::4]:
            with self.subTest(path):
                self.driver.get(self.server.address + path)
                self.assertEqual(self.driver.execute_script(moving), 0)
