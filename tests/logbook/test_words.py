import tempfile
import unittest
from datetime import timedelta
from uuid import uuid4

from hakutsu.logbook.derived import Kept
from tests.builders import NOON, logbook_in, opened, reading


class SearchWords(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.logbook = logbook_in(directory.name)
        self.words = self.logbook.derived

    def made(self, text, hours=0):
        inspection = uuid4()
        opened_at = (NOON + timedelta(hours=hours)).isoformat()
        self.words.keep([Kept(inspection, "k1", text, {"name": text}, opened_at)])
        return inspection

    def names(self, *parts):
        return [one["name"] for one in self.words.holding(parts)[0]]

    def test_every_part_is_held_newest_first(self):
        self.made("grey estate sill", 0)
        self.made("grey hatch sill", 2)
        self.made("red estate", 1)
        self.assertEqual(self.names("sill", "grey"), ["grey hatch sill", "grey estate sill"])
        self.assertEqual(self.names("estate"), ["red estate", "grey estate sill"])
        self.assertEqual(self.names("sill", "red"), [])

    def test_signs_of_the_query_language_are_plain_letters(self):
        self.made("50 % of it_s 'worn'")
        self.assertEqual(len(self.names("%", "_", "'")), 1)
        self.assertEqual(self.names("5%"), [])

    def test_keeping_again_replaces(self):
        inspection = self.made("barnacle")
        self.words.keep([Kept(inspection, "k2", "limpet", {"name": "limpet"})])
        self.assertEqual(self.words.keys(), {inspection: "k2"})
        self.assertEqual((self.names("barnacle"), self.names("limpet")), ([], ["limpet"]))

    def test_a_batch_of_nothing_is_nothing(self):
        self.words.keep([])
        self.assertEqual((self.words.keys(), self.words.holding(["x"])), ({}, ([], 0)))


class Tips(unittest.TestCase):
    def test_they_are_the_last_hashes_of_all_inspections_that_have_entries(self):
        with tempfile.TemporaryDirectory() as directory:
            logbook = logbook_in(directory)
            first, second = opened(logbook), opened(logbook)
            logbook.open_inspection(uuid4(), NOON)
            self.assertEqual(logbook.tips(), {one: logbook.tip(one) for one in (first, second)})
            before = logbook.tips()
            logbook.append(first, [reading("roof", 118)], "Ina")
            after = logbook.tips()
            self.assertNotEqual(after[first], before[first])
            self.assertEqual(after[second], before[second])
