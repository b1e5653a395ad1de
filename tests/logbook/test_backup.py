import json
import signal
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
import unittest
import zipfile
from pathlib import Path

from hakutsu.demo.pictures import sample_picture
from hakutsu.logbook import DataTrouble
from hakutsu.logbook.backup import backup, restore
from hakutsu.logbook.files import arriving_under
from hakutsu.logbook.pictures import PictureFiles
from tests.builders import first_fault, logbook_in, opened, reading

KILLED = """
import os, signal, sys
from pathlib import Path
from hakutsu.logbook import backup
backup.sha256_of = lambda _: os.kill(os.getpid(), signal.SIGKILL)
backup.backup(Path(sys.argv[1]), Path(sys.argv[2]))
"""


class BackupCase(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.root = Path(directory.name)
        self.data, self.file = self.root / "data", self.root / "all.zip"
        self.data.mkdir()
        self.logbook = logbook_in(str(self.data))
        self.inspection = opened(self.logbook)
        self.logbook.append(self.inspection, [reading("roof", 100 + i) for i in range(20)], "Ada")
        files = PictureFiles(self.data / "pictures")
        self.addCleanup(files.close)
        with files.receive() as incoming:
            incoming.write(sample_picture(size=(320, 240)))
            self.picture = incoming.keep("a.jpg").sha256

    def lying_about(self):
        return sorted(one.name for one in self.root.iterdir())


class Backup(BackupCase):
    def test_everything_comes_back(self):
        pictures, size = backup(self.data, self.file)
        self.assertEqual((pictures, size), (1, self.file.stat().st_size))
        self.assertEqual(restore(self.file, self.root / "back"), 1)
        back = logbook_in(str(self.root / "back"))
        self.assertEqual(back.entries(self.inspection), self.logbook.entries(self.inspection))
        self.assertIsNone(first_fault(back, self.inspection))
        there = self.root / "back" / "pictures" / "originals" / self.picture[:2] / self.picture
        self.assertEqual(there.read_bytes(), sample_picture(size=(320, 240)))
        self.assertEqual(self.lying_about(), ["all.zip", "back", "data"])

    def test_while_somebody_writes(self):
        stop = threading.Event()

        def write():
            while not stop.is_set():
                self.logbook.append(self.inspection, [reading("roof", 118)], "Ina")
                time.sleep(0.002)

        thread = threading.Thread(target=write)
        thread.start()
        try:
            backup(self.data, self.file)
        finally:
            stop.set()
            thread.join()
        restore(self.file, self.root / "back")
        back = logbook_in(str(self.root / "back"))
        self.assertIsNone(first_fault(back, self.inspection))
        kept = len(back.entries(self.inspection))
        self.assertEqual(back.entries(self.inspection), self.logbook.entries(self.inspection)[:kept])
        self.assertGreaterEqual(kept, 22)

    def test_one_killed_in_the_middle_leaves_none_under_its_name(self):
        run = subprocess.run(
            [sys.executable, "-c", KILLED, str(self.data), str(self.file)], cwd=Path(__file__).parents[2], check=False
        )
        self.assertEqual(run.returncode, -signal.SIGKILL)
        self.assertFalse(self.file.exists())
        backup(self.data, self.file)
        self.assertFalse([name for name in self.lying_about() if name.startswith(".all.zip")])

    def test_an_older_backup_stays_until_the_new_one_is_whole(self):
        self.file.write_bytes(b"the one before")
        with self.assertRaises(RuntimeError), arriving_under(self.file) as out:
            out.write(b"half")
            raise RuntimeError("power cut")
        self.assertEqual(self.file.read_bytes(), b"the one before")
        self.assertEqual(self.lying_about(), ["all.zip", "data"])

    def test_what_cannot_be_backed_up_is_said(self):
        with self.assertRaisesRegex(DataTrouble, "holds no database"):
            backup(self.root, self.file)
        with self.assertRaisesRegex(DataTrouble, "cannot be written"):
            backup(self.data, self.root / "nowhere" / "all.zip")
        (self.data / "hakutsu.sqlite").write_bytes(b"rubbish" * 1000)
        for beside in ("-wal", "-shm"):
            (self.data / f"hakutsu.sqlite{beside}").unlink(missing_ok=True)
        with self.assertRaisesRegex(DataTrouble, "no database any more"):
            backup(self.data, self.file)
        self.assertFalse(self.file.exists())


class Restore(BackupCase):
    def setUp(self):
        super().setUp()
        backup(self.data, self.file)

    def refused(self, why, target="back"):
        with self.assertRaisesRegex(DataTrouble, why):
            restore(self.file, self.root / target)
        self.assertFalse((self.root / "back").exists())

    def again(self, **changed):
        """The backup with members changed, left out (None) or put in."""
        with zipfile.ZipFile(self.file) as old:
            members = {name: old.read(name) for name in old.namelist()} | changed
        with zipfile.ZipFile(self.file, "w") as new:
            for name, content in members.items():
                if content is not None:
                    new.writestr(name, content)

    def test_into_an_empty_directory_only(self):
        self.refused("is not empty", "data")
        (self.root / "empty").mkdir()
        restore(self.file, self.root / "empty")
        self.assertEqual(len(logbook_in(str(self.root / "empty")).inspections()), 1)

    def test_what_is_no_backup_or_not_whole_is_refused_and_nothing_is_left(self):
        picture = f"pictures/{self.picture}"
        for changed, why in (
            ({"hakutsu.sqlite": b"another"}, "not the one that was put in"),
            ({picture: b"another"}, "not the one that was put in"),
            ({picture: None}, "1 pictures were put in, 0 are there"),
            ({"backup.json": json.dumps({"format": "x"})}, "another format"),
            ({"backup.json": None}, "no backup"),
            ({"../../evil": b"x"}, "does not belong"),
            ({"pictures/../../../../evil": b"x"}, "does not belong"),
        ):
            with self.subTest(list(changed)):
                backup(self.data, self.file)
                self.again(**changed)
                self.refused(why)
        self.file.write_bytes(b"hello")
        self.refused("no backup")
        self.assertEqual(self.lying_about(), ["all.zip", "data"])

    def test_it_can_be_read_without_this_program(self):
        with zipfile.ZipFile(self.file) as archive:
            archive.extract("hakutsu.sqlite", self.root)
        with sqlite3.connect(self.root / "hakutsu.sqlite") as database:
            self.assertEqual(database.execute("SELECT count(*) FROM entry").fetchone(), (22,))
        database.close()
