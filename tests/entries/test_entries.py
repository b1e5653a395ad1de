import json
import unittest
from pathlib import Path
from uuid import uuid4

from pydantic import ValidationError

from hakutsu.entries import Draft, EntryError, kinds, parse_body
from hakutsu.entries.film import Reading
from hakutsu.entries.registry import Body, entry_kind
from tests.builders import NOON, reading

SAMPLES = json.loads((Path(__file__).parent / "samples.json").read_text())


class Samples(unittest.TestCase):
    def test_every_past_version_of_every_kind_has_a_sample_that_still_reads(self):
        for kind in kinds().values():
            if kind.name.startswith("test."):
                continue
            for version in range(1, kind.version + 1):
                with self.subTest(kind=kind.name, version=version):
                    parse_body(kind.name, version, SAMPLES[f"{kind.name}/{version}"])


class Upgrades(unittest.TestCase):
    def test_an_old_body_is_read_as_the_newest_version(self):
        steps = {1: lambda body: {"mm": body["cm"] * 10}, 2: lambda body: {"um": body["mm"] * 1000}}

        @entry_kind("test.depth", version=3, upgrades=steps)
        class Depth(Body):
            um: float

        self.assertEqual(parse_body("test.depth", 1, {"cm": 2}).um, 20_000)
        self.assertEqual(parse_body("test.depth", 2, {"mm": 2}).um, 2_000)

    def test_an_unknown_kind_or_a_version_from_the_future_is_refused(self):
        for kind, version in (("film.guess", 1), ("film.reading", 99)):
            with self.subTest(kind), self.assertRaises(EntryError):
                parse_body(kind, version, {})


class FilmReadings(unittest.TestCase):
    def refused(self, **body):
        with self.assertRaises(EntryError) as caught:
            parse_body("film.reading", 1, body)
        return caught.exception

    def test_a_number_must_be_a_film(self):
        for value in (0, -5, 30_000, "thick", float("nan")):
            with self.subTest(value):
                self.assertEqual(self.refused(value_um=value).field, "value_um")

    def test_status_and_number_must_agree(self):
        self.assertIn("needs its number", self.refused(status="ok").message)
        self.assertIn("no number", self.refused(status="none", value_um=3).message)
        self.assertIsNone(parse_body("film.reading", 1, {"status": "over"}).value_um)

    def test_half_a_position_is_refused(self):
        self.assertIn("both", self.refused(value_um=100, u=0.5).message)

    def test_an_unknown_field_is_refused(self):
        self.assertEqual(self.refused(value_um=100, colour="red").field, "colour")

    def test_it_must_lie_on_a_panel(self):
        for place in (None, "keel"):
            with self.subTest(place), self.assertRaises(EntryError) as caught:
                Draft.write("film.reading", Reading(value_um=100), NOON, place=place).check()
            self.assertEqual(caught.exception.field, "place")

    def test_what_belongs_at_a_wheel_or_somewhere_is_refused_elsewhere(self):
        for kind, place, words in (
            ("corner.brake", "wheel_spare", "“wheel_spare” is not a wheel"),
            ("corner.tyre", "roof", "“roof” is not a corner"),
            ("corner.tyre", None, "say at which corner"),
            ("body.blemish", None, "say where"),
        ):
            with self.subTest(kind), self.assertRaisesRegex(EntryError, words):
                Draft(id=uuid4(), at=NOON, kind=kind, body=SAMPLES[f"{kind}/1"], place=place).check()
        Draft(id=uuid4(), at=NOON, kind="corner.tyre", body=SAMPLES["corner.tyre/1"], place="wheel_spare").check()


class Envelope(unittest.TestCase):
    def test_a_time_without_zone_is_refused(self):
        with self.assertRaises(ValidationError):
            Draft(id=uuid4(), at="2026-11-20T12:00:00", kind="general.seen")

    def test_it_survives_json(self):
        draft = reading("roof", 112, u=0.2, v=0.3)
        self.assertEqual(Draft.model_validate_json(draft.model_dump_json()), draft)
