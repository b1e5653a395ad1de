"""A damaged, read-only, full or foreign database: one sentence each, and what can be read is read."""

import os
import sqlite3
import subprocess
import sys
import tempfile
import unittest
from contextlib import suppress
from pathlib import Path

from sqlalchemy.exc import DBAPIError

from hakutsu.entries import Draft
from hakutsu.entries.general import Seen
from hakutsu.logbook import DataDirectory, DataTrouble, Logbook
from hakutsu.logbook.trouble import words
from tests.builders import NOON, logbook_in, opened, reading

ROOT = Path(__file__).parents[2]
AS_NOBODY = """
import os, sys
from hakutsu.cli import main
from hakutsu.core.keys import _TABLES
from hakutsu.exchange import bundle, bundle_file, bundle_import
from hakutsu.entries.registry import anywhere
from hakutsu.logbook import backup
import encodings.utf_8_sig, sqlalchemy.dialects.sqlite, zoneinfo, rich.traceback, filelock
anywhere(), [table() for table in _TABLES.values()]
os.setgid(65534); os.setuid(65534)
sys.argv = ["hakutsu", *sys.argv[1:]]
main()
"""


class Trouble(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.root = Path(directory.name)
        self.database = self.root / "hakutsu.sqlite"

    def filled(self):
        logbook = logbook_in(str(self.root))
        inspections = [opened(logbook) for _ in range(3)]
        for one in inspections:
            logbook.append(one, [Draft.write("general.seen", Seen(text="salt " * 300), NOON) for _ in range(40)], "Ada")
        logbook.engine.dispose()
        with sqlite3.connect(self.database) as database:
            database.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        database.close()
        return inspections

    def sentence(self):
        with self.assertRaises(DataTrouble) as caught:
            DataDirectory(self.root).engine()
        said = str(caught.exception)
        self.assertNotIn("\n", said)
        return said

    def test_what_is_no_database_any_more(self):
        for content in (b"hello, this is a text" * 400, b"\x00" * 9000):
            self.database.write_bytes(content)
            self.assertIn("no database any more", self.sentence())

    def test_a_header_that_is_overwritten(self):
        self.filled()
        data = bytearray(self.database.read_bytes())
        data[0:16] = b"x" * 16
        self.database.write_bytes(data)
        self.assertIn("hakutsu restore", self.sentence())

    def test_one_of_a_newer_version(self):
        self.filled()
        with sqlite3.connect(self.database) as database:
            database.execute("UPDATE alembic_version SET version_num = '9999'")
        database.close()
        self.assertIn("newer version; update Hakutsu", self.sentence())

    def test_the_inspections_that_can_be_read_are(self):
        inspections = self.filled()
        data = bytearray(self.database.read_bytes())
        page = int.from_bytes(data[16:18], "big")
        at = data.rindex(b"salt salt") // page * page  # a page of the last inspection's entries
        data[at : at + 100] = b"\xff" * 100
        self.database.write_bytes(data)
        logbook = Logbook(DataDirectory(self.root).engine())
        self.assertEqual(set(logbook.inspections()), set(inspections))
        lost = []
        for one in inspections:
            try:
                self.assertEqual(len(logbook.entries(one)), 42)
            except DBAPIError as error:
                self.assertIn("damaged", words(error))
                lost.append(one)
        self.assertEqual(len(lost), 1)

    def test_one_cut_off_is_read_as_far_as_it_goes_and_nothing_new_is_stored(self):
        inspections = self.filled()
        data = self.database.read_bytes()
        self.database.write_bytes(data[: len(data) * 9 // 10])
        logbook = Logbook(DataDirectory(self.root).engine())
        self.assertTrue(logbook.read_only)
        whole = 0
        for one in inspections:
            with suppress(DBAPIError):
                whole += len(logbook.entries(one)) == 42
        self.assertGreaterEqual(whole, 1)
        with self.assertRaises(DBAPIError) as caught:
            logbook.append(inspections[0], [reading("roof", 118)], "Ada")
        self.assertIn("read-only", words(caught.exception))

    def test_an_empty_one_beside_pictures_is_no_new_one(self):
        (self.root / "pictures" / "originals" / "ab").mkdir(parents=True)
        (self.root / "pictures" / "originals" / "ab" / ("ab" * 32)).write_bytes(b"x")
        self.assertIn("is gone or empty", self.sentence())
        self.database.write_bytes(b"")
        self.assertIn("is gone or empty", self.sentence())

    def test_a_full_disk_refuses_and_keeps_what_was(self):
        (inspection, *_) = self.filled()
        logbook = logbook_in(str(self.root))
        with logbook.engine.connect() as connection:
            pages = connection.exec_driver_sql("PRAGMA page_count").scalar()
        from sqlalchemy import event

        @event.listens_for(logbook.engine, "checkout")
        def _limit(connection, *_):
            connection.execute(f"PRAGMA max_page_count={pages}")

        with self.assertRaises(DBAPIError) as caught:
            for _ in range(50):
                logbook.append(inspection, [Draft.write("general.seen", Seen(text="x" * 2000), NOON)], "Ada")
        self.assertIn("the disk is full", words(caught.exception))
        self.assertGreaterEqual(len(logbook.entries(inspection)), 42)

    def test_every_sentence_ends_somewhere_useful(self):
        for said in ("database is locked", "disk I/O error", "unable to open database file", "no such table: entry"):
            self.assertRegex(words(sqlite3.OperationalError(said)), "again|fault|see that|restore")
        self.assertEqual(words(sqlite3.OperationalError("odd\nlines")), "cannot be used: odd")


@unittest.skipUnless(os.geteuid() == 0, "only root can become somebody who may not write")
class ReadOnly(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.root = Path(directory.name) / "data"
        self.root.mkdir()
        logbook = logbook_in(str(self.root))
        self.inspection = opened(logbook)
        logbook.append(self.inspection, [reading("roof", 118)], "Ada")
        logbook.engine.dispose()
        Path(directory.name).chmod(0o755)
        self.root.chmod(0o555)
        for file in self.root.iterdir():
            file.chmod(0o444)

    def as_nobody(self, *arguments):
        run = subprocess.run(
            [sys.executable, "-c", AS_NOBODY, *arguments, "--data", str(self.root)],
            capture_output=True, text=True, cwd=ROOT, check=False,
        )  # fmt: skip
        self.assertNotIn("Traceback", run.stderr)
        return run

    def test_it_is_read_and_checked(self):
        run = self.as_nobody("check")
        self.assertEqual((run.returncode, run.stderr), (0, ""))
        self.assertIn("1 inspections, 3 entries", run.stdout)

    def test_storing_says_why_not(self):
        csv = self.root.parent / "film.csv"
        csv.write_text("panel,reading,unit,status,substrate,finish\nroof,118,um,ok,steel,factory\n")
        csv.chmod(0o644)
        run = self.as_nobody("import", "film", str(csv), "--inspection", str(self.inspection))
        self.assertEqual(run.returncode, 2)
        self.assertRegex(run.stderr, "read-only|cannot be written")
