"""Readings of the distance as CSV: what is read, and every fault named at its row."""

from __future__ import annotations

import io
import json
import tempfile
import unittest
from contextlib import redirect_stderr, redirect_stdout
from datetime import date, datetime
from pathlib import Path

import typer

from hakutsu.cli.papers import distance
from hakutsu.core.papers.distance import judge
from hakutsu.exchange.distance_csv import BadReadings, distance_json, read_histories

TODAY = date(2026, 11, 28)
HEAD = "case,date,value,unit,source,dial_digits,first_used\n"
GOOD = HEAD + "a,2020-05-01,20000,km,test,6,2019-05-01\na,2021-05-01,41000,km,dial_now,6,2019-05-01\n"


def faults(text):
    try:
        read_histories(text.encode(), TODAY)
    except BadReadings as error:
        return error.faults
    return []


class Reading(unittest.TestCase):
    def test_rows_of_a_case_are_one_history_in_the_order_of_the_file(self):
        read = read_histories((GOOD + "b,2021-01-01,5,mi,delivery,5,\n\n").encode(), TODAY)
        self.assertEqual(list(read), ["a", "b"])
        self.assertEqual([one.row for one in read["a"].records], [2, 3])
        self.assertIsNone(read["b"].first_used)
        told = distance_json("a", judge(read["a"]), read["a"])
        self.assertEqual({*told}, {"case", "probabilities", "true_km", "doubted", "words"})
        self.assertAlmostEqual(sum(told["probabilities"].values()), 1.0, places=4)

    def test_every_fault_is_named_at_its_row(self):
        for row, said in (
            ("a,2030-01-01,5,km,test,6,", "still to come"), ("a,31.1.2020,5,km,test,6,", "is no date"),
            ("a,2020-02-30,5,km,test,6,", "is no date"), ("a,2020-01-01,-5,km,test,6,", "is no distance"),
            ("a,2020-01-01,1e9,km,test,6,", "is no distance"),
            ("a,2020-01-01,1000000000,km,test,6,", "more than a dial"),
            ("a,2020-01-01,5,furlong,test,6,", "neither km nor mi"), ("a,2020-01-01,5,km,rumour,6,", "is none of"),
            ("a,2020-01-01,5,km,test,60,", "number of digits"), (",2020-01-01,5,km,test,6,", "case: empty"),
            ("a,2018-01-01,5,km,test,6,2019-01-01", "before first_used"), ("a,2020-01-01", "value: “” is no distance"),
        ):  # fmt: skip
            with self.subTest(row):
                found = faults(HEAD + row + "\n")
                self.assertTrue(found and found[0].startswith("row 2, ") and said in found[0], found)

    def test_all_faults_of_a_file_are_named_at_once(self):
        found = faults(GOOD + "c,x,y,z,w,v,u\na,2022-05-01,5,km,test,5,2019-05-01\n")
        self.assertEqual(len([one for one in found if one.startswith("row 4, ")]), 6)
        self.assertTrue(any("not as in row 2" in one for one in found))

    def test_columns_missing_or_twice_are_named(self):
        self.assertIn("row 1: no column unit", faults("case,date\n"))
        for odd in (b"\r\x00\r\n\r", bytes(range(256)) * 20, b'"' * 200_000):
            with self.assertRaises(BadReadings):
                read_histories(odd, TODAY)
        self.assertTrue(faults(""))
        self.assertIn("row 1: column date twice", faults(HEAD.replace("unit", "unit,date") + ""))


class Command(unittest.TestCase):
    def test_good_rows_are_answered_and_bad_ones_end_it(self):
        code, out, _ = self.run_on(GOOD)
        self.assertEqual((code, [one["case"] for one in json.loads(out)]), (0, ["a"]))
        code, out, err = self.run_on(GOOD.replace("41000", "x"))
        self.assertEqual((code, out), (2, ""))
        self.assertIn("row 3, value", err)

    def test_the_day_may_be_told(self):
        self.assertEqual(self.run_on(GOOD, datetime(2021, 6, 1))[0], 0)
        self.assertIn("still to come", self.run_on(GOOD, datetime(2020, 6, 1))[2])

    def run_on(self, text, now=None):
        with tempfile.TemporaryDirectory() as folder, redirect_stdout(io.StringIO()) as out:
            file = Path(folder) / "r.csv"
            file.write_text(text)
            with redirect_stderr(io.StringIO()) as err:
                try:
                    distance(str(file), as_json=True, now=now)
                except typer.Exit as ended:
                    return ended.exit_code, out.getvalue(), err.getvalue()
        return 0, out.getvalue(), ""
