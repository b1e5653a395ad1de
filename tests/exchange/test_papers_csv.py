"""Dated marks as a file, and what the commands say of numbers and dates."""

import io
import json
import tempfile
import unittest
from contextlib import redirect_stderr, redirect_stdout
from datetime import date, datetime
from pathlib import Path

import typer

from hakutsu.cli.papers import dates, identity
from hakutsu.exchange.papers_csv import BadMarks, read_dates

TODAY = date(2026, 11, 28)
HEAD = "mark,place,kind,text,table\n"


class Files(unittest.TestCase):
    def faults(self, text):
        with self.assertRaises(BadMarks) as caught:
            read_dates(text.encode(), TODAY)
        return caught.exception.faults

    def test_every_fault_by_its_row(self):
        faults = self.faults(
            HEAD
            + ",front,plain,2019,\nbuild,,tyre_week,3219,\nbuild,,plain,2019,\nx,,guess,1,\ny,,letter_table,A,AB:1-3\n"
        )
        self.assertEqual(len(faults), 5)
        self.assertIn("row 2, mark: nothing there", faults)
        self.assertTrue(faults[-1].startswith("row 6, table"))

    def test_columns_that_are_missing(self):
        self.assertEqual(
            self.faults("mark,kind\nx,plain\n"), [f"row 1: no column {one}" for one in ("place", "text", "table")]
        )

    def test_a_build_date_that_cannot_be_read_is_none(self):
        read = read_dates((HEAD + "build,,plain,spring,\nx,front,plain,2019,\n").encode(), TODAY)
        self.assertEqual((read.build, read.marks[0].verdict), (None, None))


class Commands(unittest.TestCase):
    def said(self, command, *args, **more):
        out, err = io.StringIO(), io.StringIO()
        with redirect_stdout(out), redirect_stderr(err):
            try:
                command(*args, **more)
                code = 0
            except typer.Exit as ended:
                code = ended.exit_code
        return code, out.getvalue(), err.getvalue()

    def test_dates_in_file_order_without_the_build(self):
        with tempfile.TemporaryDirectory() as directory:
            file = Path(directory) / "marks.csv"
            file.write_text(HEAD + "pane,front,plain,2021-05,\nbuild,,plain,2019-03-04,\nlamp,front,plain,2021-06,\n")
            code, out, _ = self.said(dates, str(file), today=datetime(2026, 11, 28))
            told = json.loads(out)
            file.write_text(HEAD + "x,,guess,1,\n")
            bad = self.said(dates, str(file))
        self.assertEqual(code, 0)
        self.assertEqual(told["build"], ["2019-03-04", "2019-03-04"])
        self.assertEqual([one["verdict"] for one in told["marks"]], ["later", "later"])
        self.assertEqual(told["clusters"], [{"place": "front", "marks": ["pane", "lamp"]}])
        self.assertEqual(bad[:2], (2, ""))
        self.assertIn("row 2, kind", bad[2])

    def test_an_identity_always_answers(self):
        for text in ("", "1M8GDM9AXKP042788", "ОR 58"):
            code, out, _ = self.said(identity, text)
            told = json.loads(out)
            self.assertEqual((code, told["text"]), (0, text))
            self.assertIn(told["valid_characters"], (True, False))
            self.assertIsNone(told["check_digit"]["enforced"])
