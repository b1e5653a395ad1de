import unittest

import numpy as np

from hakutsu.core.film.model.zones import zone_choices, zone_table
from hakutsu.core.film.parameters import Side, parameters
from hakutsu.vehicle.panels import walk_order

P = parameters().blended
METAL = tuple(key for key in walk_order("hatch", 5) if "bumper" not in key)


class Table(unittest.TestCase):
    def test_both_sides_are_written_out_and_blends_face_their_own_side(self):
        zones = {zone.key: zone for zone in zone_table()[0]}
        self.assertEqual(len(zones), 9)
        left, right = zones["front_corner_left"], zones["front_corner_right"]
        self.assertIn("front_wing_left", left.members)
        self.assertNotIn("front_wing_right", left.members)
        self.assertEqual((left.members["bonnet"].faces, right.members["bonnet"].faces), (Side.FRONT, Side.REAR))
        self.assertEqual(set(zones["rear"].members) & {"rear_quarter_left", "rear_quarter_right"},
                         {"rear_quarter_left", "rear_quarter_right"})  # fmt: skip


class Choices(unittest.TestCase):
    def test_every_combination_has_its_prior_and_chances_add_up(self):
        choices = zone_choices(METAL, P.model_dump_json())
        # none, 9 alone, 36 pairs and 84 threes of nine zones
        self.assertEqual(choices.on.shape, (130, 9))
        self.assertAlmostEqual(np.exp(choices.log_prior).sum(), 1)
        for i in range(len(METAL)):
            total = choices.untouched[i] + choices.painted[i] + choices.blended[i].sum(axis=1)
            np.testing.assert_allclose(total, 1)

    def test_one_repaired_zone_by_hand(self):
        choices = zone_choices(METAL, P.model_dump_json())
        wing, sporadic = METAL.index("front_wing_left"), zone_table()[1]
        zone = next(z for z in zone_table()[0] if z.key == "front_corner_left")
        only = next(k for k, row in enumerate(choices.on) if row.sum() == 1 and row[choices.zones.index(zone)] == 1)
        row = choices.which[wing][only]
        member = zone.members["front_wing_left"]
        expected = 1 - (1 - sporadic.painted) * (1 - member.painted)
        self.assertAlmostEqual(choices.painted[wing][row], expected)
        none = choices.which[wing][0]
        self.assertAlmostEqual(choices.painted[wing][none], sporadic.painted)

    def test_more_repaired_zones_never_leave_a_panel_more_likely_untouched(self):
        choices = zone_choices(METAL, P.model_dump_json())
        for i in range(len(METAL)):
            most = choices.untouched[i][choices.which[i][0]]
            self.assertTrue((choices.untouched[i] <= most + 1e-12).all())

    def test_weights_of_combinations_become_weights_of_rows(self):
        choices = zone_choices(METAL, P.model_dump_json())
        for i in range(len(METAL)):
            self.assertAlmostEqual(choices.average[i].sum(), 1)
            np.testing.assert_allclose(choices.having[i].sum(axis=1), 1)
            np.testing.assert_allclose(choices.lacking[i].sum(axis=1), 1)
