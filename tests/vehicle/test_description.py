import unittest

from pydantic import ValidationError

from hakutsu.vehicle.panels import panels
from hakutsu.vehicle.protocol import expected_readings, spot_pattern
from hakutsu.vehicle.vocabulary import Protocol, Substrate
from tests.builders import car


class Description(unittest.TestCase):
    def test_panels_follow_from_body_style_and_can_be_edited(self):
        van = car(body_style="van", doors=4, not_fitted=("roof",), also_fitted=("tailgate",))
        self.assertNotIn("roof", van.panel_keys())
        self.assertEqual(van.panel_keys()[-1], "tailgate")

    def test_substrates_can_be_edited(self):
        edited = car(substrates={"bonnet": "aluminium"})
        self.assertIs(edited.substrate("bonnet"), Substrate.ALUMINIUM)
        self.assertIs(edited.substrate("roof"), Substrate.STEEL)

    def test_what_cannot_be_is_refused(self):
        for wrong in ({"name": " "}, {"body_style": "boat"}, {"doors": 9}, {"body_style": "pickup", "doors": 5},
                      {"not_fitted": ("keel",)}, {"name": "x" * 121}):  # fmt: skip
            with self.subTest(wrong), self.assertRaises(ValidationError):
                car(**wrong)


class SpotPatterns(unittest.TestCase):
    def test_large_panels_have_five_spots_and_flanks_one_more_at_the_low_edge(self):
        self.assertEqual(len(spot_pattern(panels()["bonnet"])), 5)
        self.assertEqual(len(spot_pattern(panels()["front_door_left"])), 6)
        self.assertEqual(len(spot_pattern(panels()["sill_left"])), 3)

    def test_the_protocol_sets_what_is_expected(self):
        door, sill = panels()["front_door_left"], panels()["sill_left"]
        wanted = {Protocol.QUICK: (1, 0), Protocol.STANDARD: (3, 2), Protocol.THOROUGH: (6, 3)}
        for protocol, counts in wanted.items():
            self.assertEqual((expected_readings(door, protocol), expected_readings(sill, protocol)), counts)
