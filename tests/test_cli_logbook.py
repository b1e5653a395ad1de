"""Logbooks on the command line: every fault is a sentence and a status, never a traceback."""

import json
import sqlite3
import zipfile

from typer.testing import CliRunner

from hakutsu.cli import app
from hakutsu.exchange.bundle import as_line
from tests.browser.driving import RunningServer
from tests.builders import first_fault, logbook_in
from tests.exchange.bundles import BundleCase


def run(*arguments):
    done = CliRunner().invoke(app, [str(one) for one in arguments])
    if done.exception is not None and not isinstance(done.exception, SystemExit):
        raise done.exception
    return done


class LogbookCommands(BundleCase):
    def setUp(self):
        super().setUp()
        self.data, self.there = self.root / "data", self.root / "elsewhere"

    def exported(self, name="out.zip"):
        done = run("export", self.inspection, self.root / name, "--data", self.data)
        self.assertEqual((done.exit_code, done.stderr), (0, ""))
        return self.root / name

    def take(self, file, *more):
        return run("import", "logbook", file, "--data", self.there, *more)


class OutAndIn(LogbookCommands):
    def test_exported_imported_twice_and_as_another(self):
        file = self.exported()
        first, second, third = self.take(file), self.take(file), self.take(file, "--new-id")
        self.assertEqual([one.exit_code for one in (first, second, third)], [0, 0, 0])
        self.assertIn(f"inspection {self.inspection}: ", first.stdout)
        self.assertIn("0 entries and 0 pictures imported", second.stdout)
        there = logbook_in(str(self.there))
        self.assertEqual(len(there.inspections()), 2)
        for inspection in there.inspections():
            self.assertIsNone(first_fault(there, inspection))
        self.assertEqual(run("check", "--data", self.there).exit_code, 0)

    def test_bad_lines_are_status_2_and_nothing_is_stored(self):
        lines = self.as_lines()
        lines[2]["place"] = "keel"
        lines[3]["body"] = {}
        file = self.root / "bad.jsonl"
        file.write_text("".join(map(as_line, lines)), "utf-8")
        done = self.take(file)
        self.assertEqual((done.exit_code, done.stdout), (2, ""))
        self.assertIn("line 3, place: “keel” is no place", done.stderr)
        self.assertIn("line 4, ", done.stderr)
        self.assertIn("nothing stored", done.stderr)
        self.assertEqual(logbook_in(str(self.there)).count(), 0)

    def test_a_hostile_file_is_status_2(self):
        evil = self.zipped([("logbook.jsonl", "{}"), ("../evil", "x")])
        done = self.take(evil)
        self.assertEqual((done.exit_code, done.stdout), (2, ""))
        self.assertIn("does not belong", done.stderr)
        self.assertFalse((self.root / "evil").exists())
        self.assertEqual(self.take(self.root / "nowhere.zip").exit_code, 2)

    def test_lines_alone_say_which_pictures_are_missing(self):
        done = self.take(self.written(self.as_lines()))
        self.assertEqual(done.exit_code, 0)
        self.assertIn("sill.jpg", done.stderr)

    def test_an_unknown_inspection_is_status_2(self):
        done = run("export", "00000000-0000-4000-8000-000000000000", self.root / "x.zip", "--data", self.data)
        self.assertEqual((done.exit_code, (self.root / "x.zip").exists()), (2, False))


class Check(LogbookCommands):
    def meddle(self, statement):
        with sqlite3.connect(self.data / "hakutsu.sqlite") as database:
            database.execute(statement)
        database.close()

    def check(self):
        done = run("check", "--data", self.data)
        self.assertNotIn("Traceback", done.output)
        return done

    def test_all_is_well(self):
        done = self.check()
        self.assertEqual((done.exit_code, done.stderr), (0, ""))
        self.assertIn("1 inspections, ", done.stdout)

    def test_a_changed_entry_is_status_1_and_named(self):
        self.meddle("UPDATE entry SET draft = replace(draft, '118.0', '218.0') WHERE seq = 3")
        done = self.check()
        self.assertEqual((done.exit_code, done.stdout), (1, ""))
        self.assertIn(f"inspection {self.inspection}, entry 3: it does not follow", done.stderr)

    def test_a_picture_gone_or_changed_is_named_by_its_entry(self):
        original = self.pictures.original(self.sha256)
        number = len(self.as_lines())
        for change, said in ((lambda: original.write_bytes(b"x"), "changed"), (original.unlink, "gone")):
            change()
            done = self.check()
            self.assertEqual(done.exit_code, 1)
            self.assertIn(f"entry {number}: the file of its picture", done.stderr)
            self.assertIn(said, done.stderr)

    def test_a_damaged_database_is_status_1_and_one_sentence(self):
        self.logbook.engine.dispose()
        for beside in ("-wal", "-shm"):
            (self.data / f"hakutsu.sqlite{beside}").unlink(missing_ok=True)
        (self.data / "hakutsu.sqlite").write_bytes(b"rubbish" * 2000)
        done = self.check()
        self.assertEqual(done.exit_code, 1)
        self.assertEqual(len(done.stderr.strip().splitlines()), 1)

    def test_where_there_is_nothing_it_makes_nothing(self):
        done = run("check", "--data", self.there)
        self.assertEqual((done.exit_code, self.there.exists()), (2, False))


class BackupAndRestore(LogbookCommands):
    def test_while_the_server_runs(self):
        with RunningServer(demo=True) as server:
            done = run("backup", self.root / "all.zip", "--data", server.data)
            self.assertEqual((done.exit_code, done.stderr), (0, ""))
            self.assertRegex(done.stdout, r"database and \d+ pictures")
        self.assertEqual(run("restore", self.root / "all.zip", "--data", self.there).exit_code, 0)
        checked = run("check", "--data", self.there)
        self.assertEqual((checked.exit_code, checked.stderr), (0, ""))
        self.assertEqual(len(logbook_in(str(self.there)).inspections()), 5)

    def test_what_does_not_do_is_status_2(self):
        self.assertEqual(run("backup", self.root / "all.zip", "--data", self.there).exit_code, 2)
        self.assertEqual(run("restore", self.exported(), "--data", self.there).exit_code, 2)
        self.assertEqual(run("restore", self.root / "nowhere.zip", "--data", self.there).exit_code, 2)
        self.assertIn("not empty", run("restore", self.root / "out.zip", "--data", self.data).stderr)
        self.assertFalse(self.there.exists())

    def test_the_export_is_a_plain_zip_of_open_formats(self):
        with zipfile.ZipFile(self.exported()) as archive:
            self.assertIsNone(archive.testzip())
            names = {name.rpartition(".")[2] for name in archive.namelist()}
            self.assertEqual(names, {"jsonl", "json", "txt", "csv", "jpg"})
            self.assertEqual(json.loads(archive.read("manifest.json"))["format"], "hakutsu logbook")
