import unittest
from uuid import uuid4

from hakutsu.core.stories import Finding, stories
from hakutsu.entries.body import Fit, Glass
from hakutsu.entries.general import Hint, Seen
from tests.builders import reading
from tests.web.case import RoundCase


def finding(kind, place, words):
    return Finding(kind, place, words, uuid4())


class Rules(unittest.TestCase):
    def rules(self, *found):
        return [one.rule for one in stories(found)]

    def test_each_rule_joins_its_pair_where_it_must_lie(self):
        crack = finding("body.glass", "headlamp_left", "crack")
        wet = finding("body.glass", "headlamp_left", "moisture inside")
        other = finding("body.glass", "headlamp_right", "moisture inside")
        self.assertEqual(self.rules(crack, wet, other), ["lamp_water"])
        scratch = finding("body.glass", "glass_front_door_right", "scratch along_travel")
        slow = finding("general.seen", "flank_right", "front window slow and stiff")
        self.assertEqual(self.rules(scratch, slow), ["pane_travel"])
        self.assertEqual(self.rules(scratch, finding("general.seen", "flank_left", "window slow")), [])
        roof, floor = (
            finding("general.hint", "roof", "sunroof drain blocked"),
            finding("general.seen", "inside_front", "carpet damp"),
        )
        self.assertEqual(self.rules(roof, floor), ["roof_drain"])
        stain, drip = (
            finding("body.blemish", "bonnet", "stain"),
            finding("general.seen", "front", "a drip from the gutter"),
        )
        self.assertEqual(self.rules(stain, drip), ["drip_stain"])
        pedal, pipe = (
            finding("general.seen", "inside_front", "pedal low"),
            finding("general.seen", "under_rear", "brake pipe wet"),
        )
        self.assertEqual(self.rules(pedal, pipe), ["pedal_pipe"])
        fit, film = (
            finding("body.fit", "front_door_left", "gap out_of_line"),
            finding("film.altered", "front_door_left", "x"),
        )
        self.assertEqual(self.rules(fit, film), ["fit_film"])
        self.assertEqual(self.rules(fit, finding("film.altered", "front_door_right", "x")), [])

    def test_stations_below_and_inside_join_what_belongs_together(self):
        pairs = {
            "oil_lost": (("leak.seen", "", "engine oil sump gasket seep"), ("fluid.looked", "bay", "engine_oil low")),
            "coolant_burnt": (("engine.start", "bay", "lasting white, sweet"), ("fluid.looked", "bay", "coolant low")),
            "coolant_inside": (("cabin.looked", "inside_front", "coolant"), ("fluid.looked", "bay", "coolant low")),
            "rough_air": (("engine.idle", "bay", "rough"), ("engine.bay", "bay", "vacuum line cracked or off")),
            "roof_floor": (("function.tried", "roof", "roof opening fails"), ("cabin.looked", "boot", "boot floor")),
            "below_film": (("under.zone", "rear_rail_left", "pulled"), ("film.altered", "rear_quarter_left", "x")),
            "bolts_film": (("engine.bay", "front_corner_left", "panel bolts turned"), ("film.altered", "bonnet", "x")),
            "jack_sill": (("under.zone", "front_jack_left", "jack damage"),
                          ("under.zone", "under_sill_left", "pitted")),
            "pull_tyre": (("under.zone", "front_rail_left", "pulled"),
                          ("corner.found", "wheel_front_left", "saw-tooth: toe")),
            "airbag": (("function.lamp", "inside_front", "airbag"), ("cabin.looked", "", "belt date marks differ")),
        }  # fmt: skip
        for rule, (one, other) in pairs.items():
            with self.subTest(rule):
                self.assertEqual(self.rules(finding(*one), finding(*other)), [rule])
                self.assertEqual(self.rules(finding(*one)), [])

    def test_near_is_the_same_side_and_not_the_other_end(self):
        pulled = finding("under.zone", "rear_rail_left", "pulled")
        self.assertEqual(self.rules(pulled, finding("film.altered", "rear_door_left", "x")), ["below_film"])
        self.assertEqual(self.rules(pulled, finding("film.altered", "rear_door_right", "x")), [])
        self.assertEqual(self.rules(pulled, finding("film.altered", "front_wing_left", "x")), [])

    def test_pairs_that_share_a_finding_are_one_story(self):
        one, two = (finding("under.zone", key, "pulled") for key in ("rear_rail_left", "rear_well_left"))
        film = [finding("film.altered", key, "x") for key in ("rear_quarter_left", "rear_door_left")]
        apart = finding("under.zone", "front_rail_right", "pulled"), finding("film.altered", "front_wing_right", "x")
        found = stories([one, two, *film, *apart])
        self.assertEqual([(len(story.ones), len(story.others)) for story in found], [(2, 2), (1, 1)])

    def test_nothing_explains_itself_and_nothing_alone(self):
        both = finding("body.glass", "headlamp_left", "crack moisture inside")
        self.assertEqual(self.rules(both), [])
        self.assertEqual(self.rules(), [])


class Told(RoundCase):
    def text(self, room):
        return self.client.get(f"{self.here}/{room}").text

    def test_it_is_told_on_the_round_and_in_the_report_with_both_named(self):
        self.write("body.glass", Glass(fault="crack"), place="headlamp_left")
        self.write("body.glass", Glass(fault="moisture inside"), place="headlamp_left")
        for room in ("round", "report"):
            self.assertIn(
                "The crack lets the water in (Headlamp, left: crack – Headlamp, left: moisture inside)", self.text(room)
            )

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
