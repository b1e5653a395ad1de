import unittest

from hakutsu.vehicle.panels import body_styles, walk_order
from hakutsu.vehicle.places import outside, place_of_panel, places, walk
from hakutsu.vehicle.vocabulary import Direction


class Places(unittest.TestCase):
    def test_every_panel_of_every_body_is_reached_from_one_place(self):
        for key, style in body_styles().items():
            for doors in style.doors:
                for panel in walk_order(key, doors):
                    self.assertIn(panel, place_of_panel(), (key, panel))
        reached = [panel for place in places().values() for panel in place.panels]
        self.assertEqual(len(reached), len(set(reached)))

    def test_panels_lie_on_the_side_of_their_place(self):
        for place in places().values():
            for panel in place.panels:
                if place.side:
                    self.assertTrue(panel.endswith(place.side))


class Walks(unittest.TestCase):
    def test_it_goes_round_once_and_then_inside_under_and_to_the_desk(self):
        way = walk()
        self.assertEqual(way[:3], ["front", "front_corner_left", "flank_left"])
        self.assertEqual(sorted(way), sorted(places()))
        self.assertEqual(way[-1], "desk")

    def test_any_start_and_either_way(self):
        way = walk("rear", Direction.RIGHT_FIRST)
        self.assertEqual(way[:3], ["rear", "rear_corner_left", "flank_left"])
        self.assertEqual(set(way[:8]), set(outside()))
        self.assertEqual(walk("flank_right")[:2], ["flank_right", "front_corner_right"])

    def test_a_walk_cannot_begin_inside(self):
        with self.assertRaises(ValueError):
            walk("bay")
