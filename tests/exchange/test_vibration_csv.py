"""Records of acceleration as files: what is wrong is named by its row; what the command says."""

import io
import json
import tempfile
import unittest
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path
from unittest import mock

import numpy as np
import typer

from hakutsu.cli.road import vibration
from hakutsu.exchange import vibration_csv
from hakutsu.exchange.vibration_csv import BadRecord, read_record


class Files(unittest.TestCase):
    def faults(self, text):
        with self.assertRaises(BadRecord) as caught:
            read_record(text.encode())
        return caught.exception.faults

    def test_columns_in_any_order_with_others_between_and_a_mark_before(self):
        record = read_record("\ufeffax, note,t,az,ay\r\n1,9,0.0,3,2\r\n4,9,0.5,6,5\r\n".encode())
        np.testing.assert_array_equal(record.t, [0, 0.5])
        np.testing.assert_array_equal(record.a, [[1, 2, 3], [4, 5, 6]])

    def test_every_fault_by_row_and_column(self):
        faults = self.faults("t,ax,ay,az\n0,1,2,3\n1,x,2,inf\n\n2,1,2\n3,99999,0,0\n")
        self.assertEqual(
            faults,
            ["row 3, ax “x”: no number", "row 3, az “inf”: no finite number", "row 5, az: nothing there",
             "row 6, ax “99999”: over 10000"],
        )  # fmt: skip

    def test_one_axis_only_or_nothing_at_all(self):
        self.assertEqual(self.faults("t,ax\n0,1\n"), ["row 1: no column ay", "row 1: no column az"])
        self.assertEqual(self.faults("t,ax,ay,az,ax\n0,1,1,1,1\n"), ["row 1: column ax twice"])
        self.assertEqual(self.faults("t,ax,ay,az\n"), ["no rows"])
        self.assertEqual(len(self.faults("")), 4)

    def test_too_many_rows_are_refused_with_the_limit(self):
        with mock.patch.object(vibration_csv, "MOST_ROWS", 3):
            self.assertEqual(self.faults("t,ax,ay,az\n" + "0,1,1,1\n" * 4), ["more than 3 rows"])
            self.assertEqual(read_record(("t,ax,ay,az\n" + "0,1,1,1\n" * 3).encode()).t.size, 3)

    def test_a_file_full_of_faults_names_the_first_of_them(self):
        self.assertEqual(len(self.faults("t,ax,ay,az\n" + "a,b,c,d\n" * 500)), 201)


class Command(unittest.TestCase):
    def said(self, text, speed=90.0, rolling=2.0, **more):
        out, err = io.StringIO(), io.StringIO()
        with tempfile.TemporaryDirectory() as directory:
            file = Path(directory) / "record.csv"
            file.write_text(text)
            with redirect_stdout(out), redirect_stderr(err):
                try:
                    vibration(str(file), speed, rolling, **more)
                    code = 0
                except typer.Exit as ended:
                    code = ended.exit_code
        return code, out.getvalue(), err.getvalue()

    def test_what_it_says(self):
        t = np.arange(0, 12, 0.01)
        rows = "\n".join(f"{at:.2f},{np.sin(2 * np.pi * 12.5 * at):.5f},0,9.81" for at in t)
        code, out, _ = self.said("t,ax,ay,az\n" + rows, final_drive=3.6)
        told = json.loads(out)
        self.assertEqual(code, 0)
        self.assertEqual(told["candidates"][0]["source"], "tyre_1")
        self.assertAlmostEqual(sum(one["probability"] for one in told["candidates"]) + told["none"], 1, delta=1e-3)
        self.assertAlmostEqual(told["sample_rate_hz"], 100, delta=0.5)
        self.assertLessEqual(told["highest_usable_hz"], 50)
        self.assertAlmostEqual(told["peaks"][0]["amplitude"], 1, delta=0.05)

    def test_bad_input_ends_with_every_fault_and_nothing_said(self):
        code, out, err = self.said("t,ax,ay,az\n0,x,0,0\n", speed=400)
        self.assertEqual((code, out), (2, ""))
        self.assertIn("speed", err)
        self.assertIn("row 2, ax", err)
        self.assertNotIn("Traceback", err)
