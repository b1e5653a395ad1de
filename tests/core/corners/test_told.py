import unittest

from hypothesis import given
from hypothesis import strategies as st

from hakutsu.core.corners.told import pad_span, pads_told, treads_told
from hakutsu.entries.corners import Brake, Compared, Lining, Tyre

FL, FR, RL = "wheel_front_left", "wheel_front_right", "wheel_rear_left"


class Pads(unittest.TestCase):
    def test_half_left_holds_both_schools(self):
        # of 11 ± 1 mm when new, 3 mm the limit: half of 10 is 5; half way from 12 to 3 is 7.5
        self.assertEqual(pad_span(FL, Brake(pad_percent=(50, 50))), (5.0, 7.5))

    def test_a_distance_left_is_turned_back_by_what_a_millimetre_lasts(self):
        low, high = pad_span(FL, Brake(pad_km_left=(18_000, 18_000)))
        self.assertAlmostEqual(low, 3 + 18_000 / (9000 * 1.5))
        self.assertAlmostEqual(high, 3 + 18_000 * 1.5 / 9000)

    def test_a_little_less_than_the_front(self):
        brakes = {
            FL: Brake(pad_inner_mm=6.0, pad_outer_mm=7.0),
            RL: Brake(compared="little_less", compared_to="axle_front"),
        }
        self.assertEqual(pads_told(brakes)[RL].pad_range_mm, (4.0, 5.7))

    def test_compared_with_what_nobody_knows_it_stays_unknown(self):
        self.assertIsNone(pads_told({RL: Brake(compared="same", compared_to=FL)})[RL].pad_range_mm)

    def test_what_was_measured_stays_as_it_is(self):
        brake = Brake(pad_inner_mm=6.0, pad_percent=(10, 10))
        self.assertEqual(pads_told({FL: brake})[FL], brake)

    def test_a_comparison_says_with_what(self):
        for body in ({"compared": "same"}, {"compared_to": FL}, {"compared": "same", "compared_to": "roof"}):
            with self.assertRaises(ValueError):
                Brake(**body)

    def test_linings_seen_and_not_measured(self):
        told = {one: pads_told({RL: Brake(lining=one)})[RL].lining_mm for one in Lining if one is not Lining.UNKNOWN}
        self.assertEqual(list(told.values()), sorted(told.values(), reverse=True))
        self.assertEqual(told[Lining.RIVETS], 0.0)
        self.assertEqual(Brake(lining="rivets").causes(), ("friction_gone",))

    @given(st.floats(0, 100), st.floats(0, 100))
    def test_more_per_cent_is_never_less_friction(self, one, other):
        less, more = sorted((one, other))
        a, b = (pad_span(FL, Brake(pad_percent=(share, share))) for share in (less, more))
        self.assertTrue(a[0] <= b[0] and a[1] <= b[1])
        self.assertLessEqual(a[0], a[1])


class Treads(unittest.TestCase):
    def test_a_range_of_per_cent_by_both_schools(self):
        legal = treads_told({FL: Tyre(per_cent_range=(50, 60))}, 1.6)[FL].range_mm
        self.assertEqual([round(one, 2) for one in legal], [4.8, 5.44])
        new = treads_told({FL: Tyre(per_cent_range=(50, 60), per_cent_of="new")}, 1.6)[FL].range_mm
        self.assertEqual([round(one, 2) for one in new], [4.0, 4.8])

    def test_the_same_as_the_other_side(self):
        told = treads_told({FL: Tyre(depth_mm=(5.0,)), FR: Tyre(compared="same", compared_to=FL)}, 1.6)
        self.assertEqual(told[FR].range_mm, (4.3, 5.7))

    def test_every_comparison_has_its_figures(self):
        for one in Compared:
            if one is not Compared.UNKNOWN:
                tyres = {FL: Tyre(depth_mm=(5.0,)), FR: Tyre(compared=one, compared_to=FL)}
                self.assertIsNotNone(treads_told(tyres, 1.6)[FR].range_mm)
