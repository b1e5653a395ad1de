import unittest

from hakutsu.core.engine.fluids import colour_words, fluid_names, fluid_table, fluids_found
from hakutsu.entries.fluids import Fluid
from hakutsu.vehicle.vocabulary import Consequence


def looks(**said):
    return {key: [Fluid(fluid=key, **body)] for key, body in said.items()}


class Fluids(unittest.TestCase):
    def words(self, winter=None, **said):
        return [one.finding.words for one in fluids_found(looks(**said), winter)]

    def test_every_rule_can_hold_and_names_what_exists(self):
        for rule in fluid_table()["rule"]:
            body = {}
            for field, values in rule["when"].items():
                body[field] = (values[0],) if field in ("debris", "test") else values[0]
            said = self.words(**{rule["fluid"]: body})
            self.assertIn(rule["says"], said, rule["key"])

    def test_a_later_look_warm_does_not_erase_the_one_taken_cold(self):
        oil = [
            Fluid(fluid="engine_oil", state="cold", level="low"),
            Fluid(fluid="engine_oil", state="warm", level="right"),
        ]
        alone = [one.finding.words for one in fluids_found({"engine_oil": oil[:1]})]
        self.assertTrue(alone)
        self.assertEqual([one.finding.words for one in fluids_found({"engine_oil": oil})], alone)

    def test_nothing_out_of_order_is_nothing(self):
        self.assertEqual(self.words(engine_oil={"level": "right", "colour": "amber"}, coolant={"colour": "pink"}), [])

    def test_cream_alone_asks_for_the_coolant_and_with_a_film_is_another_matter(self):
        alone = fluids_found(looks(engine_oil={"colour": "cream"}))
        self.assertEqual((len(alone), alone[0].finding.consequence), (1, Consequence.BUDGET))
        self.assertIn("coolant", alone[0].next)
        both = fluids_found(looks(engine_oil={"colour": "cream"}, coolant={"debris": ("film",)}))
        self.assertEqual(
            (len(both), both[0].finding.consequence, both[0].fluids), (1, Consequence.SETTLE, ("engine_oil", "coolant"))
        )

    def test_each_combination_holds_once_all_its_looks_are_there(self):
        rules = {rule["key"]: rule for rule in fluid_table()["rule"]}
        for one in fluid_table()["combine"]:
            said: dict[str, dict] = {}
            for key in one["rules"]:
                for field, values in rules[key]["when"].items():
                    value = (values[0],) if field in ("debris", "test") else values[0]
                    said.setdefault(rules[key]["fluid"], {})[field] = value
            self.assertIn(one["says"], self.words(**said))

    def test_the_freeze_point_is_held_against_the_winter_of_the_place(self):
        self.assertEqual(self.words(-8.0, coolant={"freezes_c": -13.0}), [])
        self.assertIn("too early", self.words(-8.0, coolant={"freezes_c": -12.0})[0])
        self.assertEqual(self.words(None, coolant={"freezes_c": 0.0}), [])

    def test_reminders_are_no_faults(self):
        [one] = fluids_found(looks(washer={"level": "low"}))
        self.assertEqual(one.finding.consequence, Consequence.LIVE_WITH)

    def test_names_and_colours_have_words(self):
        self.assertEqual(fluid_names()["coolant"], "coolant")
        self.assertIn("mayonnaise", colour_words("cream"))
        self.assertEqual(colour_words("mauve"), "mauve")
