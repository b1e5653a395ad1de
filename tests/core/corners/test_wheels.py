import unittest

from hakutsu.core.corners.wheels import set_found, wheel_found
from hakutsu.entries.corners import Wheel
from hakutsu.vehicle.vocabulary import Consequence

FL, FR = "wheel_front_left", "wheel_front_right"


class Wheels(unittest.TestCase):
    def words(self, place=FL, **wheel):
        return [one.words for one in wheel_found(place, Wheel(**wheel))]

    def test_fixings_are_settled_by_count(self):
        [one] = wheel_found(FL, Wheel(fixings_missing=1))
        self.assertEqual((one.words, one.consequence), ("1 wheel fixing missing", Consequence.SETTLE))
        self.assertEqual(
            self.words(fixings_loose=2, fixings_cracked=True), ["2 wheel fixings loose", "a wheel fixing cracked"]
        )

    def test_a_narrow_spare_on_the_vehicle_limits_the_road_test_and_in_the_boot_nothing(self):
        self.assertIn("road test is limited", self.words(spare="narrow")[0])
        self.assertEqual(self.words("wheel_spare", spare="narrow"), [])
        self.assertIn("nothing where", self.words("wheel_spare", spare="missing")[0])

    def test_a_lock_nut_key_is_missed_only_when_it_was_looked_for(self):
        self.assertEqual(self.words(), [])
        self.assertEqual(self.words(lock_key=True), [])
        self.assertIn("key of the lock nuts", self.words(lock_key=False)[0])

    def test_designs_are_compared_without_the_spare(self):
        five, star = Wheel(design="five spokes"), Wheel(design="star")
        self.assertEqual(set_found({FL: five, FR: Wheel(design="Five spokes"), "wheel_spare": star}), [])
        [found] = set_found({FL: five, FR: star})
        self.assertEqual(len(found.reasons), 2)
