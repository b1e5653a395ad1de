import unittest

from hakutsu.vehicle.panels import body_styles, default_substrate, panel_by_code, panels, walk_order
from hakutsu.vehicle.vocabulary import Substrate


class PanelTable(unittest.TestCase):
    def test_every_panel_of_the_exchange_format_is_there(self):
        single = "bonnet boot_lid tailgate roof scuttle front_valance rear_panel front_bumper rear_bumper cab_back"
        sided = (
            "front_wing front_door rear_door sliding_door load_door side_panel bed_side rear_quarter sill "
            "a_pillar b_pillar c_pillar"
        )
        wanted = set(single.split()) | {f"{name}_{side}" for name in sided.split() for side in ("left", "right")}
        self.assertEqual(set(panels()), wanted)

    def test_short_codes_are_unique_and_never_numbers(self):
        self.assertEqual(len(panel_by_code()), len(panels()))
        self.assertFalse([code for code in panel_by_code() if not code.isalpha()])

    def test_a_code_names_its_panel(self):
        self.assertEqual(panel_by_code()["fdl"].key, "front_door_left")

    def test_mirror_is_the_same_panel_on_the_other_side(self):
        self.assertEqual(panels()["sill_left"].mirror, "sill_right")
        self.assertEqual(panels()["sill_right"].mirror, "sill_left")
        self.assertIsNone(panels()["roof"].mirror)

    def test_bumpers_are_plastic_and_the_rest_steel(self):
        self.assertIs(default_substrate("front_bumper"), Substrate.PLASTIC)
        self.assertIs(default_substrate("bonnet"), Substrate.STEEL)


class WalkOrder(unittest.TestCase):
    def test_all_eight_body_styles_are_there(self):
        self.assertEqual(
            set(body_styles()), {"hatch", "estate", "saloon", "coupe", "suv", "pickup", "van", "convertible"}
        )

    def test_each_style_and_door_count_gives_known_panels_once(self):
        for key, style in body_styles().items():
            for doors in style.doors:
                with self.subTest(style=key, doors=doors):
                    order = walk_order(key, doors)
                    self.assertEqual(len(order), len(set(order)))
                    self.assertLessEqual(set(order), set(panels()))

    def test_rear_doors_come_with_four_doors(self):
        self.assertIn("rear_door_left", walk_order("hatch", 5))
        self.assertNotIn("rear_door_left", walk_order("hatch", 3))

    def test_the_walk_goes_down_the_left_flank_and_back_up_the_right(self):
        order = walk_order("saloon", 4)
        places = [order.index(key) for key in ("front_wing_left", "rear_quarter_left", "boot_lid")]
        places += [order.index(key) for key in ("rear_quarter_right", "front_wing_right")]
        self.assertEqual(places, sorted(places))

    def test_a_convertible_has_no_roof_to_anchor_on(self):
        self.assertNotIn("roof", walk_order("convertible", 2))

    def test_the_roof_comes_first_as_anchor(self):
        self.assertEqual(walk_order("estate", 5)[0], "roof")
