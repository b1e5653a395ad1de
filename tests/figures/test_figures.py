import re
import unittest
from xml.etree import ElementTree

from hakutsu.core.film import State, analyse
from hakutsu.figures.film_profile import ProfilePanel, column_numbers, film_profile
from hakutsu.figures.strata import strata_glyph
from hakutsu.vehicle.vocabulary import Unit
from tests.builders import honest_car, readings, survey


def heights(svg, kind):
    return [float(h) for h in re.findall(rf'height="([\d.]+)" class="{kind}"', svg)]


class StrataGlyph(unittest.TestCase):
    def test_every_state_has_a_shape_of_its_own(self):
        drawn = {strata_glyph(state) for state in (*State, None)}
        self.assertEqual(len(drawn), 7)

    def test_layers_say_how_often_it_was_painted(self):
        count = {state: strata_glyph(state).count("st-film") for state in State}
        self.assertEqual([count[s] for s in (State.ORIGINAL, State.REFINISHED, State.REBUILT)], [1, 2, 3])

    def test_no_colour_stands_in_the_drawing(self):
        for state in State:
            self.assertNotRegex(strata_glyph(state), r"#[0-9a-f]{3}|fill=|style=")


class FilmProfile(unittest.TestCase):
    def draw(self, observations, unit=Unit.UM, state=State.ORIGINAL, name="Roof", **more):
        base = analyse(survey(honest_car())).baseline
        return film_profile([ProfilePanel("roof", "ro", name, state, "words", observations, **more)], base, unit)

    def test_it_is_well_formed_and_escapes_names(self):
        svg = self.draw(readings("roof", 112), name='<b>"&')
        ElementTree.fromstring(svg)
        self.assertNotIn("<b>", svg)

    def test_a_thicker_film_is_a_higher_column(self):
        low, high = heights(self.draw(readings("roof", 150, 300)), "fp-more")
        self.assertGreater(high, low)

    def test_film_below_baseline_leaves_an_outlined_gap(self):
        self.assertEqual(len(heights(self.draw(readings("roof", 80)), "fp-missing")), 1)

    def test_over_range_columns_have_no_lid_and_say_at_least(self):
        svg = self.draw(readings("roof", "over", limit_um=1500))
        self.assertIn("fp-open", svg)
        self.assertIn("at least 1,500 µm", svg)

    def test_filler_is_hatched_only_where_the_panel_is_filled(self):
        values = readings("roof", 230, 240, 900)
        self.assertEqual(len(heights(self.draw(values, state=State.FILLED), "fp-filler")), 1)
        self.assertEqual(heights(self.draw(values, state=State.REFINISHED), "fp-filler"), [])

    def test_the_scale_follows_the_unit(self):
        self.assertIn(">200<", self.draw(readings("roof", 112)))
        self.assertIn("4.4 mil", self.draw(readings("roof", 112), Unit.MIL))

    def test_nothing_read_still_draws(self):
        ElementTree.fromstring(film_profile([], None, Unit.UM))
        ElementTree.fromstring(self.draw([]))

    def test_the_numbers_stand_beside_it(self):
        values = [*readings("roof", 112, "over", "none", limit_um=1500), *readings("roof", 70, edge=True)]
        self.assertEqual(column_numbers(values, Unit.UM), "112, ≥ 1,500, no reading, 70 (edge)")
