import unittest
from math import exp

from hypothesis import given
from hypothesis import strategies as st

from hakutsu.core.cabin import against_age, inventory_found, usual_at, wear_found
from hakutsu.core.condition import GRADES, RUST, Standing, rust_stands, stands, usual_grade, usual_rust, usual_rust_band
from hakutsu.core.life.survival import Clocks
from hakutsu.entries.cabin import CabinWear, There, Wear
from hakutsu.entries.corners import Grade
from hakutsu.vehicle.inventory import belongings, expected_belongings
from hakutsu.vehicle.vocabulary import Consequence

BELT = Clocks(100_000.0, 10.0, 2.0)


class UsualGrades(unittest.TestCase):
    def test_share_of_life_used_by_the_farther_clock(self):
        self.assertIs(usual_grade(BELT, 10_000, 1).grade, Grade.FRESH)
        self.assertIs(usual_grade(BELT, 10_000, 2).grade, Grade.SOUND)  # a fifth by time
        self.assertIs(usual_grade(BELT, 60_000, 1).grade, Grade.WORN)  # three fifths by distance
        self.assertIs(usual_grade(BELT, 400_000, 40).grade, Grade.WORN)

    def test_how_many_have_their_first_by_hand(self):
        # hazards add: (50,000 / 100,000)² + (5 / 10)² = 0.5
        self.assertAlmostEqual(usual_grade(BELT, 50_000, 5).first, exp(-0.5))
        words = usual_grade(BELT, 100_000, 5).words  # exp(−1.25) = 0.287
        self.assertEqual(words, "worn, or renewed: 29 in 100 have their first")
        self.assertIn("nearly all have been replaced", usual_grade(BELT, 300_000, 30).words)

    def test_worse_better_and_renewed(self):
        old = usual_grade(BELT, 200_000, 15)
        self.assertIs(stands("belt", Grade.FAILING, old).standing, Standing.WORSE)
        self.assertIs(stands("belt", Grade.WORN, old).standing, Standing.USUAL)
        fresh = stands("belt", Grade.FRESH, old)
        self.assertEqual((fresh.standing, fresh.why), (Standing.BETTER, "renewed, it seems: ask for the bill"))
        self.assertEqual(stands("belt", Grade.FRESH, usual_grade(BELT, 1, 0.1)).why, "")

    @given(st.floats(0, 400_000), st.floats(0, 30), st.floats(0, 50_000))
    def test_older_is_never_usually_better(self, km, years, more):
        one, later = usual_grade(BELT, km, years), usual_grade(BELT, km + more, years + more / 15_000)
        self.assertGreaterEqual(GRADES.index(later.grade), GRADES.index(one.grade))
        self.assertLessEqual(later.first, one.first)


class UsualRust(unittest.TestCase):
    def test_bands_are_half_open_and_salt_ages(self):
        self.assertIsNone(usual_rust(1.99))
        self.assertEqual([str(usual_rust(years)) for years in (2, 5, 12, 20)], ["stain", "surface", "scale", "pitted"])
        self.assertEqual(str(usual_rust(8, salt=True)), "scale")  # counts as 12.8
        self.assertIsNone(usual_rust(3, dry=True))  # counts as 1.8

    def test_against_it(self):
        self.assertIs(rust_stands("sill", None, (None, None)).standing, Standing.USUAL)
        self.assertIs(rust_stands("sill", RUST[3], (RUST[1], RUST[1])).standing, Standing.WORSE)
        clean = rust_stands("sill", None, (RUST[2], RUST[2]), renewed=True)
        self.assertEqual((clean.standing, clean.why), (Standing.BETTER, "cleaned, coated or renewed?"))
        self.assertEqual(clean.steps, (0, 3, 6))

    def test_a_grade_alone_never_asks_whether_it_was_renewed(self):
        self.assertEqual(rust_stands("sill", None, (RUST[2], RUST[2])).why, "")

    def test_without_a_region_the_band_is_wide(self):
        least, most = usual_rust_band(12.0)
        self.assertEqual((least, most), (usual_rust(12.0, dry=True), usual_rust(12.0, salt=True)))
        for grade in RUST[RUST.index(least) : RUST.index(most) + 1]:
            self.assertIs(rust_stands("sill", grade, (least, most)).standing, Standing.USUAL)


class CabinByAge(unittest.TestCase):
    def test_what_time_wears_is_held_against_age(self):
        grades = {"dash": CabinWear(part="dash", wear="heavy"), "rim": CabinWear(part="rim", wear="light")}
        found = against_age(grades, 7.0)
        self.assertEqual([(one.part, one.usual, one.steps) for one in found], [("dash", Wear.LIGHT, 2)])
        self.assertEqual(against_age(grades, None), [])
        self.assertEqual([one.words for one in wear_found(grades, None, 7.0)], ["much more worn than usual"])
        self.assertEqual(against_age({"dash": CabinWear(part="dash", wear="heavy", renewed=True)}, 7.0), [])

    def test_usual_by_whichever_clock_wears_it(self):
        self.assertIs(usual_at("dash", 300_000, 14), Wear.CLEAR)
        self.assertIs(usual_at("rim", 110_000, None), Wear.CLEAR)
        self.assertIsNone(usual_at("rim", None, 14))


class Belongings(unittest.TestCase):
    def test_what_is_missing_is_told_in_the_order_of_the_table(self):
        found = inventory_found({"mats": There.MISSING, "lock_nut": There.MISSING, "jack": There.PRESENT,
                                 "hitch": There.NOT_EXPECTED})  # fmt: skip
        self.assertEqual([one.consequence for one in found], [Consequence.SETTLE, Consequence.LIVE_WITH])

    def test_every_thing_says_what_its_absence_means(self):
        self.assertTrue(all(one.missing for one in belongings().values()))
        keys = {one.key for one in expected_belongings("petrol")}
        self.assertNotIn("charge_cable", keys)
        self.assertIn("charge_cable", {one.key for one in expected_belongings("electric")})
        self.assertIn("charge_cable", {one.key for one in expected_belongings("unknown")})
