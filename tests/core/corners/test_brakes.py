import unittest

from hakutsu.core.corners.brakes import brake_axle_found, brake_found, fluid_found, pedal_found, thinnest_pad
from hakutsu.core.corners.gear import gear_found, sides_found
from hakutsu.entries.corners import Brake, Fluid, Gear, Pedal
from hakutsu.vehicle.vocabulary import Consequence

FL, FR = "wheel_front_left", "wheel_front_right"


def words(**brake):
    return [one.words for one in brake_found(FL, Brake(**brake))]


class Pads(unittest.TestCase):
    def test_change_at_three_and_unsafe_below_two(self):
        self.assertIn("change", words(pad_inner_mm=3.0)[0])
        self.assertIn("unsafe", words(pad_inner_mm=1.9, pad_outer_mm=3.0)[0])
        self.assertEqual(words(pad_inner_mm=3.1, pad_outer_mm=3.5), [])

    def test_inner_against_outer_and_left_against_right(self):
        self.assertIn("slide or piston stuck", words(pad_inner_mm=4.6, pad_outer_mm=7.1)[0])
        self.assertEqual(words(pad_inner_mm=5.0, pad_outer_mm=7.0), [])  # 2 mm exactly is not more than 2
        [found] = brake_axle_found({FL: Brake(pad_inner_mm=4.0), FR: Brake(pad_inner_mm=7.0)})
        self.assertIn("{left} pads", found.words)
        self.assertIn("hose", found.words)

    def test_a_range_counts_by_its_middle(self):
        self.assertEqual(thinnest_pad(Brake(pad_range_mm=(4, 6))), 5)
        self.assertIsNone(thinnest_pad(Brake()))


class Discs(unittest.TestCase):
    def test_minimum_is_asked_for_and_never_guessed(self):
        self.assertIn("never guessed", words(disc_mm=(24.0,))[0])
        self.assertIn("its minimum is", words(disc_mm=(22.0,), disc_min_mm=22.0)[0])

    def test_thickness_told_to_a_tenth_says_nothing_about_hundredths(self):
        self.assertEqual(words(disc_mm=(24.1, 24.0, 24.1), disc_min_mm=22), [])
        self.assertIn("shudder", words(disc_mm=(24.1, 23.9, 24.1), disc_min_mm=22)[0])
        self.assertIn("shudder", words(disc_mm=(24.10, 24.08, 24.1), disc_min_mm=22)[0])
        self.assertEqual(words(disc_mm=(24.10, 24.09, 24.1), disc_min_mm=22), [])

    def test_run_out_cracks_scoring_heat(self):
        self.assertIn("pulses", words(run_out_mm=0.12)[0])
        self.assertEqual(words(run_out_mm=0.1), [])
        self.assertEqual(len(words(cracks="through", scoring="deep", heat_marks=True)), 3)

    def test_rust_is_explained_by_the_motor_where_it_brakes(self):
        brake = Brake(rust="deep")
        self.assertIn("motor", brake_found(FL, brake, regenerative=True)[0].words)
        self.assertIn("slide", brake_found(FL, brake)[0].words)

    def test_drums(self):
        self.assertEqual(len(words(lining_mm=1.2, drum_mm=230.5, drum_max_mm=230.0)), 2)


class Fluids(unittest.TestCase):
    def follows(self, **fluid):
        return [one.consequence for one in fluid_found(Fluid(**fluid))]

    def test_water_good_plan_change(self):
        for water, follows in (
            (1.4, Consequence.FINE),
            (1.5, Consequence.BUDGET),
            (2.9, Consequence.BUDGET),
            (3.0, Consequence.SETTLE),
        ):
            self.assertEqual(self.follows(kind="dot4", water_percent=water), [follows], water)

    def test_boiling_point_against_the_wet_minimum_of_its_kind(self):
        # DOT 4: 155 wet; to 165 change now, to 190 plan, above good
        for boils, follows in (
            (165, Consequence.SETTLE),
            (166, Consequence.BUDGET),
            (190, Consequence.BUDGET),
            (191, Consequence.FINE),
        ):
            self.assertEqual(self.follows(kind="dot4", boils_c=boils), [follows], boils)
        self.assertEqual(self.follows(kind="dot3", boils_c=151), [Consequence.BUDGET])
        self.assertEqual(self.follows(kind="dot51", boils_c=190), [Consequence.SETTLE])

    def test_boiling_point_outranks_water(self):
        self.assertEqual(self.follows(kind="dot4", boils_c=230, water_percent=4), [Consequence.FINE])

    def test_neither_holds_for_silicone_or_mineral(self):
        for kind in ("silicone", "mineral"):
            [found] = fluid_found(Fluid(kind=kind, water_percent=5, boils_c=120))
            self.assertEqual(found.consequence, Consequence.LIVE_WITH)

    def test_dark_alone_is_due(self):
        self.assertEqual(self.follows(dark=True), [Consequence.BUDGET])


class PedalAndGear(unittest.TestCase):
    def test_a_soft_pedal_and_a_wet_pipe_are_one_story(self):
        found = pedal_found(Pedal(firm="spongy"), {FL: Brake(wet=True)})
        self.assertEqual(len(found), 1)
        self.assertIn("fluid is lost", found[0].words)
        self.assertIn(FL, found[0].reasons[0])

    def test_sinking_without_a_leak_is_the_main_cylinder(self):
        self.assertIn("main cylinder", pedal_found(Pedal(sinks=True), {})[0].words)
        self.assertEqual(pedal_found(Pedal(firm="firm", sinks=False, parking="holds"), {}), [])

    def test_a_grade_says_how_it_was_tested(self):
        [found] = gear_found(FL, Gear(part="damper", grade="failing", tested="by hand"))
        self.assertEqual((found.words, found.consequence), ("damper failing", Consequence.SETTLE))
        self.assertIn("tested by hand", found.reasons)
        self.assertEqual(gear_found(FL, Gear(part="damper", grade="sound")), [])

    def test_new_on_one_side_only_asks_why_and_height_left_against_right(self):
        graded = {
            "damper:front_left": Gear(part="damper", grade="fresh"),
            "damper:front_right": Gear(part="damper", grade="sound"),
        }
        found = sides_found(graded, {FL: 350.0, FR: 338.0})
        self.assertIn("new on the {left} only", found[0].words)
        self.assertIn("12 mm lower on the {right}", found[1].words)
        self.assertEqual(sides_found({}, {FL: 350.0, FR: 345.0}), [])
