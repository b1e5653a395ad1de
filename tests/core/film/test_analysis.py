import random
import unittest
from dataclasses import replace

from hakutsu.core.film import STATES, Concern, School, State, analyse
from hakutsu.core.film.parameters import parameters
from hakutsu.vehicle.units import to_um
from hakutsu.vehicle.vocabulary import Finish, Substrate, Unit
from tests.builders import honest_car, readings, survey


def states(result):
    return {panel.panel: panel.state for panel in result.panels}


class Baseline(unittest.TestCase):
    def test_it_is_the_honest_panels_film_with_its_interval(self):
        base = analyse(survey(honest_car())).baseline
        self.assertTrue(base.low < 118 < base.high)
        self.assertLess(base.high - base.low, 15)
        self.assertEqual(base.kind, "factory")

    def test_one_repainted_panel_does_not_move_it(self):
        alone = analyse(survey(honest_car())).baseline.median
        beside = analyse(survey(honest_car(), readings("tailgate", 240, 250, 236, 244))).baseline
        self.assertLess(abs(beside.median - alone), 2)
        self.assertNotIn("tailgate", beside.anchored_on)

    def test_one_panel_only_gives_none_and_says_so(self):
        result = analyse(survey(readings("roof", 118, 119, 121)))
        self.assertIsNone(result.baseline)
        self.assertIn("no baseline", result.warnings[0])

    def test_a_car_resprayed_whole_is_told_as_such(self):
        car = [replace(o, value_um=o.value_um * 2.05) for o in honest_car()]
        rng = random.Random(3)
        car = [replace(o, value_um=round(o.value_um * rng.gauss(1, 0.07))) for o in car]
        result = analyse(survey(car, finish=Finish.RESTORED))
        self.assertEqual(result.baseline.kind, "respray")
        self.assertIn("respray", result.warnings[0])
        self.assertEqual(set(states(result).values()), {State.REFINISHED})

    def test_when_two_levels_remain_possible_both_are_given(self):
        rng = random.Random(5)
        panels = ("roof", "bonnet", "tailgate")
        car = [o for p in panels for o in readings(p, *(round(rng.gauss(188, 9)) for _ in range(3)))]
        result = analyse(survey(car, finish=Finish.UNKNOWN))
        self.assertLess(result.baseline.probability, 0.8)
        self.assertEqual({result.baseline.kind, result.alternative.kind}, {"factory", "respray"})


class States(unittest.TestCase):
    def state(self, *values, panel="rear_quarter_right", **more):
        return analyse(survey(honest_car(), readings(panel, *values, **more))).panel(panel)

    def test_even_film_at_baseline_is_original(self):
        found = self.state(117, 119, 121, 118)
        self.assertEqual(found.state, State.ORIGINAL)
        self.assertIn("consistent with the original film", found.words)

    def test_once_more_paint_all_over_is_refinished(self):
        self.assertEqual(self.state(228, 240, 219, 233, 246).state, State.REFINISHED)

    def test_far_more_paint_all_over_is_rebuilt(self):
        self.assertEqual(self.state(430, 455, 410, 470, 440).state, State.REBUILT)

    def test_local_thickness_over_refinish_is_filled(self):
        self.assertEqual(self.state(236, 229, 241, 880, 1040).state, State.FILLED)

    def test_a_side_above_baseline_is_blended(self):
        self.assertEqual(self.state(118, 117, 140, 165, 172, 119, 128).state, State.BLENDED)

    def test_film_missing_on_one_side_is_thinned(self):
        self.assertEqual(self.state(118, 85, 82, 84, 117, 86).state, State.THINNED)

    def test_a_panel_at_twice_the_cars_film_is_not_passed_though_it_is_no_filler(self):
        self.assertNotEqual(self.state(236, 240).state, State.ORIGINAL)

    def test_millimetres_of_filler_are_filler_and_no_misread(self):
        for values in ((236, 229, 2400, 3100), (236, 229, 241, 4300, 4800), (240, 231, 12_000, 9_000)):
            with self.subTest(values):
                self.assertEqual(self.state(*values).state, State.FILLED)

    def test_over_range_spots_mean_filler(self):
        self.assertEqual(self.state(236, 229, 241, "over", "over", limit_um=1500).state, State.FILLED)

    def test_sills_alike_on_both_sides_carry_stone_guard(self):
        result = analyse(survey(honest_car(), readings("sill_left", 205, 211), readings("sill_right", 208, 203)))
        self.assertEqual(result.panel("sill_left").state, State.ORIGINAL)
        self.assertTrue(any("both sills alike" in reason for reason in result.panel("sill_left").reasons))

    def test_few_readings_make_less_certain_words(self):
        few, many = self.state(165), self.state(165, 168, 172, 160, 163, 170)
        self.assertLess(max(few.probabilities.values()), max(many.probabilities.values()))
        self.assertTrue(any("only 1 reading" in reason for reason in few.reasons))

    def test_no_reading_is_the_prior_and_said_so(self):
        found = analyse(survey(honest_car(), tailgate="steel")).panel("tailgate")
        self.assertEqual((found.readings, found.words), (0, "not read"))
        self.assertAlmostEqual(sum(found.probabilities.values()), 1)
        self.assertIn("no reading", found.reasons[0])

    def test_nothing_read_on_metal_is_a_finding_on_plastic_it_changes_nothing(self):
        on_metal = analyse(survey(honest_car(), readings("tailgate", "none"))).panel("tailgate")
        self.assertTrue(any("read nothing" in reason for reason in on_metal.reasons))
        plain = analyse(survey(honest_car()))
        plastic = analyse(survey(honest_car(), readings("front_bumper", "none", substrate=Substrate.PLASTIC)))
        self.assertIsNone(plastic.panel("front_bumper").probabilities)
        self.assertEqual(plain.baseline, plastic.baseline)

    def test_an_open_repeat_is_said_beside_the_state(self):
        car = [replace(o, key=i) for i, o in enumerate([*honest_car(), *readings("tailgate", 119, 117, 118, 260)])]
        self.assertIn("waits for its repeat", analyse(survey(car)).panel("tailgate").words)

    def test_edge_readings_stay_out(self):
        edge = readings("tailgate", 60, 62, edge=True)
        self.assertEqual(analyse(survey(honest_car(), edge)).panel("tailgate").readings, 0)


