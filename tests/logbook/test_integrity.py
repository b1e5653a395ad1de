import sqlite3
import tempfile
import unittest
from datetime import timedelta
from pathlib import Path

from hakutsu.entries.envelope import FIRST_HASH, chained
from hakutsu.logbook import Integrity
from tests.builders import NOON, logbook_in, opened, reading


class Checking(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.root = Path(directory.name)
        self.logbook = logbook_in(directory.name)
        self.inspection = opened(self.logbook)
        self.logbook.append(self.inspection, [reading("roof", 100 + i) for i in range(8)], "Ada")
        self.integrity = Integrity(self.logbook)

    def meddle(self, statement, *values):
        with sqlite3.connect(self.root / "hakutsu.sqlite") as database:
            database.execute(statement, values)

    def check(self, *, whole=False, after=0):
        return self.integrity.check(self.inspection, NOON + timedelta(minutes=after), whole=whole)

    def test_a_whole_logbook_holds_to_its_last_entry(self):
        found = self.check()
        self.assertEqual((found.seq, found.hash, found.fault_seq), (10, self.logbook.tip(self.inspection), None))

    def test_changed_missing_and_put_in_later(self):
        for statement, seq, why in (
            ("UPDATE entry SET draft = replace(draft, '102.0', '302.0') WHERE seq = 5", 5, "does not follow"),
            ("UPDATE entry SET \"by\" = 'Eve' WHERE seq = 6", 6, "does not follow"),
            ("DELETE FROM entry WHERE seq = 7", 7, "missing"),
            ("UPDATE entry SET draft = 'rubbish', hash_version = 1 WHERE seq = 4", 4, "cannot be read"),
            ("UPDATE entry SET hash_version = 9 WHERE seq = 3", 3, "cannot be read"),
        ):
            with self.subTest(statement):
                self.setUp()
                self.meddle(statement)
                found = self.check()
                self.assertEqual((found.fault_seq, found.seq), (seq, seq - 1))
                self.assertIn(why, found.fault)
                self.assertEqual(list(self.integrity.faults()), [self.inspection])

    def test_it_goes_on_from_where_it_was(self):
        self.check()
        self.meddle("UPDATE entry SET draft = replace(draft, '102.0', '302.0') WHERE seq = 5")
        self.logbook.append(self.inspection, [reading("roof", 130)], "Ada")
        self.assertIsNone(self.check(after=1).fault_seq)  # what was checked before is not read again
        self.assertEqual(self.check(whole=True).fault_seq, 5)

    def test_a_logbook_cut_short_is_noticed(self):
        self.check()
        self.meddle("DELETE FROM entry WHERE seq > 8")
        found = self.check()
        self.assertEqual(found.fault_seq, 9)
        self.assertIn("10 entries were here when it was last checked, now 8", found.fault)
        self.assertEqual(self.check(whole=True).fault_seq, 9)

    def test_a_chain_made_anew_is_noticed(self):
        self.check()
        previous = FIRST_HASH
        for row in self.logbook.rows(self.inspection):
            draft = row.draft.replace("102.0", "302.0")
            previous = chained(2, previous, str(self.inspection), row.seq, row.by, draft)
            self.meddle("UPDATE entry SET draft = ?, hash = ? WHERE seq = ?", draft, previous, row.seq)
        for whole in (False, True):
            found = self.check(whole=whole)
            self.assertEqual(found.fault_seq, 10)
            self.assertIn("not the one that was here", found.fault)

    def test_what_is_mended_holds_again(self):
        self.meddle("UPDATE entry SET draft = replace(draft, '102.0', '302.0') WHERE seq = 5")
        self.assertEqual(self.check().fault_seq, 5)
        self.meddle("UPDATE entry SET draft = replace(draft, '302.0', '102.0') WHERE seq = 5")
        self.assertIsNone(self.check().fault_seq)
        self.assertEqual(self.integrity.faults(), {})

    def test_all_inspections_one_after_the_other_until_stopped(self):
        other = opened(self.logbook)
        found = dict(self.integrity.check_all(lambda: NOON))
        self.assertEqual(set(found), {self.inspection, other})
        self.assertEqual(list(self.integrity.check_all(lambda: NOON, stopped=lambda: True)), [])
