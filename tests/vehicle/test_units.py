import unittest

from hakutsu.vehicle.units import from_um, show, to_um
from hakutsu.vehicle.vocabulary import Unit


class Units(unittest.TestCase):
    def test_one_mil_is_25_4_micrometres(self):
        self.assertAlmostEqual(to_um(4.5, Unit.MIL), 114.3)
        self.assertAlmostEqual(from_um(127, Unit.MIL), 5.0)

    def test_there_and_back_changes_nothing(self):
        for value in (0.5, 112, 3000):
            self.assertAlmostEqual(from_um(to_um(value, Unit.MIL), Unit.MIL), value)

    def test_numbers_are_written_as_a_gauge_shows_them(self):
        self.assertEqual(show(112.4, Unit.UM), "112 µm")
        self.assertEqual(show(1200, Unit.UM), "1,200 µm")
        self.assertEqual(show(114.3, Unit.MIL), "4.5 mil")
        self.assertEqual(show(114.3, Unit.MIL, with_unit=False), "4.5")
