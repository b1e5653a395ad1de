import unittest
from dataclasses import replace
from uuid import uuid4

from hakutsu.core.consequence import codes
from hakutsu.core.findings import found
from hakutsu.core.stories import is_of, rules, stories
from hakutsu.entries.body import Fit, Glass
from hakutsu.entries.general import Hint, Seen
from tests.builders import reading
from tests.web.case import RoundCase


def finding(code, subject, words="x", sureness=0.9):
    return found(code, subject, words, sureness=sureness).seen_in(uuid4())


class Rules(unittest.TestCase):
    def rules(self, *found):
        return [one.rule for one in stories(found)]

    def test_every_rule_names_codes_there_are(self):
        known = codes()
        for key, rule in rules().items():
            for pattern in (*rule.one, *rule.other):
                with self.subTest(key, pattern=pattern):
                    self.assertTrue(any(is_of(code, (pattern,)) for code in known))

    def test_each_rule_joins_its_pair_where_it_must_lie(self):
        crack = finding("body.lamp_crack", "headlamp_left")
        wet = finding("body.lamp_moisture", "headlamp_left")
        other = finding("body.lamp_moisture", "headlamp_right")
        self.assertEqual(self.rules(crack, wet, other), ["lamp_water"])
        scratch = finding("body.glass_scratch_travel", "glass_front_door_right")
        self.assertEqual(self.rules(scratch, finding("general.window_stiff", "flank_right")), ["pane_travel"])
        self.assertEqual(self.rules(scratch, finding("general.window_stiff", "flank_left")), [])
        roof, floor = finding("general.roof_drain", "roof"), finding("general.floor_damp", "inside_front")
        self.assertEqual(self.rules(roof, floor), ["roof_drain"])
        stain, drip = finding("body.stain", "bonnet"), finding("general.drips", "front")
        self.assertEqual(self.rules(stain, drip), ["drip_stain"])
        pedal, pipe = finding("general.pedal_low", "inside_front"), finding("general.brake_pipe_wet", "under_rear")
        self.assertEqual(self.rules(pedal, pipe), ["pedal_pipe"])
        fit, film = finding("body.fit_out", "front_door_left"), finding("film.refinished", "front_door_left")
        self.assertEqual(self.rules(fit, film), ["fit_film"])
        self.assertEqual(self.rules(fit, finding("film.refinished", "front_door_right")), [])
        self.assertEqual(self.rules(fit, finding("film.refinished", "front_door_left", sureness=0.6)), [])
        screen = finding("body.glass_replaced", "windscreen")
        self.assertEqual(self.rules(screen, finding("body.rust_scale", "screen_base:front")), ["screen_rust"])
        self.assertEqual(self.rules(screen, finding("body.rust_scale", "rear_arch_left")), [])

    def test_stations_below_and_inside_join_what_belongs_together(self):
        pairs = {
            "oil_lost": (("under.leak_seep", "oil:sump_gasket:bay"), ("engine.fluid_oil_low", "engine_oil")),
            "coolant_leak": (("under.leak_drip", "coolant:pump:bay"), ("engine.fluid_coolant_low", "coolant")),
            "coolant_burnt": (("engine.smoke_white_sweet", "bay"), ("engine.fluid_coolant_low", "coolant")),
            "coolant_inside": (("cabin.smells_coolant", "inside_front"), ("engine.fluid_coolant_low", "coolant")),
            "rough_air": (("engine.idle_rough", "bay"), ("engine.bay_vacuum", "bay")),
            "roof_floor": (("functions.roof_dead", "roof"), ("cabin.floor_damp", "inside_front")),
            "below_film": (("under.sign_pulled_structure", "rear_rail_left"), ("film.filled", "rear_quarter_left")),
            "bolts_film": (("engine.bay_bolts", "front_corner_left"), ("film.refinished", "bonnet")),
            "jack_sill": (("under.jack_structure", "front_jack_left"),
                          ("under.rust_pitted_structure", "under_sill_left")),
            "pull_tyre": (("under.sign_pulled_structure", "front_rail_left"),
                          ("corners.tyre_saw_tooth", "wheel_front_left")),
            "airbag": (("functions.airbag_warning", "lamp:airbag"), ("cabin.sign_belt_date", "inside_front")),
            "screen_base_water": (("body.rust_pitted", "screen_base:front"), ("cabin.floor_damp", "inside_front")),
            "gutter_water": (("body.rust_perforated", "gutter:roof"), ("cabin.floor_damp", "boot")),
            "boost_hose": (("corners.gear_failing", "charge_hose"), ("scan.boost", "P0299")),
            "boost_power": (("engine.bay_charge_joint", "bay"), ("engine.ear_hesitates", "bay")),
            "wheels_off": (("corners.fixings_odd", "wheel_front_left"), ("corners.fixings_missing", "wheel_rear_left")),
            "rich_cold": (("engine.ear_struggles_cold", "bay"), ("engine.smoke_black", "bay")),
        }  # fmt: skip
        for rule, (one, other) in pairs.items():
            with self.subTest(rule):
                self.assertEqual(self.rules(finding(*one), finding(*other)), [rule])
                self.assertEqual(self.rules(finding(*one)), [])

    def test_near_is_the_same_side_and_not_the_other_end(self):
        pulled = finding("under.sign_pulled_structure", "rear_rail_left")
        self.assertEqual(self.rules(pulled, finding("film.blended", "rear_door_left")), ["below_film"])
        self.assertEqual(self.rules(pulled, finding("film.blended", "rear_door_right")), [])
        self.assertEqual(self.rules(pulled, finding("film.blended", "front_wing_left")), [])

    def test_neighbourhood_is_real(self):
        scuttle, boot = finding("body.rust_scale", "screen_base:front"), finding("cabin.floor_damp", "boot")
        pane = finding("body.glass_replaced", "glass_rear_door_left")
        self.assertEqual(self.rules(scuttle, pane), [])
        self.assertEqual(self.rules(scuttle, boot), [])
        self.assertEqual(self.rules(finding("body.glass_seal", "windscreen"), boot), [])
        self.assertEqual(self.rules(finding("body.glass_seal", "rear_screen"), boot), ["seal_mats"])
        self.assertEqual(self.rules(boot, finding("engine.fluid_coolant_low", "coolant")), [])
        self.assertEqual(self.rules(finding("corners.gear_failing", "radiator"), finding("scan.boost", "P0299")), [])

    def test_restored_parts_of_one_date_are_one_story(self):
        def part(name, when, code="general.part_restored"):
            return replace(finding(code, f"{name}:vehicle"), dated=when)

        three = [part("engine", "1998"), part("gearbox", "1998", "general.part_renewed"), part("axle", "1998")]
        [told] = stories([*three, part("radiator", "2011"), part("dynamo", "")])
        self.assertEqual((told.rule, len(told.ones) + len(told.others)), ("restored_together", 3))
        self.assertEqual(self.rules(part("engine", ""), part("axle", "")), [])

    def test_no_story_says_accident(self):
        self.assertEqual([key for key, rule in rules().items() if "accident" in rule.words.casefold()], [])

    def test_pairs_that_share_a_finding_are_one_story(self):
        one, two = (finding("under.sign_pulled", key) for key in ("rear_rail_left", "rear_well_left"))
        film = [finding("film.blended", key) for key in ("rear_quarter_left", "rear_door_left")]
        apart = finding("under.sign_pulled", "front_rail_right"), finding("film.blended", "front_wing_right")
        told = stories([one, two, *film, *apart])
        self.assertEqual([(len(story.ones), len(story.others)) for story in told], [(2, 2), (1, 1)])

    def test_nothing_explains_itself_and_nothing_alone(self):
        self.assertEqual(self.rules(finding("body.lamp_crack", "headlamp_left")), [])
        self.assertEqual(self.rules(), [])

    def test_no_story_reads_words(self):
        one, other = (("body.lamp_crack", "headlamp_left"), ("body.lamp_moisture", "headlamp_left"))
        self.assertEqual(self.rules(finding(*one, "no crack at all"), finding(*other, "dry")), ["lamp_water"])
        self.assertEqual(self.rules(finding("body.lamp_haze", "headlamp_left", "crack"), finding(*other)), [])


