import unittest

from hakutsu.vehicle.places import places
from hakutsu.vehicle.standing import stood_at


class WhereOneStands(unittest.TestCase):
    def test_by_hand(self):
        for key, place in (
            ("bonnet", "front"), ("tailgate", "rear"), ("roof", "roof"), ("sill_left", "flank_left"), ("bay", "bay"),
            ("low_beam_left", "front"), ("rear_belt_left", "inside_rear"), ("", ""), ("nonsense", ""),
        ):  # fmt: skip
            with self.subTest(key):
                self.assertEqual(stood_at(key), place)

    def test_every_place_is_seen_from_itself(self):
        self.assertEqual({key: stood_at(key) for key in places()}, {key: key for key in places()})
