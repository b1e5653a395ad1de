"""Older entries read as they were meant: where a form had shown a choice as taken, silence meant that choice."""

import unittest

from hakutsu.entries import EntryError, parse_body


class AsTheyWereMeant(unittest.TestCase):
    def read(self, kind, version, body, **meant):
        found = parse_body(kind, version, body)
        for field, value in meant.items():
            with self.subTest(kind=kind, version=version, field=field):
                said = getattr(found, field)
                self.assertEqual(said if not hasattr(said, "value") else said.value, value)

    def test_silence_then_and_now(self):
        for kind, then, now, body, meant in (
            ("corner.brake", 2, 3, {}, {"cracks": "none", "rust": "none"}),
            ("corner.tyre", 2, 3, {}, {"shape": "none"}),
            ("fluid.looked", 2, 3, {"fluid": "coolant"}, {"smell": "none"}),
            ("body.blemish", 2, 3, {"kind": "chip"}, {"shows_from": "arm"}),
            ("body.glass", 2, 3, {}, {"fault": "none", "tint": "clear"}),
            ("body.trim", 2, 3, {"state": "good"}, {"material": "plastic"}),
            ("day.arrival", 2, 3, {}, {"weather": "dry", "light": "daylight", "stands": "level"}),
        ):
            self.read(kind, then, body, **meant)
            self.read(kind, now, body, **dict.fromkeys(meant, "unknown"))

    def test_no_is_not_the_same_as_nobody_tried(self):
        self.assertIs(parse_body("body.fit", 2, {}).play, False)
        self.assertIsNone(parse_body("body.fit", 3, {}).play)
        self.assertIs(parse_body("day.conditions", 1, {"begins": "2026-11-24T09:00:00Z"}).lift, False)
        self.assertIsNone(parse_body("day.conditions", 2, {"begins": "2026-11-24T09:00:00Z"}).lift)
        self.assertIs(parse_body("day.arrival", 2, {}).indoors, False)
        self.assertIsNone(parse_body("day.arrival", 3, {}).indoors)

    def test_a_zone_of_which_nothing_was_said_had_nothing_then_and_was_not_looked_at_now(self):
        then = parse_body("under.zone", 2, {"zone": "tank", "rust": "stain"})
        self.assertEqual([one.value for one in then.clear], ["damage", "repair"])
        self.assertEqual(parse_body("under.zone", 2, {"zone": "tank", "not_visible": "mud"}).clear, ())
        self.assertFalse(parse_body("under.zone", 3, {"zone": "tank", "exhaust": "sound"}).looked)

    def test_an_empty_look_inside_meant_that_all_was_well(self):
        then = parse_body("cabin.looked", 2, {})
        self.assertTrue(then.no_smell)
        self.assertTrue(then.dry)
        with self.assertRaises(EntryError):
            parse_body("cabin.looked", 3, {})
