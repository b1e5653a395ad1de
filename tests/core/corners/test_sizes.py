import unittest

from hypothesis import given
from hypothesis import strategies as st

from hakutsu.core.corners.sizes import tyre_size


class ReadingSizes(unittest.TestCase):
    def test_the_usual_size_has_the_circumference_of_the_trade(self):
        size = tyre_size("205/55 R16 91V")
        self.assertAlmostEqual(size.diameter_mm, 16 * 25.4 + 2 * 205 * 0.55)  # 631.9
        self.assertAlmostEqual(size.circumference_m, 1.93, delta=0.005)
        self.assertEqual((size.load, size.speed, size.radial), (91, "V", True))

    def test_prefixes_light_trucks_and_dual_loads(self):
        for text, load, dual, light in (
            ("P205/75R15", None, None, False),
            ("LT235/85R16 120/116Q", 120, 116, True),
            ("185 R14 C 102/100R", 102, 100, True),
            ("195/70R15C 104/102R", 104, 102, True),
            ("31x10.50R15LT 109S", 109, None, True),
            ("T125/70 D16 96M", 96, None, False),
            ("HL 245/40 R20 102Y", 102, None, False),
        ):
            with self.subTest(text):
                size = tyre_size(text)
                self.assertEqual((size.load, size.dual_load, size.light_truck), (load, dual, light))

    def test_no_aspect_means_82_per_cent_and_a_dash_means_bias(self):
        size = tyre_size("165-13")
        self.assertAlmostEqual(size.diameter_mm, 13 * 25.4 + 2 * 165 * 0.82)
        self.assertFalse(size.radial)
        self.assertAlmostEqual(size.circumference_m, 2.99 * size.diameter_mm / 1000)

    def test_speed_in_brackets_and_extra_load(self):
        self.assertEqual(tyre_size("255/40 ZR18 (95Y)").speed, "Y")
        self.assertEqual(tyre_size("255/40 ZR18").speed, "ZR")
        self.assertTrue(tyre_size("195/65 R15 95H XL").extra_load)
        self.assertEqual(tyre_size("31x10.50R15LT").diameter_mm, 31 * 25.4)

    def test_what_is_no_size_is_none(self):
        for text in ("", "abc", "205", "55 R", "R16"):
            self.assertIsNone(tyre_size(text), text)

    @given(st.text(max_size=30))
    def test_any_text_is_read_or_refused_and_never_breaks(self, text):
        size = tyre_size(text)
        self.assertTrue(size is None or size.rim_in > 0)
