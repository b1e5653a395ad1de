import re
import unittest

from hakutsu.figures.trims import LEFT, WIDE, bank_trims, trims_drawing

LIVE = {"short_trim_1_percent": 5.0, "long_trim_1_percent": 15.0, "short_trim_2_percent": 1.0}


class Trims(unittest.TestCase):
    def test_a_bank_needs_both_trims(self):
        self.assertEqual(bank_trims(LIVE), [("bank 1", 5.0, 15.0)])
        self.assertEqual(trims_drawing({}), "")

    def test_the_dot_lies_where_both_together_say(self):
        """20 of −40 to 40 is three quarters of the way."""
        drawn = trims_drawing(LIVE)
        across = WIDE - LEFT - 14
        dots = [float(one) for one in re.findall(r'<circle cx="([0-9.]+)"', drawn)]
        self.assertAlmostEqual(dots[0], LEFT + across * 55 / 80, delta=0.1)
        self.assertAlmostEqual(dots[1], LEFT + across * 60 / 80, delta=0.1)
        self.assertIn("fuel trim of bank 1 +20 %", drawn)

    def test_far_beyond_the_scale_it_stays_within(self):
        drawn = trims_drawing({"short_trim_1_percent": 90.0, "long_trim_1_percent": 90.0})
        self.assertTrue(all(float(one) <= WIDE for one in re.findall(r'cx="([0-9.]+)"', drawn)))


if __name__ == "__main__":
    unittest.main()
