import unittest

from hakutsu.core.phrases import denies, says

DENIED = (
    ("remark", "no oil leak, dry"),
    ("remark", "no drips anywhere"),
    ("remark", "carpets not damp"),
    ("remark", "the floor isn't wet"),
    ("remark", "leaks: none"),
    ("remark", "pedal firm, not soft"),
    ("limit", "gauge steady, not above half"),
    ("limit", "door not stuck"),
    ("limit", "temperature gauge not dead"),
    ("limit", "battery not flat"),
    ("again", "no knock"),
    ("again", "without a rattle"),
    ("again", "ran an hour, never any knocking"),
    ("lamp", "no airbag lamp"),
)
SAID = (
    ("remark", "a drip below the pump", ["drips"]),
    ("remark", "dry outside, but the carpet in the rear footwell is damp", ["floor_damp"]),
    ("remark", "not clean; pedal a little spongy", ["pedal_low"]),
    ("remark", "the inner liner has new clips on this side only", ["new_fasteners"]),
    ("limit", "it won't start", ["no_start"]),
    ("limit", "the boot does not open", ["door"]),
    ("limit", "no light, temperature gauge dead", ["temperature_gauge"]),
    ("limit", "hand brake will not release", ["parking_brake"]),
    ("again", "no leak, but it knocks", ["noise"]),
    ("lamp", "Air bag", ["airbag"]),
    ("lamp", "engine management", ["engine"]),
)


class Phrases(unittest.TestCase):
    def test_what_is_denied_is_not_said(self):
        for group, text in DENIED:
            with self.subTest(text):
                self.assertEqual(says(group, text), [])

    def test_what_is_said_is_heard_whatever_else_is_denied(self):
        for group, text, keys in SAID:
            with self.subTest(text):
                self.assertEqual(says(group, text), keys)

    def test_parts_of_words_and_of_phrases_say_nothing(self):
        for text in ("humble", "a thousand windows", "wetsuit on the seat", "the lockers", ""):
            with self.subTest(text):
                self.assertEqual(says("again", text) + says("limit", text), [])

    def test_a_phrase_does_not_reach_over_clauses(self):
        self.assertEqual(says("remark", "carpet new. Wet road outside"), [])

    def test_no_such_group(self):
        with self.assertRaises(LookupError):
            says("rumour", "wet")


class MostOfWhatIsSpokenIsNegative(unittest.TestCase):
    def test_a_negation_proposes_nothing_and_finds_nothing(self):
        for text in ("no oil leak, dry", "gauge steady, not above half", "door not stuck", "no knock",
                     "no fuel smell, carburettor dry", "nothing wet as far as the lamp reaches"):  # fmt: skip
            with self.subTest(text):
                self.assertEqual((says("limit", text), says("again", text), says("remark", text)), ([], [], []))
                self.assertTrue(denies(text))

    def test_a_damp_floor_is_felt_again_after_rain(self):
        self.assertEqual(says("again", "carpet damp on the left")[0], "damp_floor")


if __name__ == "__main__":
    unittest.main()
