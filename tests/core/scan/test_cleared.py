"""Whether the memory was cleared recently: by what units count, else by what has not run again."""

import unittest

from hakutsu.core.scan.cleared import cleared, still_incomplete
from hakutsu.entries.scan import CodeRead, SinceCleared, Stored, UnitRead

ALL = ("misfire", "fuel_system", "components", "catalyst", "evaporative", "oxygen_sensor", "egr_vvt")


def unit(km=None, warm_ups=None, left=(), monitors=ALL, **more):
    states = {name: "incomplete" if name in left else "complete" for name in monitors}
    return UnitRead(address="7E8", since_cleared=SinceCleared(km=km, warm_ups=warm_ups), readiness=states, **more)


def chance(*units):
    return cleared(units).probability


class Counted(unittest.TestCase):
    def test_few_kilometres_and_warm_ups_are_recent_and_many_are_not(self):
        self.assertGreater(chance(unit(41, 3, ("catalyst", "evaporative"))), 0.9)
        self.assertLess(chance(unit(18_234, 255)), 0.05)

    def test_one_that_lies_far_beyond_speaks_against_it(self):
        self.assertLess(chance(unit(41, 255)), 0.2)
        self.assertLess(chance(unit(9_000, 3)), 0.2)

    def test_near_the_limits_it_is_neither(self):
        self.assertTrue(0.3 < chance(unit(500, 5)) < 0.7)

    def test_one_count_alone_is_believed_less(self):
        self.assertTrue(0.5 < chance(unit(41)) < chance(unit(41, 3)))

    def test_one_cleared_unit_is_enough(self):
        self.assertGreater(chance(unit(18_234, 255), unit(12, 1)), 0.9)

    def test_facts_come_first(self):
        kept = (CodeRead(code="P0420", memory=("permanent",)),)
        said = cleared([unit(41, 1, ("catalyst",), codes=kept)]).because
        self.assertEqual(said[0], "engine unit 7E8: codes cleared {distance 41} and 1 warm-up ago")
        self.assertIn("engine unit 7E8: monitors not complete: catalyst", said)
        self.assertIn("engine unit 7E8: permanent codes without stored ones: P0420", said)


class NotCounted(unittest.TestCase):
    def test_monitors_that_have_not_run_speak_for_it_and_those_that_have_against(self):
        fresh = chance(unit(left=("catalyst", "evaporative", "oxygen_sensor", "egr_vvt")))
        self.assertGreater(fresh, 0.8)
        self.assertLess(chance(unit()), 0.1)

    def test_the_slow_one_alone_proves_little(self):
        self.assertTrue(0.05 < chance(unit(left=("evaporative",))) < 0.6)

    def test_continuous_ones_prove_nothing(self):
        alone = ("misfire", "fuel_system", "components")
        for left in ((), alone):
            self.assertEqual(chance(unit(monitors=alone, left=left)), 0.1)
        self.assertIsNone(still_incomplete("misfire", 3))

    def test_the_published_course(self):
        """0.03 + 0.97 exp(−5/5) = 0.3868; 0.10 + 0.90 exp(−12/12) = 0.4311."""
        self.assertAlmostEqual(still_incomplete("catalyst", 5), 0.3868, 4)
        self.assertAlmostEqual(still_incomplete("evaporative", 12), 0.4311, 4)

    def test_tests_not_completed_since_a_clear_speak_where_nothing_is_counted(self):
        """0.1 before; 0.7 to 0.08 for it: odds 0.111 · 8.75 = 0.972; few against it: 0.111 · 0.3 / 0.92."""
        many, few = (UnitRead(address="7EA", untested=Stored(on=on, of=10)) for on in (8, 1))
        self.assertAlmostEqual(chance(many), 0.972 / 1.972, 3)
        self.assertAlmostEqual(chance(few), 0.0362 / 1.0362, 3)
        self.assertEqual(chance(UnitRead(address="7EA", untested=Stored(on=3, of=3))), 0.1)

    def test_nothing_known_is_said_to_be_nothing_known(self):
        found = cleared([UnitRead(address="7E8")])
        self.assertEqual(found.probability, 0.1)
        self.assertIn("no unit says", found.because[0])


if __name__ == "__main__":
    unittest.main()
