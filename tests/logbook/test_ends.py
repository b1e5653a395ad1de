"""The ends of all logbooks, followed by what was added since."""

import sqlite3
import tempfile
import unittest
from uuid import uuid4

from hakutsu.logbook.ends import KEPT
from tests.builders import NOON, logbook_in, opened, reading


class Followed(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.logbook = logbook_in(directory.name)
        self.first, self.second = opened(self.logbook), opened(self.logbook)

    def read(self, inspection):
        self.logbook.append(inspection, [reading("roof", 118)], "Ina")

    def test_what_was_added_moves_one_end_and_is_told(self):
        version, _ = self.logbook.ends_since(-1)
        before = dict(self.logbook.ends())
        self.read(self.second)
        after, changed = self.logbook.ends_since(version)
        self.assertEqual(changed, {self.second})
        self.assertEqual(self.logbook.ends()[self.second], (3, self.logbook.tip(self.second)))
        self.assertEqual(self.logbook.ends()[self.first], before[self.first])
        self.assertEqual(self.logbook.ends_since(after), (after, set()))

    def test_by_another_connection_too(self):
        self.logbook.ends()
        with sqlite3.connect(self.logbook.database) as other:
            columns = '"by", draft, hash_version'
            other.execute(
                f"INSERT INTO entry (inspection_id, seq, id, hash, {columns}) "
                f"SELECT inspection_id, 3, ?, 'ff', {columns} FROM entry WHERE inspection_id = ? AND seq = 2",
                (str(uuid4()), str(self.first)),
            )
        self.assertEqual(self.logbook.ends()[self.first], (3, "ff"))

    def test_one_that_has_no_entry_has_no_end(self):
        empty = uuid4()
        self.logbook.open_inspection(empty, NOON)
        self.assertNotIn(empty, self.logbook.ends())
        self.assertEqual(self.logbook.end(empty).seq, 0)
        self.assertIsNone(self.logbook.end(uuid4()))

    def test_who_asks_too_seldom_is_told_that_any_may_have_changed(self):
        version, _ = self.logbook.ends_since(-1)
        for _ in range(KEPT + 1):
            self.read(self.first)
            self.logbook.ends()
        self.assertEqual(self.logbook.ends_since(version)[1], None)