class Told(RoundCase):
    def text(self, room):
        return self.client.get(f"{self.here}/{room}").text

    def test_it_is_told_on_the_round_and_in_the_report_with_both_named(self):
        self.write("body.glass", Glass(fault="crack"), place="headlamp_left")
        self.write("body.glass", Glass(fault="moisture"), place="headlamp_left")
        for room in ("round", "report"):
            self.assertIn(
                "The crack lets the water in (Headlamp, left: crack – Headlamp, left: moisture inside)", self.text(room)
            )

    def test_what_we_caused_ourselves_tells_no_story(self):
        self.write("body.glass", Glass(fault="crack"), place="headlamp_left", own_doing=True)
        self.write("body.glass", Glass(fault="moisture"), place="headlamp_left")
        self.assertNotIn("lets the water in", self.text("round"))

    def test_a_gap_and_film_on_one_panel_are_one_story(self):
        panels = ("roof", "bonnet", "front_wing_left", "rear_door_left")
        self.post(self.inspection, *(reading(p, um) for p in panels for um in (118, 121)))
        self.post(self.inspection, *(reading("front_door_left", um) for um in (236, 229, 244)))
        for place, gap in (("front_door_left", 7.0), ("front_door_right", 4.0), ("rear_door_left", 4.0)):
            self.write("body.fit", Fit(front_mm=gap, rear_mm=4.0), place=place)
        self.write(
            "general.hint", Hint(seen="the inner liner has new clips on this side only"), place="front_corner_left"
        )
        self.write("general.seen", Seen(text="two keys"), place="desk")
        said = self.text("round")
        self.assertIn("was off, or was hit (Front door, left: front gap 7 mm", said)
        self.assertIn("New fasteners beside a repair", said)
