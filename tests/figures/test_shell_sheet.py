import re
import unittest
from xml.etree import ElementTree

import numpy as np

from hakutsu.core.film import NextSpot, State, analyse
from hakutsu.figures.contours import contour_path
from hakutsu.figures.shell_sheet import LAYERS, SheetPanel, positions, shell_sheet
from hakutsu.vehicle.panels import panels, walk_order
from hakutsu.vehicle.shell import shell
from hakutsu.vehicle.terms import PLAIN
from hakutsu.vehicle.vocabulary import Unit
from tests.builders import honest_car, readings, survey

KEYS = tuple(walk_order("hatch", 5))
PATCHES = shell("hatch", 5, KEYS)
LOW = {(0.5, 0.1): 940, (0.3, 0.15): 700, (0.7, 0.2): 620, (0.3, 0.8): 236, (0.7, 0.8): 229, (0.5, 0.6): 240}
FILLED = [o for (u, v), um in LOW.items() for o in readings("rear_quarter_right", um, u=u, v=v)]


def sheet(*parts, unit=Unit.UM, **more):
    found = analyse(survey(*parts))
    shown = []
    for key in KEYS:
        one = found.panel(key)
        state, share, where = (one.state, one.filled_share, one.filler_map) if one else (None, None, None)
        read = [o for part in parts for o in part if o.panel == key]
        words = one.words if one else "not read"
        shown.append(SheetPanel(key, panels()[key].code, PLAIN.panel(key), state, words, read, share, where, f"?{key}"))
    base = found.baseline.median if found.baseline else None
    return shell_sheet(shown, PATCHES, unit, baseline_um=base, **more)


class Sheet(unittest.TestCase):
    def test_it_is_well_formed_with_every_panel_once_and_every_layer(self):
        drawn = ElementTree.fromstring(sheet(honest_car(), FILLED))
        links = [one.attrib["data-panel"] for one in drawn.iter("a")]
        self.assertEqual(links, list(KEYS))
        self.assertEqual(
            {one.attrib["data-layer"] for one in drawn.iter("g") if "data-layer" in one.attrib}, set(LAYERS)
        )

    def test_readings_stand_at_their_places_and_those_without_one_are_left_out(self):
        svg = sheet(honest_car(), readings("roof", 133, u=0.5, v=0.5))
        x, y = PATCHES["roof"].at(0.5, 0.5)
        self.assertRegex(svg, rf'x="{x:g}" y="{y + 3:.1f}"[^>]*>133</text>')
        self.assertNotIn(">116<", svg)

    def test_what_stands_out_is_bold_and_over_range_says_so(self):
        svg = sheet(
            honest_car(), readings("roof", 118, u=0.2, v=0.2), readings("roof", "over", u=0.8, v=0.5, limit_um=1500)
        )
        self.assertRegex(svg, r'class="sh-number">118<')
        self.assertRegex(svg, r'class="sh-number sh-more">≥1500<')

    def test_filler_is_drawn_inside_a_contour_with_its_area(self):
        svg = sheet(honest_car(), FILLED)
        self.assertIn("sh-filler", svg)
        self.assertRegex(svg, r"suspected filler, [\d,]+ to [\d,]+ cm²")
        self.assertNotIn('class="sh-filler"', sheet(honest_car()))

    def test_the_next_spot_is_marked_at_its_place(self):
        svg = sheet(honest_car(), spot=NextSpot("tailgate", 0.25, 0.75, 0.31, 0.2))
        x, y = PATCHES["tailgate"].at(0.25, 0.75)
        self.assertIn(f"M{x - 11:.1f} {y:.1f}h6", svg)
        self.assertIn("the most useful next reading", svg)

    def test_mil_and_words(self):
        self.assertIn(">5.0<", sheet(honest_car(), readings("roof", 127, u=0.5, v=0.5), unit=Unit.MIL))
        said = positions(
            [*readings("roof", 118, u=0.25, v=0.5), *readings("roof", 121), *readings("roof", "none")], Unit.UM
        )
        self.assertEqual(said, "118 at 0.25, 0.50; 121; no reading")

    def test_no_colour_stands_in_the_drawing(self):
        self.assertNotRegex(sheet(honest_car(), FILLED), r"#[0-9a-f]{3}\b|fill=|style=")


class Contours(unittest.TestCase):
    def test_nothing_above_the_level_draws_nothing(self):
        self.assertEqual(contour_path(np.zeros((6, 6)), 0.5, PATCHES["roof"]), "")

    def test_a_whole_panel_is_drawn_to_its_edges_and_stays_within(self):
        path = contour_path(np.ones((24, 24)), 0.5, PATCHES["roof"])
        points = np.array([[float(x) for x in pair.split()] for pair in re.findall(r"[\d.-]+ [\d.-]+", path)])
        corners = np.array(PATCHES["roof"].corners)
        self.assertTrue((points.min(axis=0) >= corners.min(axis=0) - 0.1).all())
        self.assertTrue((points.max(axis=0) <= corners.max(axis=0) + 0.1).all())
        self.assertGreater(np.ptp(points[:, 0]), 0.95 * np.ptp(corners[:, 0]))

    def test_two_islands_are_two_closed_paths(self):
        chance = np.zeros((8, 8))
        chance[1, 1] = chance[6, 6] = 1
        path = contour_path(chance, 0.5, PATCHES["roof"])
        self.assertEqual((path.count("M"), path.count("Z")), (2, 2))


class States(unittest.TestCase):
    def test_the_state_is_told_by_a_glyph_also_on_the_sheet(self):
        svg = sheet(honest_car(), FILLED)
        self.assertIn("st-lens", svg)
        self.assertEqual(analyse(survey(honest_car(), FILLED)).panel("rear_quarter_right").state, State.FILLED)
