import unittest

from hakutsu.core.film import State, analyse
from hakutsu.vehicle.vocabulary import Finish
from tests.builders import honest_car, readings, survey

OTHERS = [o for key in ("tailgate", "rear_quarter_left", "rear_quarter_right", "front_wing_right", "front_door_right")
          for o in readings(key, 117, 119, 118)]  # fmt: skip


def at(panel, places):
    return [o for (u, v), um in places.items() for o in readings(panel, um, u=u, v=v)]


def struck_front_left(bonnet):
    wing = readings("front_wing_left", 231, 244, 226, 238)
    return survey(honest_car(without=("front_wing_left", "bonnet")), OTHERS, wing, bonnet)


TOWARDS_LEFT = at("bonnet", {(0.1, 0.5): 171, (0.2, 0.3): 168, (0.8, 0.5): 121, (0.7, 0.3): 119, (0.9, 0.7): 118})
TOWARDS_RIGHT = at("bonnet", {(0.9, 0.5): 171, (0.8, 0.3): 168, (0.2, 0.5): 121, (0.3, 0.3): 119, (0.1, 0.7): 118})


class Zones(unittest.TestCase):
    def told(self, car, **more):
        return {zone.zone: zone for zone in analyse(car, **more).story}

    def test_four_corners_two_flanks_front_rear_roof_and_the_whole_car(self):
        self.assertEqual(len(self.told(struck_front_left(TOWARDS_LEFT))), 10)

    def test_a_painted_wing_and_a_blend_facing_it_tell_of_that_corner(self):
        zone = self.told(struck_front_left(TOWARDS_LEFT))["front_corner_left"]
        self.assertGreater(zone.probability, 0.9)
        self.assertTrue(any("Front wing, left: refinished" in one for one in zone.speaks_for))
        self.assertTrue(any("Bonnet: blended" in one and "side it should be" in one for one in zone.speaks_for))

    def test_a_blend_facing_the_other_way_speaks_less_for_it(self):
        facing, away = (self.told(struck_front_left(b))["front_corner_left"] for b in (TOWARDS_LEFT, TOWARDS_RIGHT))
        self.assertGreater(facing.probability, away.probability)

    def test_neighbours_painted_along_make_a_doubtful_panel_likelier_altered(self):
        doubtful = readings("front_door_left", 139, 136)
        alone = survey(honest_car(without=("front_door_left",)), OTHERS, doubtful)
        beside = survey(
            honest_car(without=("front_door_left", "front_wing_left")), OTHERS, doubtful,
            readings("front_wing_left", 231, 244, 226, 238),
        )  # fmt: skip
        self.assertGreater(
            analyse(beside).panel("front_door_left").altered, analyse(alone).panel("front_door_left").altered + 0.1
        )

    def test_an_untouched_car_tells_no_zone(self):
        story = analyse(survey(honest_car(), OTHERS)).story
        self.assertLess(max(zone.probability for zone in story), 0.1)
        self.assertTrue(all(zone.speaks_against for zone in story if zone.zone != "whole_car"))

    def test_left_and_right_alike_speak_against_one_repair(self):
        both = [o for side in ("left", "right") for o in readings(f"front_wing_{side}", 205, 209, 206)]
        others = [o for o in OTHERS if "front_wing" not in o.panel]
        zone = self.told(survey(honest_car(without=("front_wing_left",)), others, both))["front_corner_left"]
        self.assertTrue(any("left and right read alike" in one for one in zone.speaks_against))

    def test_a_resprayed_car_is_the_whole_cars_story(self):
        car = readings("roof", 228, 252, 214)
        for i, key in enumerate(("bonnet", "tailgate", "front_door_left", "rear_door_left", "front_wing_right")):
            car += readings(key, 205 + 17 * i, 248 - 9 * i, 233)
        story = self.told(survey(car, finish=Finish.UNKNOWN))
        self.assertGreater(story["whole_car"].probability, 0.9)
        self.assertTrue(all(panel.state is State.REFINISHED for panel in analyse(survey(car)).panels))

    def test_without_readings_there_is_no_story(self):
        self.assertEqual(analyse(survey(roof="steel")).story, ())
