"""Hashes are of what is stored, so that no later field, default or model changes one."""

import json
import sqlite3
import tempfile
import unittest
from pathlib import Path
from unittest.mock import patch
from uuid import UUID

from hakutsu.entries import Draft
from hakutsu.entries.envelope import FIRST_HASH, Entry, chained
from hakutsu.entries.general import Seen
from hakutsu.entries.registry import Body, Kind
from hakutsu.logbook import Integrity, Logbook
from tests.builders import NOON, first_fault, logbook_in, opened, reading

SAMPLES = sorted((Path(__file__).parent / "samples").glob("*.sql"))


class OtherVersions(unittest.TestCase):
    """Logbooks as every past version wrote them, this one among them."""

    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.root = Path(directory.name)

    def brought(self, sample) -> Logbook:
        place = self.root / sample.stem
        place.mkdir()
        with sqlite3.connect(place / "hakutsu.sqlite") as database:
            database.executescript(sample.read_text(encoding="utf-8"))
        database.close()
        return logbook_in(str(place))

    def rows(self, place):
        with sqlite3.connect(place / "hakutsu.sqlite") as database:
            return {row[:2]: row[2:] for row in database.execute("SELECT inspection_id, seq, hash, draft FROM entry")}

    def test_there_is_one_of_every_version_that_stored_otherwise(self):
        self.assertEqual([sample.stem for sample in SAMPLES], ["0.6.1", "0.7.0"])

    def test_they_are_opened_and_hold_together(self):
        for sample in SAMPLES:
            with self.subTest(sample.stem):
                logbook = self.brought(sample)
                self.assertEqual(len(logbook.inspections()), 2)
                for inspection in logbook.inspections():
                    self.assertIsNone(first_fault(logbook, inspection))
                    self.assertGreater(len(logbook.entries(inspection)), 12)
                self.assertEqual(logbook.account, "Ísla Hallvard")

    def test_migrating_changes_no_character_and_no_hash(self):
        sample = SAMPLES[0]
        with sqlite3.connect(self.root / "before.sqlite") as database:
            database.executescript(sample.read_text(encoding="utf-8"))
            before = {row[:2]: row[2:] for row in database.execute("SELECT inspection_id, seq, hash, draft FROM entry")}
        database.close()
        self.brought(sample)
        self.assertEqual(self.rows(self.root / sample.stem), before)

    def test_new_entries_follow_the_old_ones(self):
        logbook = self.brought(SAMPLES[0])
        (inspection,) = (one for one in logbook.inspections() if len(logbook.entries(one)) > 20)
        logbook.append(inspection, [reading("roof", 112)], "Ada")
        self.assertIsNone(first_fault(logbook, inspection))
        versions = [row.hash_version for row in logbook.rows(inspection)]
        self.assertEqual((versions[0], versions[-1]), (1, 2))

    def test_one_changed_in_an_old_logbook_is_found(self):
        logbook = self.brought(SAMPLES[0])
        with sqlite3.connect(self.root / "0.6.1" / "hakutsu.sqlite") as database:
            database.execute('UPDATE entry SET draft = replace(draft, \'"how": ""\', \'"how": "x"\') WHERE seq = 7')
        faults = [first_fault(logbook, inspection) for inspection in logbook.inspections()]
        self.assertIn(7, faults)

    def test_a_migration_that_is_cut_off_leaves_the_old_logbook(self):
        place = self.root / "cut"
        place.mkdir()
        with sqlite3.connect(place / "hakutsu.sqlite") as database:
            database.executescript(SAMPLES[0].read_text(encoding="utf-8"))
        database.close()
        before = self.rows(place)
        with patch("alembic.op.rename_table", side_effect=KeyboardInterrupt), self.assertRaises(KeyboardInterrupt):
            logbook_in(str(place))
        self.assertEqual(self.rows(place), before)
        self.assertEqual(len(logbook_in(str(place)).inspections()), 2)


class AsStored(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.logbook = logbook_in(directory.name)
        self.inspection = opened(self.logbook)
        self.logbook.append(self.inspection, [Draft.write("general.seen", Seen(text="salt – é"), NOON)], "Ada")

    def holds(self):
        return Integrity(self.logbook).check(self.inspection, NOON, whole=True).fault_seq is None

    def test_a_new_field_in_the_envelope_changes_no_old_hash(self):
        class Wider(Entry):
            mood: str = "calm"

        with patch("hakutsu.logbook.store.Entry", Wider):
            self.assertEqual(self.logbook.entries(self.inspection)[-1].mood, "calm")
            self.assertTrue(self.holds())

    def test_a_new_field_in_a_body_changes_no_old_hash(self):
        class SeenWider(Body):
            station: str = "general"
            text: str
            weather: str = "not told"

        wider = {"general.seen": Kind("general.seen", SeenWider)}
        with patch.dict("hakutsu.entries.registry._kinds", wider):
            self.assertEqual(self.logbook.entries(self.inspection)[-1].parsed().weather, "not told")
            self.assertTrue(self.holds())

    def test_the_recipe_by_hand(self):
        (*_, row) = self.logbook.rows(self.inspection)
        stored = '{"at":"2026-11-20T12:00:00+00:00","body":{"text":"salt – é"},"for_desk":false,"how":"",'
        self.assertTrue(row.draft.startswith(stored), row.draft)
        self.assertEqual(
            row.draft, json.dumps(json.loads(row.draft), sort_keys=True, ensure_ascii=False, separators=(",", ":"))
        )
        before = self.logbook.rows(self.inspection)[-2].hash
        self.assertEqual(row.hash, chained(2, before, str(self.inspection), 3, "Ada", row.draft))

    def test_every_part_of_an_entry_counts(self):
        inspection = str(UUID(int=1))
        one = chained(2, FIRST_HASH, inspection, 1, "Ada", "{}")
        others = [
            chained(2, "1" * 64, inspection, 1, "Ada", "{}"),
            chained(2, FIRST_HASH, str(UUID(int=2)), 1, "Ada", "{}"),
            chained(2, FIRST_HASH, inspection, 2, "Ada", "{}"),
            chained(2, FIRST_HASH, inspection, 1, "Ade", "{}"),
            chained(2, FIRST_HASH, inspection, 1, "Ada", "{ }"),
            chained(1, FIRST_HASH, inspection, 1, "Ada", "{}"),
        ]
        self.assertEqual(len({one, *others}), 7)
        with self.assertRaises(ValueError):
            chained(3, FIRST_HASH, inspection, 1, "Ada", "{}")
