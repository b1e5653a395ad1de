import unittest

from hakutsu.core.engine.by_feel import air_by_hand_found, ear_found, needle_found
from hakutsu.core.engine.start import noise_found, smoke_found
from hakutsu.entries.by_feel import AirByHand, ByEar, Compressor, Cooled, Heats, Needle, Sounds, Steadiness
from hakutsu.entries.engine import Clears, Ended, Smoke


def codes(found):
    return [one.code for one in found]


class Ear(unittest.TestCase):
    def test_smooth_and_revving_freely_are_nothing_found(self):
        self.assertEqual(ear_found(ByEar(sounds=("smooth", "revs_freely"))), [])
        for one in Sounds:
            if one not in (Sounds.SMOOTH, Sounds.REVS_FREELY):
                (found,) = ear_found(ByEar(sounds=(one,)))
                self.assertEqual(found.code, f"engine.ear_{one.value}")
                self.assertLess(found.sureness, 0.95)
                self.assertIsNotNone(found.open, "an impression wants a check")


class ANeedle(unittest.TestCase):
    def test_where_it_stands_has_no_limit(self):
        for share in ((0.0, 0.0), (0.95, 1.0)):
            self.assertEqual(needle_found(Needle(of="temperature", share=share, steady="steady")), [])
            self.assertEqual(needle_found(Needle(of="oil", share=share)), [])

    def test_how_it_moves(self):
        for one in (Steadiness.WANDERS, Steadiness.JUMPS, Steadiness.DEAD):
            self.assertEqual(codes(needle_found(Needle(of="oil", steady=one))), [f"engine.needle_{one.value}"])

    def test_it_says_something(self):
        for body in ({"of": "fuel"}, {"of": "fuel", "share": (0.5, 0.4)}):
            with self.assertRaises(ValueError):
                Needle(**body)


class ByHand(unittest.TestCase):
    def test_in_the_cold_nothing_is_concluded_from_nothing(self):
        said = AirByHand(cooled=Cooled.NOT_DIFFERENT, compressor=Compressor.NEVER)
        self.assertEqual(air_by_hand_found(said, outside_c=4.0), [])
        self.assertEqual(codes(air_by_hand_found(said, outside_c=25.0)),
                         ["engine.air_hand_not_different", "engine.compressor_never"])  # fmt: skip

    def test_a_dead_button_is_dead_in_the_cold_too(self):
        said = air_by_hand_found(AirByHand(cooled=Cooled.BUTTON_DEAD), outside_c=4.0)
        self.assertEqual(codes(said), ["engine.air_hand_button_dead"])

    def test_a_cold_heater_on_a_cold_engine_says_nothing(self):
        self.assertEqual(air_by_hand_found(AirByHand(heats=Heats.COLD_ENGINE)), [])
        self.assertEqual(codes(air_by_hand_found(AirByHand(heats=Heats.COLD))), ["engine.heater_hand_cold"])


class SmokeAndNoise(unittest.TestCase):
    def test_smoke_whose_colour_was_not_told(self):
        self.assertEqual(codes(smoke_found(Smoke.SOME)), ["engine.smoke_some"])
        self.assertEqual(codes(smoke_found(Smoke.SOME, Clears.CLEARS)), ["engine.smoke_some_cleared"])

    def test_a_noise_has_an_end_or_none(self):
        for seconds, ended, code in (
            (None, Ended.ENDED, "gone"), (None, Ended.STILL, "stays"), (2.0, Ended.STILL, "stays"),
            (2.0, Ended.UNKNOWN, "gone"), (None, Ended.UNKNOWN, "not_timed"),
        ):  # fmt: skip
            self.assertEqual(codes(noise_found("rattle", seconds, ended)), [f"engine.noise_{code}"], (seconds, ended))
