import unittest
from uuid import uuid4

from hakutsu.core.consequence import SEEN, UNSURE, base, codes
from hakutsu.core.findings import at, axle_of, found, merged, named_place, place_of, side_of
from hakutsu.vehicle.vocabulary import Consequence


class Consequences(unittest.TestCase):
    def test_every_row_says_what_it_asks_for(self):
        self.assertGreater(len(codes()), 400)
        for code in codes():
            with self.subTest(code):
                self.assertIsInstance(base(code).consequence, Consequence)
                self.assertRegex(code, r"^[a-z]+\.[a-z0-9_]+$")

    def test_what_the_trade_asks_for_by_kind(self):
        for code, asked in (
            ("body.rust_perforated_structure", Consequence.WALK_AWAY),
            ("under.rust_perforated_structure", Consequence.WALK_AWAY),
            ("body.rust_pitted_structure", Consequence.SETTLE),
            ("corners.fixings_missing", Consequence.SETTLE),
            ("functions.horn_dead", Consequence.SETTLE),
            ("functions.wipers_dead", Consequence.SETTLE),
            ("functions.brake_lamp_dead", Consequence.SETTLE),
            ("functions.airbag_warning", Consequence.SETTLE),
            ("engine.charging_fault", Consequence.SETTLE),
            ("engine.heater_cold", Consequence.BUDGET),
            ("functions.audio_dead", Consequence.BUDGET),
            ("under.leak_seep", Consequence.BUDGET),
            ("under.water_drips", Consequence.FINE),
            ("cabin.missing_triangle", Consequence.LIVE_WITH),
        ):
            with self.subTest(code):
                self.assertIs(base(code).consequence, asked)

    def test_what_is_not_settled_is_budget_or_settle(self):
        for code in codes():
            if base(code).check:
                with self.subTest(code):
                    self.assertIn(base(code).consequence, (Consequence.BUDGET, Consequence.SETTLE))

    def test_a_code_nobody_knows_is_an_error(self):
        for code in ("corners.square_wheel", "moon.dust", "corners"):
            with self.subTest(code), self.assertRaises(LookupError):
                found(code, "bay", "x")


class OneFinding(unittest.TestCase):
    def test_it_takes_what_its_code_says(self):
        one = found("corners.tyre_one_shoulder_worn", "wheel_front_left", "inner shoulder worn", ("felt",))
        self.assertEqual((one.station, one.consequence, one.sureness), ("corners", Consequence.BUDGET, UNSURE))
        self.assertEqual((one.open.why, one.open.check), ("felt", "have the geometry measured"))
        sure = found("corners.pad_unsafe", "wheel_front_left", "pad gone")
        self.assertEqual((sure.open, sure.sureness, sure.job, sure.settles), (None, SEEN, "brakes", True))

    def test_evidence_is_kept_once_and_in_order(self):
        first, second = uuid4(), uuid4()
        one = found("body.chip", "bonnet", "chip").seen_in(first).seen_in(second, first)
        self.assertEqual(one.evidence, (first, second))

    def test_those_of_one_code_and_subject_are_one(self):
        first, second = uuid4(), uuid4()
        chips = [
            found("body.chip", "bonnet", "chip", ("3 mm",)).seen_in(first),
            found("body.dent", "bonnet", "dent").seen_in(first),
            found("body.chip", "bonnet", "chip", ("5 mm",), consequence=Consequence.SETTLE).seen_in(second),
        ]
        one, dent = merged(chips)
        self.assertEqual((one.words, one.reasons, one.evidence), ("chip", ("3 mm", "5 mm"), (first, second)))
        self.assertEqual((one.consequence, dent.code), (Consequence.SETTLE, "body.dent"))


class WhereItLies(unittest.TestCase):
    def test_of_pieces_leaks_wheels_and_places(self):
        for subject, key, place, side, axle in (
            ("damper:front_left", "wheel_front_left", "front_corner_left", "left", "front"),
            ("wheel_rear_right", "wheel_rear_right", "rear_corner_right", "right", "rear"),
            ("axle_front", "axle_front", "front", None, "front"),
            ("damper:front", "front", "front", None, "front"),
            ("oil:sump_gasket:bay", "bay", "bay", None, ""),
            ("screen_base:bonnet", "bonnet", "front", None, ""),
            ("rear_rail_left", "rear_rail_left", "under_rear", "left", ""),
            ("lamp:airbag", "lamp", "lamp", None, ""),
        ):
            with self.subTest(subject):
                self.assertEqual((at(subject), place_of(subject)), (key, place))
                self.assertEqual((side_of(subject), axle_of(subject)), (side, axle))

    def test_only_what_has_a_name_of_its_own_is_named(self):
        self.assertEqual(named_place("oil:sump:bay"), "bay")
        self.assertEqual(named_place("horn"), "")  # its words name it
        self.assertEqual(named_place("lamp:airbag"), "")


if __name__ == "__main__":
    unittest.main()