class Properties(unittest.TestCase):
    CAR = [*honest_car(), *readings("tailgate", 228, 240, 219), *readings("sill_left", 121, "over", limit_um=1500)]

    def test_order_never_matters(self):
        wanted = analyse(survey(self.CAR))
        for seed in range(4):
            mixed = self.CAR.copy()
            random.Random(seed).shuffle(mixed)
            self.assertEqual(analyse(survey(mixed)), wanted)

    def test_it_is_deterministic(self):
        self.assertEqual(analyse(survey(self.CAR)), analyse(survey(self.CAR)))

    def test_other_parameters_reach_the_grids(self):
        p = parameters()
        wide = p.model_copy(update={"between": p.between.model_copy(update={"panel_sd_log": (0.15, 0.2, 0.25)})})
        base, loose = (analyse(survey(honest_car()), p=one).baseline for one in (p, wide))
        self.assertGreater(loose.high - loose.low, 1.5 * (base.high - base.low))

    def test_units_never_matter(self):
        mil = [replace(o, value_um=o.value_um and to_um(o.value_um / 25.4, Unit.MIL)) for o in self.CAR]
        for a, b in zip(analyse(survey(mil)).panels, analyse(survey(self.CAR)).panels, strict=True):
            for state in STATES:
                self.assertAlmostEqual(a.probabilities[state], b.probabilities[state], places=9)

    def test_probabilities_sum_to_one(self):
        for panel in analyse(survey(self.CAR)).panels:
            self.assertAlmostEqual(sum(panel.probabilities.values()), 1)

    def test_one_more_reading_at_baseline_never_raises_filled_nor_lowers_original(self):
        values, last = [118.0], None
        for _ in range(6):
            chances = analyse(survey(honest_car(), readings("tailgate", *values))).panel("tailgate").probabilities
            if last:
                self.assertLessEqual(chances[State.FILLED], last[State.FILLED] + 1e-12)
                self.assertGreaterEqual(chances[State.ORIGINAL], last[State.ORIGINAL] - 1e-12)
            values, last = [*values, 118.0], chances


class Schools(unittest.TestCase):
    CAR = [*honest_car(168), *readings("tailgate", 280, 288, 277)]  # of thick factory film: doubtful by a fixed band

    def concern(self, school, panel, **more):
        return analyse(survey(self.CAR), school=school, **more).panel(panel).judged.concern

    def test_a_school_changes_the_concern_and_not_what_the_states_mean(self):
        self.assertEqual(self.concern(School.OWN, "roof"), Concern.NONE)
        self.assertEqual(self.concern(School.FIXED, "roof"), Concern.LOOK)
        self.assertEqual(self.concern(School.RESTORED, "tailgate"), Concern.NONE)
        own, fixed = (analyse(survey(self.CAR), school=s).panel("roof") for s in (School.OWN, School.FIXED))
        self.assertEqual(own.probabilities, fixed.probabilities)

    def test_the_band_can_be_set(self):
        self.assertEqual(self.concern(School.FIXED, "roof", band_um=(100, 120)), Concern.NOTE)
        self.assertEqual(self.concern(School.RESTORED, "tailgate", band_um=(200, 240)), Concern.MAP)

    def test_the_declared_finish_chooses_the_school(self):
        self.assertEqual(analyse(survey(self.CAR, finish=Finish.RESTORED)).school, School.RESTORED)
        self.assertEqual(analyse(survey(self.CAR)).school, School.OWN)
