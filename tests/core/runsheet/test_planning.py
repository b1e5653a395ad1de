import unittest
from dataclasses import replace
from math import inf

from hypothesis import given, settings
from hypothesis import strategies as st

from hakutsu.core.runsheet import Conditions, plan, steps
from hakutsu.core.runsheet.conditions import INSTEAD
from hakutsu.core.runsheet.emphasis import emphasis
from hakutsu.core.runsheet.planning import drop_order
from hakutsu.entries.opening import Brief
from hakutsu.vehicle.vocabulary import Protocol

BRIEFS = (
    Brief(),
    Brief(taste="show", past_factors=("salt", "stored")),
    Brief(taste="work", use_factors=("towing", "rough_tracks"), past_factors=("never_serviced", "work")),
)


@st.composite
def conditions(draw):
    until = st.one_of(st.none(), st.floats(0, 240))
    return Conditions(
        available=draw(st.floats(0, 300)),
        protocol=draw(st.sampled_from(list(Protocol))),
        engine_cold=draw(st.booleans()),
        lift=draw(st.booleans()),
        lift_by_driving=draw(st.booleans()),
        helper=draw(st.booleans()),
        may_drive=draw(st.booleans()),
        seller_until=draw(until),
        daylight_until=draw(until),
        dry_until=draw(until),
        blocked=draw(st.sampled_from([frozenset(), frozenset({"running", "driving"}), frozenset({"under"})])),
        emphasis=emphasis(draw(st.sampled_from(BRIEFS))),
    )


def keys(made):
    return [one.step.key for one in made.steps]


class Properties(unittest.TestCase):
    @settings(max_examples=40, deadline=None)
    @given(conditions())
    def test_no_need_and_no_hard_order_is_ever_broken(self, c):
        made = plan(c)
        ends = {one.step.key: one.end for one in made.steps}
        last = 0.0
        for one in made.steps:
            self.assertGreaterEqual(one.start, last)
            self.assertEqual(one.end - one.start, one.step.takes(c.protocol))
            for need in one.step.needs:
                self.assertLessEqual(one.end, c.ends(need))
            self.assertNotIn(one.step.activity, c.blocked)
            for before in one.step.after:
                if before in ends:
                    self.assertLessEqual(ends[before] + steps()[before].waits(c.protocol), one.start)
            last = one.end
        self.assertLessEqual(made.finish, c.available if made.steps else inf)

    @settings(max_examples=40, deadline=None)
    @given(conditions(), st.floats(0, 120))
    def test_more_time_never_makes_the_plan_worse(self, c, more):
        longer = replace(c, available=c.available + more)
        self.assertGreaterEqual(plan(longer).knowledge, plan(c).knowledge - 1e-9)

    @settings(max_examples=10, deadline=None)
    @given(conditions())
    def test_the_same_conditions_give_the_same_plan(self, c):
        self.assertEqual(plan(c), plan(c))

    @settings(max_examples=20, deadline=None)
    @given(conditions())
    def test_every_step_of_the_protocol_is_planned_or_left_out_with_a_reason(self, c):
        made = plan(c)
        told = {*keys(made), *(one.step.key for one in made.dropped)}
        wanted = {key for key, step in steps().items() if step.takes(c.protocol) and not step.needs & INSTEAD}
        self.assertLessEqual(wanted, told)
        self.assertTrue(all(one.because and 0 <= one.cost <= 1 for one in made.dropped))


class Days(unittest.TestCase):
    def test_with_time_enough_nothing_is_left_out(self):
        made = plan(Conditions(400, lift=True, helper=True))
        self.assertEqual(made.dropped, ())
        self.assertAlmostEqual(made.knowledge, 1)

    def test_cold_comes_before_warm_and_the_warm_up_runs_beside_other_steps(self):
        made = plan(Conditions(400, lift=True, helper=True))
        order = keys(made)
        self.assertLess(order.index("cold_levels"), order.index("cold_start"))
        self.assertLess(order.index("cold_start"), order.index("idle_watch"))
        self.assertLess(order.index("scan_before"), order.index("road"))
        self.assertLess(order.index("road"), order.index("scan_after"))
        beside = [one for one in made.steps if one.because.startswith("while waiting")]
        self.assertGreater(len(beside), 2)
        self.assertEqual(made.waits, [])

    def test_a_warm_engine_costs_the_cold_start_and_says_so(self):
        made = plan(Conditions(400, lift=True, helper=True, engine_cold=False))
        self.assertIn("start", keys(made))
        reasons = {one.step.key: one.because for one in made.dropped}
        self.assertEqual(reasons["cold_start"], "the engine was found warm")
        self.assertLess(made.knowledge, 0.95)

    def test_a_vehicle_driven_onto_the_lift_gets_its_cold_start_before(self):
        order = keys(plan(Conditions(400, lift=True, lift_by_driving=True, helper=True)))
        self.assertLess(order.index("cold_start"), order.index("to_lift"))
        self.assertLess(order.index("to_lift"), order.index("under"))

    def test_the_seller_leaving_brings_what_needs_the_seller_forward(self):
        made = plan(Conditions(240, seller_until=35))
        ends = {one.step.key: one.end for one in made.steps}
        self.assertLessEqual(ends["papers_seller"], 35)

    def test_rain_costs_the_walk_round_and_not_the_rest(self):
        made = plan(Conditions(400, dry_until=0, lift=True, helper=True))
        reasons = {one.step.key: one.because for one in made.dropped}
        self.assertEqual(reasons["walk_roof"], "it is wet")
        self.assertIn("under", keys(made))

    def test_what_costs_least_knowledge_a_minute_goes_first(self):
        sequence = drop_order(Protocol.STANDARD)
        order = [step.value / step.takes(Protocol.STANDARD) for step in sequence if not step.must]
        self.assertEqual(order, sorted(order))
        self.assertEqual([step.key for step in sequence[-2:]], ["closing_talk", "hazard_look"])

    def test_the_keys_go_back_in_every_shortage_that_leaves_time_for_anything_else(self):
        for minutes in (6, 15, 40, 90, 150):  # 4 for what would stop us and 2 for the keys is the least day
            made = plan(Conditions(minutes))
            self.assertEqual(made.steps[-1].step.key, "closing_talk", minutes)

    def test_no_time_gives_an_empty_plan(self):
        made = plan(Conditions(0))
        self.assertEqual((made.steps, made.finish, made.knowledge), ((), 0.0, 0.0))
