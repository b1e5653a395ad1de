import unittest

from hakutsu.vehicle.quantities import QUANTITIES, scales, signed


class Quantities(unittest.TestCase):
    def test_published_equivalents(self):
        for quantity, unit, shown, stored in (
            ("distance", "mi", 1, 1.609344),
            ("depth", "in32", 2, 1.5875),
            ("temperature", "f", 212, 100),
            ("temperature", "f", -40, -40),
            ("pressure", "psi", 32, 2.206),
            ("pressure", "kpa", 220, 2.2),
        ):
            with self.subTest(unit=unit, shown=shown):
                self.assertAlmostEqual(scales(quantity)[unit].stored(shown), stored, places=3)
                self.assertAlmostEqual(scales(quantity)[unit].shown(stored), shown, places=2)

    def test_words(self):
        self.assertEqual(scales("distance")["mi"].words(12_000), "7,456 mi")
        self.assertEqual(scales("depth")["in32"].words(1.6), "2/32 in")
        said = [signed(0.72), signed(-3), signed(-0.25, 2), signed(0.5, 2), signed(120), signed(-0.04)]
        self.assertEqual(said, ["+0.7", "−3", "−0.25", "+0.5", "+120", "+0"])
        self.assertEqual(scales("depth")["in32"].several((3.2, 4.0)), "4/32, 5/32 in")
        self.assertEqual(scales("depth")["mm"].several((4.6, 4.0)), "4.6 / 4 mm")
        self.assertEqual(scales("temperature")["c"].words(14.5), "14.5 °C")
        self.assertEqual(scales("temperature")["c"].words(-0.01), "0 °C")

    def test_a_number_read_back_as_it_was_shown_keeps_what_is_stored(self):
        for quantity in QUANTITIES:
            for scale in scales(quantity).values():
                for stored in (3.337, 12_345.678, 0.04):
                    self.assertEqual(scale.taken(scale.number(stored), stored), stored)
        self.assertEqual(scales("distance")["mi"].taken("8,000", 12_000), 8000 * 1.609344)

    def test_a_difference_has_no_offset(self):
        self.assertEqual([scales("temperature")[unit].difference(5) for unit in "cf"], ["5 °C", "9 °F"])

    def test_what_people_write(self):
        celsius = scales("temperature")["c"]
        self.assertEqual([celsius.taken(text) for text in ("14,5", " 14.5 ", "−3")], [14.5, 14.5, -3])
        for text in ("", "warm", "1.2.3"):
            with self.assertRaises(ValueError):
                celsius.taken(text)
