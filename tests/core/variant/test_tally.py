"""Features weighed: by hand, in windows, once an assembly."""

import unittest
from datetime import date

from hakutsu.core.variant.tally import Window, tally, variant_found, weak_found, window
from hakutsu.entries.variant import FeatureSeen, WeakSeen
from hakutsu.vehicle.library import FeatureRow, WeakRow

BUILT = (date(2019, 3, 1), date(2019, 3, 31))


def feature(key, weight="bolted", **more):
    return FeatureRow(key=key, name=key, expected="there", weight=weight, **more)


def seen(**results):
    return {key: FeatureSeen(feature=key, result=result) for key, result in results.items()}


def chance(rows, built=BUILT, **results):
    return tally(rows, seen(**results), built).chance


class Weighed(unittest.TestCase):
    def test_by_hand(self):
        self.assertAlmostEqual(chance([feature("a")]), 0.9)
        odds = 9 * 0.90 / 0.50
        self.assertAlmostEqual(chance([feature("a")], a="agrees"), odds / (1 + odds), places=6)
        odds = 9 * (0.03 / 0.85)
        self.assertAlmostEqual(chance([feature("a", "stamp")], a="disagrees"), odds / (1 + odds), places=6)

    def test_numbers_tell_more_than_badges(self):
        order = ["number", "stamp", "casting", "bolted", "badge"]
        agree = [chance([feature("a", one)], a="agrees") for one in order]
        self.assertEqual(agree, sorted(agree, reverse=True))
        self.assertLess(chance([feature("a", "number")], a="disagrees"), chance([feature("a", "badge")], a="disagrees"))

    def test_hidden_and_replaced_say_nothing(self):
        for result in ("hidden", "replaced"):
            self.assertAlmostEqual(chance([feature("a", "number")], a=result), 0.9)

    def test_a_swapped_assembly_counts_once_by_what_tells_most(self):
        one = [feature("a", "stamp", assembly="engine")]
        both = [feature("b", "bolted", assembly="engine"), *one]
        self.assertAlmostEqual(chance(one, a="disagrees"), chance(both, a="disagrees", b="disagrees"))

    def test_windows(self):
        self.assertIs(window(feature("a"), None), Window.WITHIN)
        self.assertIs(window(feature("a", since="2018-09"), None), Window.MAYBE)
        self.assertIs(window(feature("a", since="2018-09"), BUILT), Window.WITHIN)
        self.assertIs(window(feature("a", since="2019-03"), (date(2019, 1, 1), date(2019, 12, 31))), Window.MAYBE)
        self.assertIs(window(feature("a", until="2018"), BUILT), Window.OUTSIDE)

    def test_what_is_not_of_its_time_says_nothing_and_what_changed_then_only_where_it_agrees(self):
        old = [feature("a", "number", until="2018")]
        self.assertAlmostEqual(chance(old, a="disagrees"), 0.9)
        year = (date(2019, 1, 1), date(2019, 12, 31))
        mid = [feature("a", "number", since="2019-06")]
        self.assertAlmostEqual(chance(mid, year, a="disagrees"), 0.9)
        self.assertGreater(chance(mid, year, a="agrees"), 0.95)

    def test_the_number_would_tell_most(self):
        told = tally([feature("a", "badge"), feature("b", "number")], {}, BUILT)
        self.assertEqual(told.best.row.key, "b")
        self.assertEqual(tally([feature("b", "number")], seen(b="agrees"), BUILT).best, None)

    def test_features_that_shut_each_other_out(self):
        rows = [feature("a", excludes=("b",)), feature("b", excludes=("a",))]
        told = tally(rows, seen(a="agrees", b="agrees"), BUILT)
        self.assertEqual(len(told.excluding), 1)
        self.assertEqual([one.code for one in variant_found(told, "it")], ["variant.excluding"])

    def test_what_it_comes_to(self):
        rows = [feature("a", "number"), feature("b", "stamp")]
        codes = [[one.code for one in variant_found(tally(rows, seen(**said), BUILT), "it")] for said in (
            {"a": "agrees", "b": "agrees"}, {"a": "disagrees", "b": "disagrees"}, {"b": "disagrees"}, {},
        )]  # fmt: skip
        self.assertEqual(codes, [[], ["variant.doubt"], ["variant.doubt"], []])

    def test_weak_points_that_have_come(self):
        rows = [WeakRow(key="drain", name="drain blocks", place="boot"), WeakRow(key="strut", name="struts tire")]
        told = weak_found(
            rows, {"drain": WeakSeen(weak="drain", result="found"), "strut": WeakSeen(weak="strut", result="none")}
        )
        self.assertEqual([(one.code, one.subject, key) for one, key in told], [("variant.weak_found", "boot", "drain")])
