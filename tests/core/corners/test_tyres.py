import unittest
from datetime import date

from hakutsu.core.corners.tyres import (
    age_years,
    axle_found,
    code_fault,
    effective_diameters,
    made_on,
    new_depth,
    pattern,
    per_cent_left,
    ruling_depth,
    tyre_found,
)
from hakutsu.entries.corners import Tyre
from hakutsu.vehicle.mechanics import Mechanics
from hakutsu.vehicle.rules import rule_sets
from hakutsu.vehicle.vocabulary import Consequence

NOW = date(2026, 11, 25)
RULES = rule_sets()["orrin"]
FL, FR, RL = "wheel_front_left", "wheel_front_right", "wheel_rear_left"


def words(tyre, wheel=FL, **mechanics):
    return [one.words for one in tyre_found(wheel, Tyre(**tyre), RULES, Mechanics(**mechanics), NOW)]


class Depth(unittest.TestCase):
    def test_the_lowest_of_all_grooves_rules(self):
        depth = ruling_depth(Tyre(depth_mm=(4.0, 4.2, 4.1), second_mm=(2.8,)), 1.6)
        self.assertEqual((depth.mm, depth.words), (2.8, "lowest of 4"))

    def test_per_cent_by_both_schools(self):
        # (4.8 − 1.6)/(8 − 1.6) = 50 %, 4.8/8 = 60 %
        of_legal, of_new = per_cent_left(4.8, 8.0, 1.6)
        self.assertAlmostEqual(of_legal, 50)
        self.assertAlmostEqual(of_new, 60)
        self.assertEqual(per_cent_left(1.0, 8.0, 1.6)[0], 0)

    def test_per_cent_and_ranges_count_as_by_eye(self):
        legal = ruling_depth(Tyre(per_cent=50), 1.6)
        self.assertAlmostEqual(legal.mm, 4.8)
        of_new = ruling_depth(Tyre(per_cent=50, per_cent_of="new"), 1.6)
        self.assertAlmostEqual(of_new.mm, 4.0)
        span = ruling_depth(Tyre(range_mm=(4, 6)), 1.6)
        self.assertEqual((span.mm, str(span.method)), (5.0, "eye"))
        self.assertIsNone(ruling_depth(Tyre(), 1.6))

    def test_new_depth_follows_season_and_size(self):
        self.assertEqual(new_depth(Tyre()), 8.0)
        self.assertEqual(new_depth(Tyre(season="winter")), 8.5)
        self.assertEqual(new_depth(Tyre(size="LT235/85R16 120/116Q")), 11.0)

    def test_law_and_advice_are_told_apart(self):
        [below] = tyre_found(FL, Tyre(depth_mm=(1.5,)), RULES, Mechanics(), NOW)
        self.assertEqual(
            (below.consequence, below.code, below.condemns), (Consequence.SETTLE, "corners.tyre_below_legal", False)
        )
        self.assertIn("legal", below.words)
        [advised] = tyre_found(FL, Tyre(depth_mm=(2.5,)), RULES, Mechanics(), NOW)
        self.assertEqual(advised.consequence, Consequence.BUDGET)
        self.assertEqual(words({"depth_mm": (3.0,)}), [])

    def test_winter_law_of_a_rule_set_is_kept(self):
        [found] = tyre_found(FL, Tyre(depth_mm=(3.0,), season="winter"), rule_sets()["general_right"], Mechanics(), NOW)
        self.assertIn("winter", found.words)


class Patterns(unittest.TestCase):
    def test_each_pattern_from_one_millimetre(self):
        for grooves, said in (
            ((5.0, 4.0, 5.0), "too much pressure"),
            ((4.0, 5.0, 4.0), "too little pressure"),
            ((3.0, 4.5, 4.6), "inner shoulder"),
            ((4.6, 4.5, 3.0), "outer shoulder"),
        ):
            self.assertIn(said, pattern(grooves)[1])

    def test_less_than_a_millimetre_is_none(self):
        self.assertIsNone(pattern((4.0, 4.9, 4.8)))
        self.assertIsNone(pattern((4.0,)))

    def test_a_second_place_is_asked_for_once(self):
        self.assertTrue(any("second place" in one for one in words({"depth_mm": (3.0, 4.5, 4.6)})))
        self.assertFalse(
            any("second place" in one for one in words({"depth_mm": (3.0, 4.5, 4.6), "second_mm": (3.1,)}))
        )

    def test_shapes_felt_by_hand(self):
        for shape, said in (("saw_tooth", "toe"), ("cups", "damper or balance"), ("flat", "locked wheel")):
            self.assertIn(said, words({"shape": shape})[0])


