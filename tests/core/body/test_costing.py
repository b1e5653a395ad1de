import unittest
from decimal import Decimal
from uuid import uuid4

from hakutsu.core.body.costing import Wanted, costs
from hakutsu.core.body.remedy import Remedy
from hakutsu.core.costs import usual_jobs
from hakutsu.vehicle.mechanics import Parts

RATE = Decimal(50)
# by hand, at 50 an hour: hours · 50 + materials
POLISH = (29, 72)  # 0.5 to 1.2 h, 4 to 12
TOUCH_IN = (23, 60)  # 0.3 to 0.8 h, 8 to 20
LOCAL = (140, 290)  # 2 to 4 h, 40 to 90
PANEL = (255, 470)  # 3.5 to 6 h, 80 to 170
LIFT = (35, 110)  # 0.7 to 2 h, 0 to 10
BLEND = (105, 195)  # 1.5 to 2.5 h, 30 to 70

polish = Remedy("polish", 0.8, "local")
polish_panel = Remedy("polish", 0.8, "panel")
touch_in = Remedy("touch_in", 1.0, None)
local = Remedy("local", 1.0, None)
panel = Remedy("panel", 1.0, None)
lift = Remedy("dent_lift", 0.6, "panel")


def mean(pair):
    return sum(pair) / 2


def cost(beside=None, **parts):
    wanted = {part: [w if isinstance(w, Wanted) else Wanted(uuid4(), w) for w in ws] for part, ws in parts.items()}
    return costs(wanted, beside or {}, usual_jobs(), RATE)


class Costing(unittest.TestCase):
    def check(self, found, low, expected, high):
        self.assertAlmostEqual(found.low, low)
        self.assertAlmostEqual(found.expected, expected)
        self.assertAlmostEqual(found.high, high)

    def test_one_sure_job(self):
        self.check(cost(bonnet=[touch_in]).total, 23, mean(TOUCH_IN), 60)

    def test_try_a_else_b_shows_both_ends_and_the_expected_value(self):
        found = cost(bonnet=[polish]).total
        self.check(found, 29, mean(POLISH) + 0.2 * mean(LOCAL), 72 + 290)

    def test_a_job_of_the_panel_is_paid_once_and_one_of_a_mark_for_each(self):
        self.check(cost(bonnet=[touch_in, touch_in]).total, 23, mean(TOUCH_IN), 60)
        sure = Remedy("dent_lift", 1.0, None)
        self.check(cost(bonnet=[sure, sure]).total, 70, 2 * mean(LIFT), 220)

    def test_a_group_of_like_marks_is_paid_for_each_of_them(self):
        two = Wanted(uuid4(), Remedy("dent_lift", 1.0, None), count=2)
        self.check(cost(bonnet=[two]).total, 70, 2 * mean(LIFT), 220)
        self.check(cost(bonnet=[Wanted(uuid4(), touch_in, count=14)]).total, 23, mean(TOUCH_IN), 60)

    def test_on_two_panels_it_is_paid_twice(self):
        self.check(cost(bonnet=[touch_in], roof=[touch_in]).total, 46, 2 * mean(TOUCH_IN), 120)

    def test_a_refinish_covers_scratches_but_no_dent(self):
        self.check(cost(bonnet=[panel, touch_in, polish, local]).total, 255, mean(PANEL), 470)
        both = cost(bonnet=[panel, Remedy("dent_lift", 1.0, None)]).total
        self.check(both, 255 + 35, mean(PANEL) + mean(LIFT), 470 + 110)

    def test_a_refinish_blends_into_neighbours_once_and_not_into_one_refinished_itself(self):
        beside = {"front_door_left": ["front_wing_left", "rear_door_left"], "rear_door_left": ["front_door_left"]}
        one = cost(beside, front_door_left=[panel])
        self.check(one.total, 255 + 210, mean(PANEL) + 2 * mean(BLEND), 470 + 390)
        two = cost(beside, front_door_left=[panel], rear_door_left=[panel])
        self.check(two.total, 510 + 105, 2 * mean(PANEL) + mean(BLEND), 940 + 195)

    def test_a_blend_between_two_refinished_panels_is_paid_once(self):
        beside = {"front_wing_left": ["front_door_left"], "rear_door_left": ["front_door_left"]}
        found = cost(beside, front_wing_left=[panel], rear_door_left=[panel])
        self.check(found.total, 510 + 105, 2 * mean(PANEL) + mean(BLEND), 940 + 195)

    def test_a_refinish_that_may_be_needed_brings_its_blend_by_that_chance(self):
        found = cost({"bonnet": ["front_wing_left"]}, bonnet=[polish_panel])
        self.assertAlmostEqual(found.parts[0].refinished, 0.2)
        self.check(
            found.total,
            29,
            mean(POLISH) + 0.2 * mean(PANEL) + 0.2 * mean(BLEND),
            72 + 470 + 195,
        )

    def test_two_chances_of_a_refinish_pay_one(self):
        found = cost(bonnet=[polish_panel, lift])
        chance = 1 - 0.8 * 0.6
        self.assertAlmostEqual(found.parts[0].refinished, chance)
        self.check(found.total, 29 + 35, mean(POLISH) + mean(LIFT) + chance * mean(PANEL), 72 + 110 + 470)

    def test_supply_and_seized_fixings_widen(self):
        rare = Wanted(uuid4(), Remedy("replace", 1.0, None), 1, Parts.USED_ONLY, seized=True)
        # 5 to 9 h, 250 to 700: 5 · 50 + 250 · 0.5 to 9 · 1.6 · 50 + 700 · 1.6
        self.check(cost(tailgate=[rare]).total, 375, (375 + 1840) / 2, 1840)

    def test_what_one_lives_with_and_nothing_at_all_cost_nothing(self):
        self.check(cost(bonnet=[Remedy("none", 1.0, None)]).total, 0, 0, 0)
        self.check(cost().total, 0, 0, 0)

    def test_many_marks_are_reckoned_quickly_and_alike_ones_turn_out_alike(self):
        found = cost(bonnet=[polish] * 200)
        self.check(found.total, 29, mean(POLISH) + 0.2 * mean(PANEL), 72 + 470)

    def test_local_refinishes_that_cost_more_than_the_panel_become_the_panel(self):
        self.check(cost(bonnet=[local]).total, 140, mean(LOCAL), 290)
        self.check(cost(bonnet=[local] * 2).total, 255, mean(PANEL), 470)

    def test_one_more_mark_never_makes_it_cheaper(self):
        marks = [polish, touch_in, lift, local, polish_panel]
        before = 0.0
        for count in range(len(marks) + 1):
            now = cost(bonnet=marks[:count]).total.expected
            self.assertGreaterEqual(now, before - 1e-9)
            before = now
