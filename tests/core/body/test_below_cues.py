import unittest

from hypothesis import given
from hypothesis import strategies as st

from hakutsu.core.body.cues import PULLED, WORKED, below_cues
from hakutsu.core.film import cue_kinds
from hakutsu.entries.engine import Bay
from hakutsu.entries.under import RepairSign, UnderZone
from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.under import zones


def looks(*seen):
    return {one.zone: one for one in seen}


class BelowCues(unittest.TestCase):
    def test_a_zone_speaks_of_the_panels_that_hang_on_it_on_its_side(self):
        found = below_cues(looks(UnderZone(zone="front_rail_left", repair=("pulled",))), None)
        self.assertEqual(set(found), {"front_wing_left", "bonnet"})
        self.assertEqual(found["front_wing_left"], {WORKED: False, PULLED: True})

    def test_light_signs_are_another_cue_than_grave_ones(self):
        found = below_cues(looks(UnderZone(zone="rear_rail_right", repair=("sealer",))), None)
        self.assertEqual(found["rear_quarter_right"], {WORKED: True, PULLED: False})

    def test_looked_and_nothing_is_absence_and_not_visible_says_nothing(self):
        self.assertEqual(below_cues(looks(UnderZone(zone="under_sill_left", clear=("repair",))), None),
                         {"sill_left": {WORKED: False, PULLED: False}})  # fmt: skip
        self.assertEqual(below_cues(looks(UnderZone(zone="under_sill_left", not_visible="mud")), None), {})

    def test_a_zone_of_which_only_the_exhaust_was_noted_says_nothing_of_work(self):
        self.assertEqual(below_cues(looks(UnderZone(zone="under_sill_left", exhaust="sound", rust="stain")), None), {})

    def test_one_zone_with_a_sign_outweighs_another_without(self):
        both = looks(
            UnderZone(zone="front_rail_left", repair=("weld",)), UnderZone(zone="front_rail_right", clear=("repair",))
        )
        self.assertTrue(below_cues(both, None)["bonnet"][PULLED])
        self.assertFalse(below_cues(both, None)["front_wing_right"][PULLED])

    def test_signs_under_the_bonnet_speak_of_both_sides_unless_one_was_said(self):
        bolts = Bay(signs=("bolts",))
        self.assertEqual(set(below_cues({}, bolts)), {"front_wing_left", "front_wing_right", "bonnet"})
        self.assertEqual(
            set(below_cues({}, bolts.model_copy(update={"side": "right"}))), {"front_wing_right", "bonnet"}
        )
        self.assertEqual(below_cues({}, Bay(signs=("filter",))), {})

    @given(st.sampled_from(sorted(zones())), st.sets(st.sampled_from(list(RepairSign))))
    def test_every_panel_and_cue_it_names_exists(self, zone, signs):
        for panel, cues in below_cues(looks(UnderZone(zone=zone, repair=tuple(signs))), None).items():
            self.assertIn(panel, panels())
            self.assertLessEqual(set(cues), set(cue_kinds()))
