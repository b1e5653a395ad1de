import sqlite3
import subprocess
import sys
import tempfile
import threading
import unittest
from pathlib import Path
from uuid import uuid4

from hakutsu.entries import Draft
from hakutsu.entries.general import Seen, Strike
from hakutsu.logbook import Acknowledged, DataDirectory, DirectoryInUse, Refused
from tests.builders import NOON, first_fault, logbook_in, opened, reading

WRITER = """
import sys, os, signal
from tests.builders import logbook_in, opened, reading
logbook = logbook_in(sys.argv[1])
inspection = opened(logbook)
print(inspection, flush=True)
for i in range(40):
    for answer in logbook.append(inspection, [reading("roof", 100 + i)], "x"):
        print(answer.id, flush=True)
    if i == 25:
        os.kill(os.getpid(), signal.SIGKILL)
"""


class LogbookCase(unittest.TestCase):
    def setUp(self):
        self.directory = tempfile.TemporaryDirectory()
        self.addCleanup(self.directory.cleanup)
        self.logbook = logbook_in(self.directory.name)
        self.inspection = opened(self.logbook)

    def append(self, *drafts, by="Ada"):
        return self.logbook.append(self.inspection, drafts, by)


class Appending(LogbookCase):
    def test_entries_come_back_as_written_with_author_and_sequence(self):
        draft = reading("roof", 112)
        self.append(draft)
        entry = self.logbook.entries(self.inspection)[-1]
        self.assertTrue(entry.same_content(draft))
        self.assertEqual((entry.by, entry.seq), ("Ada", 3))

    def test_sending_twice_is_harmless(self):
        draft = reading("roof", 112)
        self.assertEqual(self.append(draft, draft), [Acknowledged(draft.id)] * 2)
        self.assertEqual(self.append(draft), [Acknowledged(draft.id)])
        self.assertEqual(len(self.logbook.entries(self.inspection)), 3)

    def test_another_content_under_a_known_id_is_refused(self):
        draft = reading("roof", 112)
        self.append(draft)
        (answer,) = self.append(reading("roof", 113, id=draft.id))
        self.assertIsInstance(answer, Refused)
        self.assertEqual(self.logbook.entries(self.inspection)[-1].body["value_um"], 112)

    def test_ids_are_unique_within_an_inspection_only(self):
        draft, other = reading("roof", 112), opened(self.logbook)
        self.append(draft)
        self.assertEqual(self.logbook.append(other, [draft], "Ada"), [Acknowledged(draft.id)])
        (answer,) = self.logbook.append(other, [reading("roof", 113, id=draft.id)], "Ada")
        self.assertEqual((type(answer), answer.field), (Refused, "id"))

    def test_a_bad_draft_does_not_take_the_good_ones_with_it(self):
        bad = Draft(id=uuid4(), at=NOON, kind="film.reading", place="keel", body={"value_um": 100})
        answers = self.append(reading("roof", 112), bad, reading("roof", 113))
        self.assertEqual([type(answer) for answer in answers], [Acknowledged, Refused, Acknowledged])
        self.assertEqual(answers[1].field, "place")

    def test_only_an_entry_of_this_inspection_can_be_struck(self):
        stranger = uuid4()
        (answer,) = self.append(Draft.write("general.strike", Strike(), NOON, strikes=stranger))
        self.assertEqual(answer.field, "strikes")

    def test_an_unknown_inspection_is_an_error(self):
        with self.assertRaises(LookupError):
            self.logbook.append(uuid4(), [reading("roof", 112)], "Ada")

    def test_many_writers_at_once_lose_nothing(self):
        def write(name):
            for i in range(20):
                self.logbook.append(self.inspection, [reading("roof", 100 + i)], name)

        threads = [threading.Thread(target=write, args=(f"w{i}",)) for i in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        entries = self.logbook.entries(self.inspection)
        self.assertEqual([entry.seq for entry in entries], list(range(1, 83)))
        self.assertIsNone(first_fault(self.logbook, self.inspection))


class Chain(LogbookCase):
    def test_a_changed_entry_breaks_the_chain_at_its_place(self):
        self.append(reading("roof", 112), reading("roof", 113))
        self.assertIsNone(first_fault(self.logbook, self.inspection))
        with sqlite3.connect(Path(self.directory.name) / "hakutsu.sqlite") as database:
            database.execute("UPDATE entry SET draft = replace(draft, '112.0', '312.0') WHERE seq = 3")
        self.assertEqual(first_fault(self.logbook, self.inspection), 3)

    def test_the_tip_changes_with_every_entry_and_only_then(self):
        before = self.logbook.tip(self.inspection)
        self.assertEqual(self.logbook.tip(self.inspection), before)
        self.append(Draft.write("general.seen", Seen(text="rain"), NOON))
        self.assertNotEqual(self.logbook.tip(self.inspection), before)


class Durability(unittest.TestCase):
    def test_what_was_acknowledged_survives_kill_9(self):
        with tempfile.TemporaryDirectory() as directory:
            run = subprocess.run(
                [sys.executable, "-c", WRITER, directory],
                stdout=subprocess.PIPE, text=True, cwd=Path(__file__).parents[2], check=False,
            )  # fmt: skip
            self.assertEqual(run.returncode, -9)
            inspection, *acknowledged = run.stdout.split()
            self.assertEqual(len(acknowledged), 26)
            kept = {str(entry.id) for entry in logbook_in(directory).entries(inspection)}
            self.assertLessEqual(set(acknowledged), kept)


class Directory(unittest.TestCase):
    def test_a_second_server_is_refused_until_the_first_lets_go(self):
        with tempfile.TemporaryDirectory() as place:
            first, second = DataDirectory(Path(place)), DataDirectory(Path(place))
            first.hold()
            with self.assertRaises(DirectoryInUse) as caught:
                second.hold()
            self.assertIn("--data", str(caught.exception))
            first.release()
            second.hold()
            second.release()

    def test_a_file_is_no_data_directory(self):
        with tempfile.NamedTemporaryFile() as file, self.assertRaises(DirectoryInUse):
            DataDirectory(Path(file.name))

    def test_the_store_is_durable_by_its_settings(self):
        with tempfile.TemporaryDirectory() as place:
            engine = DataDirectory(Path(place)).engine()
            with engine.connect() as connection:
                settings = ("journal_mode", "synchronous")
                values = [connection.exec_driver_sql(f"PRAGMA {name}").scalar() for name in settings]
        self.assertEqual(values, ["wal", 2])

    def test_the_account_is_remembered(self):
        with tempfile.TemporaryDirectory() as place:
            logbook_in(place).account = "Isla"
            self.assertEqual(logbook_in(place).account, "Isla")
