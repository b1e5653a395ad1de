import json
import unittest
from decimal import Decimal

from sqlalchemy import text

from hakutsu.entries import Draft, kinds, parse_body
from hakutsu.entries.body import Depth
from hakutsu.entries.money import Line
from hakutsu.entries.registry import OldWords, keyed, version_of
from hakutsu.vehicle.keyed import Keyed, key_of
from hakutsu.vehicle.tables import read_table
from hakutsu.vehicle.vocabulary import Direction
from tests.builders import NOON
from tests.entries.test_entries import SAMPLES
from tests.inspection import InspectionCase


def every_keyed(kind=Keyed):
    return [one for sub in kind.__subclasses__() for one in (sub, *every_keyed(sub))]


class StableKeys(unittest.TestCase):
    def test_what_is_stored_is_a_key_and_words_are_told(self):
        self.assertEqual((Depth.METAL.value, f"{Depth.METAL}", key_of(Depth.METAL)), ("metal", "to metal", "metal"))
        self.assertEqual(json.dumps(Depth.METAL), '"metal"')
        for kind in every_keyed():
            for one in kind:
                with self.subTest(kind.__name__, key=one.value):
                    self.assertRegex(one.value, r"^[a-z][a-z0-9_]*$")

    def test_no_word_of_one_is_the_key_of_another(self):
        for kind in every_keyed():
            words = {one.words: one for one in kind}
            self.assertEqual(len(words), len(kind), kind)
            for one in kind:
                self.assertIs(words.get(one.value, one), one)

    def test_no_body_stores_words(self):
        for kind in kinds().values():
            if kind.name.startswith("test."):
                continue
            body = parse_body(kind.name, kind.version, SAMPLES[f"{kind.name}/{kind.version}"])
            for field, value in body.model_dump(mode="json").items():
                chosen = type(body).model_fields[field].annotation
                if isinstance(chosen, type) and issubclass(chosen, Keyed):
                    self.assertIn(value, [one.value for one in chosen], (kind.name, field))


class FromWords(unittest.TestCase):
    def test_words_of_an_older_version_become_keys_wherever_they_stand(self):
        old = {"kind": "chip", "depth": "to metal", "shows_from": "arm’s length", "note": "to metal"}
        body = parse_body("body.blemish", 1, old)
        self.assertEqual((body.depth.value, body.shows_from.value, body.note), ("metal", "arm", "to metal"))
        bay = parse_body("engine.bay", 1, {"signs": ["hose swollen", "pulley out of line"]})
        self.assertEqual([one.value for one in bay.signs], ["swollen", "pulley"])
        facts = {"mechanics": {"power": "not known", "rear_axle": "beam axle"}}
        self.assertEqual(parse_body("inspection.mechanics", 1, facts).mechanics.rear_axle.value, "beam")

    def test_words_said_otherwise_today_are_still_read(self):
        for kind, raw, field, key in (
            ("body.blemish", {"kind": "chip", "depth": "not felt"}, "depth", "unknown"),
            ("claim.said", {"words": "x", "kind": "no lamps or codes"}, "kind", "no_lamps"),
            ("function.tried", {"item": "horn", "result": "did not work for me"}, "result", "not_for_me"),
            ("corner.brake", {"rust": "none, or a film that brakes off"}, "rust", "none"),
        ):
            with self.subTest(kind):
                self.assertEqual(getattr(parse_body(kind, 1, raw), field).value, key)

    def test_no_rewording_breaks_what_was_stored(self):
        for kind in every_keyed():
            members = {one.value for one in kind}
            for words, key in read_table("entries", "old_words", OldWords).enumeration.get(kind.__name__, {}).items():
                if key in members:
                    self.assertEqual(keyed(kind, words), key)

    def test_what_is_no_word_stays_as_it_is_and_is_refused_if_it_is_nothing(self):
        self.assertEqual(keyed(Depth, "to the moon"), "to the moon")
        self.assertEqual(keyed(list[Depth], ["to metal", 3]), ["metal", 3])
        self.assertEqual(keyed(Depth | None, None), None)

    def test_a_body_without_a_version_is_of_the_newest_that_reads_it(self):
        for body, version in (({"kind": "chip", "depth": "to metal"}, 1), ({"kind": "chip", "depth": "metal"}, 4)):
            self.assertEqual(version_of("body.blemish", body), version)
            sent = {"id": "3b1f4f0e-5c1a-4c6e-9a51-111111111111", "at": NOON, "kind": "body.blemish", "body": body}
            self.assertEqual(Draft.model_validate(sent).parsed().depth, Depth.METAL)
        self.assertEqual(version_of("body.blemish", {"kind": "nonsense"}), 4)
        self.assertEqual(version_of("nothing.known", {}), 1)


class OldLines(unittest.TestCase):
    def line(self, line, treat="settle", **more):
        return parse_body("money.line", 1, {"line": line, "treat": treat, **more})

    def test_each_way_of_naming_a_line_has_its_code_and_subject(self):
        wheel = "wheel_front_left"
        for line, code, subject in (
            ("job:brakes:front", "job", "brakes:front"),
            ("part:bonnet", "body.marks", "bonnet"),
            ("blends", "body.blends", "body"),
            ("claim:3b1f", "claims.not_as_claimed", "3b1f"),
            (f"found:{wheel}:2 wheel fixings missing", "corners.fixings_missing", wheel),
            (f"found:{wheel}:1 wheel fixing loose", "corners.fixings_loose", wheel),
            ("found::parking brake holds weakly", "corners.parking_weak", "parking_brake"),
            ("found:bay:engine oil from Sump gasket leaks", "under.leak", "oil:sump_gasket:bay"),
            ("found:bay:metal in the engine oil: bearings or timing wear", "engine.fluid_oil_metal", "engine_oil"),
            ("found:rear_rail_left:rust, pitted in what carries", "under.rust_structure", "rear_rail_left"),
            ("found:rear_rail_left:somebody worked here: weld, patch", "under.sign_weld_structure", "rear_rail_left"),
            ("found::something nobody wrote", "found::something nobody wrote", ""),
        ):
            with self.subTest(line):
                body = self.line(line, amount="12.50", note="agreed")
                self.assertEqual((body.code, body.subject), (code, subject))
                self.assertEqual((body.amount, body.note), (Decimal("12.50"), "agreed"))

    def test_what_becomes_of_it_is_a_key(self):
        self.assertEqual(
            [self.line("job:x", one).treat.value for one in ("settle", "budget for", "live with")],
            ["settle", "budget", "live_with"],
        )
        for treat in ("fine", "walk_away", "budget for"):
            with self.assertRaises(ValueError):
                Line(code="job", subject="x", treat=treat)


class SettingsOfOld(InspectionCase):
    def test_words_in_the_settings_of_an_account_are_read_as_keys(self):
        library = self.logbook.library
        library.settings = library.settings.model_copy(update={"labour_rate": Decimal("71")})
        with self.logbook.engine.begin() as connection:
            [row] = connection.execute(text("SELECT value FROM setting WHERE key = 'habits'")).all()
            said = json.loads(row[0])
            said["walk"]["direction"] = "right side first"
            connection.execute(text("UPDATE setting SET value = :v WHERE key = 'habits'"), {"v": json.dumps(said)})
        library._settings = None
        self.assertEqual(library.settings.labour_rate, 71)
        self.assertIs(library.settings.walk.direction, Direction.RIGHT_FIRST)


if __name__ == "__main__":
    unittest.main()
