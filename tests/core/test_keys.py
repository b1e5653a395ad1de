import unittest

from hakutsu.core.keys import check_keys
from hakutsu.entries import EntryError, kinds, parse_body
from tests.entries.test_entries import SAMPLES


class Keys(unittest.TestCase):
    def refused(self, kind, body):
        with self.assertRaises(EntryError) as caught:
            check_keys(parse_body(kind, 1, body))
        return caught.exception

    def test_the_samples_name_nothing_unknown(self):
        for kind in kinds().values():
            if not kind.name.startswith("test."):
                with self.subTest(kind.name):
                    check_keys(parse_body(kind.name, kind.version, SAMPLES[f"{kind.name}/{kind.version}"]))

    def test_a_key_in_no_table_is_refused_at_its_field(self):
        for kind, body, field in (
            ("function.tried", {"item": "warp_drive", "result": "works"}, "item"),
            ("function.fitted", {"item": "warp_drive", "there": True}, "item"),
            ("corner.gear", {"part": "warp_drive", "grade": "worn"}, "part"),
            ("life.proof", {"part": "warp_drive", "when": "2020", "proof": "invoice"}, "part"),
            ("fluid.looked", {"fluid": "warp_drive"}, "fluid"),
            ("fluid.looked", {"fluid": "coolant", "colour": "octarine"}, "colour"),
            ("hazard.raised", {"cause": "warp_drive"}, "cause"),
            ("step.begun", {"step": "warp_drive"}, "step"),
            ("film.cue", {"cue": "warp_drive", "there": True}, "cue"),
            ("inspection.settings", {"costs": {"warp_drive": {"hours": [1, 2], "materials": [0, 1]}}}, "costs"),
        ):
            with self.subTest(kind):
                error = self.refused(kind, body)
                self.assertEqual(error.field, field)
                self.assertIn(body.get("colour", "warp_drive"), error.message)

    def test_what_is_measured_and_what_is_due_have_proofs_too(self):
        for part in ("tyres", "timing_belt", "battery"):
            check_keys(parse_body("life.proof", 1, {"part": part, "when": "2024-05", "proof": "invoice"}))