class Age(unittest.TestCase):
    def test_a_week_is_the_week_of_the_standard_calendar(self):
        self.assertEqual(made_on("0121", NOW), date(2021, 1, 4))
        self.assertEqual(made_on("5320", NOW), date(2020, 12, 28))

    def test_bad_codes_tell_no_age_and_say_why(self):
        for code in ("0020", "5420", "5226"):
            self.assertIsNone(made_on(code, NOW))
            self.assertIn("read it again", code_fault(code, NOW))
        self.assertIn("decade", code_fault("127", NOW))
        self.assertGreaterEqual(age_years(Tyre(date_code="127"), NOW), 26)

    def test_from_five_years_look_and_by_ten_replace(self):
        self.assertTrue(any("look closely" in one for one in words({"date_code": "4021"})))
        self.assertTrue(any("replace, whatever" in one for one in words({"date_code": "4016"})))
        self.assertEqual(words({"date_code": "4024"}), [])

    def test_older_than_the_vehicle_by_more_than_a_year_is_another_ones_wheel(self):
        found = words({"date_code": "1020"}, first_used=date(2022, 1, 1))
        self.assertTrue(any("another one" in one for one in found))
        self.assertFalse(any("another one" in one for one in words({"date_code": "2021"}, first_used=date(2022, 1, 1))))


class SizeAndPressure(unittest.TestCase):
    def test_against_the_placard(self):
        found = words({"size": "225/45 R17 91V"}, front_size="205/55 R16 91V")
        self.assertIn("% round", found[0])
        self.assertEqual(words({"size": "205/55R16 91V"}, front_size="205/55 R16 91V"), [])
        self.assertEqual(words({"size": "205/55R16 91H"}, front_size="205/55 R16 91V"),
                         ["speed symbol H (210 km/h) below the placard’s V (240 km/h)"])  # fmt: skip
        self.assertIn("load index", words({"size": "205/55 R16 88V"}, front_size="205/55 R16 91V")[0])
        self.assertIn("cannot be read", words({"size": "round"})[0])

    def test_pressure_is_compared_at_its_temperature(self):
        # 2.3 bar at 20 °C are 2.2 at 10 °C; 1.95 is 0.25 low there, 0.35 low at 20 °C
        self.assertEqual(words({"pressure_bar": 1.95, "at_c": 10}, front_bar=2.3), [])
        self.assertEqual(len(words({"pressure_bar": 1.95, "at_c": 20}, front_bar=2.3)), 1)


class Axles(unittest.TestCase):
    def test_what_differs_on_an_axle(self):
        tyres = {
            FL: Tyre(depth_mm=(6.0,), size="205/55 R16", make="Tarrock", season="summer"),
            FR: Tyre(depth_mm=(4.0,), size="195/65 R15", make="Skua", season="winter"),
        }
        said = " | ".join(one.words for one in axle_found(tyres, RULES, Mechanics()))
        for part in ("two sizes", "two makes", "summer and winter", "{right} tyre"):
            self.assertIn(part, said)

    def test_alike_is_nothing(self):
        tyre = Tyre(depth_mm=(6.0,), size="205/55 R16", make="Tarrock", season="summer")
        self.assertEqual(axle_found({FL: tyre, FR: tyre}, RULES, Mechanics(drive="all")), [])

    def test_driveline_differences_only_where_all_wheels_drive(self):
        # 215/75 R15: 703.5 mm; 7.6 against 3.4 mm: 2 · 4.2 = 8.4 mm of 702.7: 1.2 %
        tyres = {FL: Tyre(depth_mm=(7.6,), size="215/75 R15"), RL: Tyre(depth_mm=(3.4,), size="215/75 R15")}
        diameters = effective_diameters(tyres, RULES)
        self.assertAlmostEqual(diameters[FL] - diameters[RL], 8.4)
        self.assertEqual(axle_found(tyres, RULES, Mechanics(drive="rear")), [])
        [found] = axle_found(tyres, RULES, Mechanics(drive="all"))
        self.assertEqual(found.consequence, Consequence.SETTLE)
        self.assertIn("1.2 %", found.words)

    def test_between_the_two_limits_it_is_watched(self):
        tyres = {FL: Tyre(depth_mm=(7.6,), size="215/75 R15"), RL: Tyre(depth_mm=(5.0,), size="215/75 R15")}
        [found] = axle_found(tyres, RULES, Mechanics(drive="all"))  # 5.2 of 697: 0.75 %
        self.assertEqual(found.consequence, Consequence.BUDGET)
