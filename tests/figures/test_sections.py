import re
import unittest
from datetime import date
from xml.etree import ElementTree

from hakutsu.core.life.money import Spending
from hakutsu.figures.life_calendar import CalendarRow, life_calendar
from hakutsu.figures.sections import brake_section, drum_section, tread_section
from hakutsu.figures.spending import spending_figure
from hakutsu.vehicle.quantities import scales

MM, INCH = scales("depth")["mm"], scales("depth")["in32"]


def tops(svg):
    """Heights of the four lands' left and right edges above the floor [drawing units]."""
    return [tuple(float(one) for one in re.findall(r"V([\d.]+)L[\d.]+ ([\d.]+)", path)[0])
            for path in re.findall(r'd="(M[^"]+Z)"', svg)]  # fmt: skip


class Tread(unittest.TestCase):
    def test_lands_are_as_high_as_their_grooves_are_deep(self):
        lands = tops(tread_section((2.0, 4.0, 6.0), 8.0, 1.6, MM))
        self.assertEqual(len(lands), 4)
        heights = [80 - one for land in lands for one in land]
        self.assertAlmostEqual(heights[0] / 2.0, heights[-1] / 6.0, places=1)
        self.assertEqual(heights, sorted(heights))

    def test_every_drawing_says_its_numbers_and_is_well_formed(self):
        for svg, said in (
            (tread_section((3.1, 4.6, 4.8), 8.0, 1.6, MM), "Tread 3.1 mm, 4.6 mm, 4.8 mm; new 8 mm"),
            (tread_section((), 8.0, 1.6, MM), "Tread not measured"),
            (tread_section((4.0,), 8.0, 1.6, INCH), "5/32 in"),
            (
                brake_section(4.6, None, 24.1, 22.0, MM, new_pad=11.0),
                "Pad inner 4.6 mm, outer not measured; disc 24.1 mm, minimum 22 mm",
            ),
            (brake_section(None, None, None, None, MM, new_pad=11.0), "disc not measured"),
            (drum_section(3.5, MM), "Lining 3.5 mm"),
            (drum_section(None, MM), "Lining not measured"),
        ):
            ElementTree.fromstring(svg)
            self.assertIn(said, svg)

    def test_friction_is_drawn_only_where_it_was_measured(self):
        self.assertEqual(brake_section(5.0, None, None, None, MM, new_pad=11.0).count("sc-friction"), 1)
        self.assertEqual(tread_section((), 8.0, 1.6, MM).count("sc-rubber"), 0)


class Calendar(unittest.TestCase):
    BEGIN = date(2026, 11, 25)

    def test_now_due_spans_and_what_lies_beyond(self):
        rows = [
            CalendarRow("Pads <front>", 0, 0, 0, "measured", now=True, settle=True),
            CalendarRow("Coolant", 0, 0, 0, "measured", now=True),
            CalendarRow("Tyres", 6, 12, 20, "measured"),
            CalendarRow("Exhaust", 9, 43, 90, "guess"),
            CalendarRow("Motor", 70, 90, 200, "guess"),
        ]
        svg = life_calendar(rows, self.BEGIN)
        ElementTree.fromstring(svg)
        self.assertEqual((svg.count("lc-now"), svg.count("lc-due"), svg.count("lc-median")), (1, 1, 2))
        self.assertEqual(svg.count("lc-guess"), 1)
        self.assertIn("Pads &lt;front&gt;", svg)
        self.assertIn("Nov 2031", svg)

    def test_the_narrow_one_says_the_same_with_names_above(self):
        rows = [CalendarRow("Tyres", 6, 12, 20, "measured"), CalendarRow("Coolant", 0, 0, 0, "measured", now=True)]
        wide, narrow = (life_calendar(rows, self.BEGIN, narrow=one) for one in (False, True))
        for mark in ("lc-median", "lc-due", "lc-span", "lc-name"):
            self.assertEqual(wide.count(mark), narrow.count(mark), mark)
        name = next(one for one in ElementTree.fromstring(narrow).iter() if one.get("class") == "lc-name")
        self.assertIsNone(name.get("text-anchor"))
        self.assertIn(">5 years<", narrow)

    def test_an_empty_one_is_a_drawing_too(self):
        ElementTree.fromstring(life_calendar([], self.BEGIN))


class Money(unittest.TestCase):
    def test_the_bar_runs_from_low_to_high_on_one_scale(self):
        rows = [Spending(12, 500, 100, 400, 1000, ()), Spending(36, 1500, 800, 1400, 2000, ())]
        svg = spending_figure(rows, lambda one: f"€{one:.0f}")
        ElementTree.fromstring(svg)
        widths = [float(one) for one in re.findall(r'width="([\d.]+)"', svg)]
        self.assertAlmostEqual(widths[0] / widths[1], 900 / 1200, places=2)
        self.assertIn("12 months: €100 to €1000, middle €400", svg)

    def test_nothing_to_spend_still_draws(self):
        ElementTree.fromstring(spending_figure([Spending(12, 0, 0, 0, 0, ())], str))
