import unittest

from hakutsu.core.consequence import Looks, base, codes
from hakutsu.core.findings import found
from hakutsu.core.taste import OfMark, by_law, of_looks, of_mark, taste_table
from hakutsu.entries.body import Blemish, BlemishKind, ShowsFrom
from hakutsu.vehicle.rules import rule_sets
from hakutsu.vehicle.vocabulary import Taste

STEEL, PAINTED = OfMark(metal=True, refinish=False), OfMark(metal=True, refinish=True)
PLASTIC = OfMark(metal=False, refinish=False)


def asked(taste, shows="unknown", of=STEEL, kind="scratch", **more):
    what, why = of_mark(Blemish(kind=kind, shows_from=shows, **more), Taste(taste), of)
    return (what.value if what else None), why


class OfMarks(unittest.TestCase):
    def test_how_far_it_shows_against_the_taste(self):
        # who wants it, then what is asked for where it shows from: across the yard, arm's length, close, not told
        for taste, wanted in {
            "show": ("settle", "settle", "settle", "settle"),
            "tidy": ("settle", "settle", "live_with", None),
            "work": ("live_with", "live_with", "live_with", "live_with"),
            "patina": ("live_with", "live_with", "live_with", "live_with"),
        }.items():
            with self.subTest(taste):
                shows = ("yard", "arm", "close", "unknown")
                self.assertEqual(tuple(asked(taste, one)[0] for one in shows), wanted)

    def test_bare_metal_and_rust_under_paint_are_settled_by_everybody_and_only_on_steel(self):
        for taste in Taste:
            self.assertEqual(asked(taste, "close", depth="metal"), ("settle", "bare metal: it rusts from here"))
            self.assertEqual(asked(taste, "close", kind="bubble")[0], "settle")
            wanted = "settle" if taste is Taste.SHOW else "live_with"
            self.assertEqual(asked(taste, "close", PLASTIC, depth="metal")[0], wanted)

    def test_a_refinish_with_blends_is_never_settled_on_a_work_van(self):
        self.assertEqual(asked("work", "yard", PAINTED, depth="metal")[0], "budget")
        self.assertEqual(asked("tidy", "yard", PAINTED, depth="metal")[0], "settle")

    def test_patina_asks_for_fresh_and_spreading_damage_only(self):
        self.assertEqual(asked("patina", "arm", fresh=True), ("settle", "fresh damage"))
        self.assertEqual(asked("patina", "close", kind="peel"), ("settle", "it spreads"))
        self.assertEqual(asked("patina", "yard", kind="fade")[0], "live_with")
        self.assertEqual(asked("work", "arm", fresh=True)[0], "live_with")

    def test_what_was_touched_in_well_asks_for_nothing(self):
        done = OfMark(metal=True, refinish=False, nothing_to_do=True)
        self.assertEqual(asked("show", "yard", done, kind="touched_well")[0], "live_with")

    def test_a_mark_seen_from_farther_never_asks_for_less(self):
        order = ["settle", "budget", "live_with"]
        for taste in Taste:
            for kind in BlemishKind:
                more = {"note": "wiped"} if kind is BlemishKind.UNIDENTIFIED else {}
                told = [asked(taste, shows, kind=kind, **more)[0] for shows in ("yard", "arm", "close")]
                self.assertEqual(told, sorted(told, key=order.index), (taste, kind))


class OfOthers(unittest.TestCase):
    def test_looks_without_a_distance_go_by_the_taste_alone(self):
        trim = found("body.trim_hazed", "bright_front", "plated trim hazed")
        told = {taste.value: of_looks(trim, taste).consequence.value for taste in Taste}
        self.assertEqual(told, {"show": "settle", "tidy": "live_with", "work": "live_with", "patina": "live_with"})

    def test_no_taste_moves_what_is_more_than_looks(self):
        for code in ("corners.tyre_cord", "body.rust_perforated", "functions.horn_dead", "body.glass_torn"):
            one = found(code, "x", "x")
            self.assertTrue(all(of_looks(one, taste) is one for taste in Taste), code)

    def test_every_code_of_looks_is_of_the_outside_or_the_cabin(self):
        told = {code.partition(".")[0] for code in codes() if base(code).looks is not Looks.NONE}
        self.assertEqual(told, {"body", "cabin"})

    def test_the_table_knows_every_taste_and_distance(self):
        table = taste_table()
        for rows in (table.reach, table.untold, table.reads):
            self.assertEqual(set(rows), set(Taste))
        self.assertEqual(set(table.reach[Taste.SHOW]), set(ShowsFrom))
        self.assertLessEqual({*table.rust.kinds, *table.spreads.kinds}, {kind.value for kind in BlemishKind})


class ByLaw(unittest.TestCase):
    def test_what_the_test_of_the_place_refuses_is_settled_there_and_not_elsewhere(self):
        lamp = found("body.lamp_clouded", "headlamp_left", "clouded")
        here, there = (by_law(lamp, rule_sets()[key]) for key in ("orrin", "general_left"))
        self.assertEqual((here.consequence.value, there.consequence.value), ("settle", "budget"))
        self.assertIn("the test refuses it: Orrin Isles", here.reasons)

    def test_every_code_it_refuses_is_known_and_none_is_eased(self):
        for rules in rule_sets().values():
            self.assertLessEqual(set(rules.refuses), set(codes()))
            for code in codes():
                one = found(code, "x", "x")
                if one.settles:
                    self.assertIs(by_law(one, rules), one)


if __name__ == "__main__":
    unittest.main()
