from hakutsu.demo.building import demo_id
from tests.browser.case import BrowserCase
from tests.browser.driving import sized

COVERED = """
const sheet = [...document.querySelectorAll(".shell-sheet")].find((one) => one.getBoundingClientRect().width > 0);
const boxes = [...sheet.querySelectorAll("text:not(.sh-side), .strata")].map((one) => {
  const { left, right, top, bottom } = one.getBoundingClientRect();
  const lead = one.matches("text") ? (bottom - top) * 0.22 : 0;  // a line's box is higher than its digits
  return { said: one.textContent || "glyph", left, right, top: top + lead, bottom: bottom - lead };
});
const apart = (a, b) => a.left >= b.right - 0.5 || a.top >= b.bottom - 0.5;
const over = (a, b) => !apart(a, b) && !apart(b, a);
const found = [];
boxes.forEach((a, i) => boxes.slice(i + 1).forEach((b) => { if (over(a, b)) found.push(`${a.said} ${b.said}`); }));
const frame = sheet.getBoundingClientRect();
const cut = boxes.filter((one) => one.left < frame.left - 1 || one.right > frame.right + 1);
const out = cut.map((one) => `${one.said} cut off`);
return [boxes.length, [...found, ...out], document.documentElement.scrollWidth];
"""


class NothingCoversANumber(BrowserCase):
    """The demo's fullest sheets as they are drawn, with the fonts they are drawn in."""

    demo = True

    def tearDown(self):
        sized(self.driver, self.width, self.height)

    def test_wide_and_upright_on_a_telephone(self):
        for name in ("estate", "hatch", "carry"):
            for path in ("film?drawing=sheet", "outside/blemishes"):
                for wide in (1280, 390):
                    with self.subTest(name, path=path, wide=wide):
                        sized(self.driver, wide, 844)
                        self.open(f"/inspections/{demo_id(name)}/{path}")
                        self.wait(lambda: self.all(".shell-sheet"))
                        count, covered, width = self.driver.execute_script(COVERED)
                        self.assertGreater(count, 15)
                        self.assertEqual(covered, [])
                        self.assertLessEqual(width, wide)
