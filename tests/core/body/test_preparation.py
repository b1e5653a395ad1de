import unittest
from decimal import Decimal
from uuid import uuid4

from hakutsu.core.body.costing import NOTHING, Wanted
from hakutsu.core.body.preparation import Piece, pieces, preparation, total
from hakutsu.core.body.remedy import Remedy, remedy_table
from hakutsu.core.costs import usual_jobs
from hakutsu.vehicle.mechanics import Parts

RATE = Decimal(60)


def mark(first, chance=1.0, other=None, **more):
    return Wanted(uuid4(), Remedy(first, chance, other), **more)


def listed(wanted, extra=(), neighbours=None, **more):
    found = preparation([*pieces(wanted, neighbours or {}), *extra], usual_jobs(), RATE, **more)
    return {one.job: one for one in found}


class Preparation(unittest.TestCase):
    def test_two_wheels_are_one_job_and_the_second_takes_less_labour(self):
        one = listed({"wheel_front_left": [mark("wheel")]})["wheel_refinish"]
        two = listed({place: [mark("wheel")] for place in ("wheel_front_left", "wheel_rear_left")})["wheel_refinish"]
        self.assertEqual((one.words, two.words), ("refinish one wheel", "refinish 2 wheels"))
        # 1 to 2 hours at 60 and 25 to 60 of material; the second takes 0.8 of the hours
        self.assertAlmostEqual(one.cost.low, 85)
        self.assertAlmostEqual(two.cost.low, 1.8 * 60 + 50)
        self.assertAlmostEqual(two.cost.high, 2 * 1.8 * 60 + 120)

    def test_three_panels_to_polish_are_one_polish_of_the_whole_body(self):
        two = listed({place: [mark("polish")] for place in ("bonnet", "roof")})
        three = listed({place: [mark("polish")] for place in ("bonnet", "roof", "boot_lid")})
        self.assertEqual((set(two), set(three)), ({"polish_panel"}, {"polish_whole"}))
        four = listed({place: [mark("polish")] for place in ("bonnet", "roof", "boot_lid", "tailgate")})
        self.assertEqual(three["polish_whole"].cost, four["polish_whole"].cost)

    def test_a_valet_takes_in_what_only_wants_cleaning(self):
        found = listed({"bonnet": [mark("clean")], "roof": [mark("clean")]})
        self.assertEqual(set(found), {"valet"})
        self.assertEqual(set(listed({}, dirty=True)), {"valet"})
        self.assertEqual(listed({}), {})

    def test_a_refinish_takes_in_what_lies_under_it_and_blends_into_neighbours_once(self):
        wanted = {"bonnet": [mark("panel"), mark("polish"), mark("touch_in", 0.9, "local")], "roof": [mark("panel")]}
        beside = {"bonnet": ["front_wing_left", "roof"], "roof": ["front_wing_left"]}
        found = listed(wanted, neighbours=beside)
        self.assertEqual({job: one.count for job, one in found.items()}, {"panel_refinish": 2, "blend_neighbour": 1})
        self.assertEqual(found["blend_neighbour"].places, ("front_wing_left",))

    def test_a_remedy_that_seldom_does_is_not_what_one_orders(self):
        self.assertEqual(set(listed({"bonnet": [mark("dent_lift", 0.35, "panel")]})), {"panel_refinish"})
        self.assertEqual(set(listed({"bonnet": [mark("dent_lift", 0.6, "panel")]})), {"dent_lift"})

    def test_marks_are_counted_and_pieces_named_twice_are_one(self):
        found = listed({"bonnet": [mark("dent_lift", count=3)]}, [Piece("lamp", "headlamp_left")] * 2)
        self.assertEqual((found["dent_lift"].count, found["lamp"].count), (3, 1))
        self.assertEqual(found["dent_lift"].words, "lift 3 dents")

    def test_parts_hard_to_get_and_seized_fixings_widen_it(self):
        plain = listed({"bonnet": [mark("replace")]})["panel_replace"].cost
        hard = listed({"bonnet": [mark("replace", supply=Parts.USED_ONLY, seized=True)]})["panel_replace"].cost
        self.assertLess(hard.low, plain.low)
        self.assertGreater(hard.high, plain.high)

    def test_the_dearest_comes_first_and_the_total_is_the_sum(self):
        found = preparation(pieces({"bonnet": [mark("panel")], "roof": [mark("touch_in")]}), usual_jobs(), RATE)
        self.assertEqual([one.job for one in found], ["panel_refinish", "touch_in"])
        self.assertAlmostEqual(total(found).expected, sum(one.cost.expected for one in found))
        self.assertEqual(total([]), NOTHING)

    def test_every_remedy_can_be_ordered(self):
        for step, row in remedy_table()["jobs"].items():
            if row["job"]:
                self.assertTrue(all(one.words for one in listed({"bonnet": [mark(step)]}).values()), step)


if __name__ == "__main__":
    unittest.main()
