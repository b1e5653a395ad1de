import subprocess
import sys
import tempfile
import threading
import unittest
from pathlib import Path
from unittest.mock import patch
from uuid import uuid4

from hakutsu.entries import Draft
from hakutsu.entries.general import Seen
from hakutsu.logbook import Acknowledged, ImportUnderWay, importing
from hakutsu.logbook.adding import Signed, checked
from hakutsu.logbook.importing import Arriving, NotAll, clear_half_imports, import_entries
from tests.builders import NOON, first_fault, logbook_in, opened, reading

KILLED = """
import os, signal, sys
from uuid import UUID
from hakutsu.logbook import importing
from hakutsu.logbook.importing import Arriving, import_entries
from hakutsu.logbook.adding import Signed, checked
from tests.builders import NOON, logbook_in, reading
batches = []
def rest(_):
    batches.append(1)
    if len(batches) == 2:
        os.kill(os.getpid(), signal.SIGKILL)
importing.rest = rest
drafts = checked(Signed(reading("roof", 100 + i % 50), "Ada") for i in range(2000))
import_entries(logbook_in(sys.argv[1]), Arriving(UUID(sys.argv[2]), NOON), drafts)
"""


class ImportCase(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.root = directory.name
        self.logbook = logbook_in(self.root)
        self.inspection = opened(self.logbook)

    def drafts(self, count):
        return checked(Signed(reading("roof", 100 + i % 50), "Ada") for i in range(count))

    def lengths(self):
        end = self.logbook.ends().get(self.inspection)
        return end and end.seq, len(self.logbook.entries(self.inspection))


class Importing(ImportCase):
    def test_all_of_it_is_there_in_order_and_holds_together(self):
        entries = self.drafts(1234)
        self.assertEqual(import_entries(self.logbook, Arriving(self.inspection, NOON), entries), 1234)
        kept = self.logbook.entries(self.inspection)
        self.assertEqual([entry.id for entry in kept[2:]], [one.signed.draft.id for one in entries])
        self.assertEqual({entry.by for entry in kept[2:]}, {"Ada"})
        self.assertIsNone(first_fault(self.logbook, self.inspection))
        self.assertEqual(import_entries(self.logbook, Arriving(self.inspection, NOON), entries), 0)

    def test_one_bad_entry_and_nothing_is_stored(self):
        bad = checked([Signed(Draft(id=uuid4(), at=NOON, kind="general.seen", body={}), "Ada")])
        with self.assertRaises(NotAll) as caught:
            import_entries(self.logbook, Arriving(self.inspection, NOON), self.drafts(600) + bad)
        self.assertEqual(caught.exception.refused[0].field, "text")
        self.assertEqual(self.lengths(), (2, 2))

    def test_one_that_only_the_logbook_can_refuse_clears_what_went_before(self):
        stranger = checked([Signed(reading("roof", 118, strikes=uuid4()), "Ada")])
        with self.assertRaises(NotAll):
            import_entries(self.logbook, Arriving(self.inspection, NOON), self.drafts(600) + stranger)
        self.assertEqual(self.lengths(), (2, 2))
        self.assertEqual(self.logbook.append(self.inspection, [reading("roof", 1)], "Ada")[0].__class__, Acknowledged)

    def test_while_it_is_half_in_nothing_of_it_is_shown_and_others_are_written(self):
        other = opened(self.logbook)
        seen = []

        def look(_seconds):
            self.logbook.append(other, [reading("roof", 118)], "Ina")
            seen.append((self.lengths(), self.logbook.tip(self.inspection), len(self.logbook.entries(other))))

        before = self.logbook.tip(self.inspection)
        with patch.object(importing, "rest", look):
            import_entries(self.logbook, Arriving(self.inspection, NOON), self.drafts(1500))
        self.assertEqual(seen, [((2, 2), before, 3), ((2, 2), before, 4)])
        self.assertEqual(self.lengths(), (1502, 1502))

    def test_an_entry_for_the_same_inspection_waits_for_the_end(self):
        waiting = threading.Event()
        answers = []

        def write():
            waiting.set()
            answers.extend(self.logbook.append(self.inspection, [reading("roof", 118)], "Ina"))

        def hold(_seconds):
            thread.start()
            waiting.wait(5)

        thread = threading.Thread(target=write)
        with patch.object(importing, "rest", hold):
            import_entries(self.logbook, Arriving(self.inspection, NOON), self.drafts(700))
        thread.join(20)
        self.assertIsInstance(answers[0], Acknowledged)
        self.assertEqual(self.logbook.entries(self.inspection)[-1].by, "Ina")
        self.assertIsNone(first_fault(self.logbook, self.inspection))

    def test_one_that_never_ends_is_said(self):
        def write(_seconds):
            with patch("hakutsu.logbook.store.WAIT_SECONDS", 0.05), self.assertRaises(ImportUnderWay):
                self.logbook.append(self.inspection, [reading("roof", 118)], "Ina")

        with patch.object(importing, "rest", write):
            import_entries(self.logbook, Arriving(self.inspection, NOON), self.drafts(700))

    def test_a_new_inspection_is_not_there_before_it_is_whole(self):
        new, seen = uuid4(), []

        def look(_seconds):
            seen.append((self.logbook.holds(new), new in self.logbook.inspections(), new in self.logbook.tips()))

        with patch.object(importing, "rest", look):
            import_entries(self.logbook, Arriving(new, NOON, came_with="ab" * 32), self.drafts(700))
        self.assertEqual(seen, [(False, False, False)])
        self.assertEqual((self.logbook.holds(new), self.logbook.imported_tip(new)), (True, "ab" * 32))


class Killed(ImportCase):
    def kill_in_the_middle(self, inspection):
        run = subprocess.run(
            [sys.executable, "-c", KILLED, self.root, str(inspection)], cwd=Path(__file__).parents[2], check=False
        )
        self.assertEqual(run.returncode, -9)

    def test_what_a_crash_left_is_not_shown_and_cleared_at_start(self):
        self.logbook.append(self.inspection, [Draft.write("general.seen", Seen(text="rain"), NOON)], "Ada")
        self.kill_in_the_middle(self.inspection)
        self.assertEqual(self.lengths(), (3, 3))
        self.assertEqual(self.logbook.count(), 1003)
        self.assertEqual(clear_half_imports(self.logbook), 1)
        self.assertEqual(self.logbook.count(), 3)
        self.logbook.append(self.inspection, [reading("roof", 118)], "Ada")
        self.assertIsNone(first_fault(self.logbook, self.inspection))

    def test_an_inspection_that_was_new_is_gone_with_it(self):
        new = uuid4()
        self.kill_in_the_middle(new)
        self.assertFalse(self.logbook.holds(new))
        clear_half_imports(self.logbook)
        self.assertEqual((self.logbook.count(), self.logbook.inspections()), (2, [self.inspection]))

    def test_one_under_way_elsewhere_is_left_alone(self):
        def look(_seconds):
            self.assertEqual(clear_half_imports(self.logbook), 0)

        with patch.object(importing, "rest", look):
            import_entries(self.logbook, Arriving(self.inspection, NOON), self.drafts(1200))
        self.assertEqual(self.lengths(), (1202, 1202))
