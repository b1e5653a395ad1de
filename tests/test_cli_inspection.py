"""Findings and report of one inspection on the command line."""

import json
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from uuid import UUID, uuid4

from hakutsu.core.consequence import base
from hakutsu.demo.building import demo_drafts, demo_id
from tests.builders import logbook_in, opened
from tests.test_cli_logbook import run

CONSEQUENCES = {"walk_away", "settle", "budget", "live_with", "fine"}
KEYS = {
    "code", "subject", "consequence", "sureness", "reasons", "evidence", "open", "job", "priced", "on_sheet", "words",
}  # fmt: skip


class InspectionCommands(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        directory = tempfile.TemporaryDirectory()
        cls.addClassCleanup(directory.cleanup)
        cls.data = Path(directory.name)
        logbook = logbook_in(directory.name)
        cls.estate, cls.empty = demo_id("estate"), opened(logbook)
        drafts = demo_drafts("estate")
        logbook.open_inspection(cls.estate, drafts[0].at)
        logbook.append(cls.estate, drafts, "inspector")
        cls.entries = {str(one.id) for one in drafts}
        cls.unnamed = uuid4()
        logbook.open_inspection(cls.unnamed, drafts[0].at)

    def run_on(self, command, *given):
        return run(command, *given, "--data", self.data)

    def test_every_finding_as_the_contract_says(self):
        done = self.run_on("findings", self.estate, "--json")
        self.assertEqual((done.exit_code, done.stderr), (0, ""))
        findings = json.loads(done.stdout)
        self.assertGreater(len(findings), 50)
        for one in findings:
            with self.subTest(one["code"]):
                self.assertEqual(set(one), KEYS)
                self.assertIn(one["consequence"], CONSEQUENCES)
                base(one["code"])
                self.assertTrue(0 < one["sureness"] <= 1)
                self.assertTrue(one["evidence"])
                self.assertEqual(set(one["evidence"]) - self.entries, set())
                self.assertEqual(one["priced"], isinstance(one["on_sheet"], dict) and "amount" in one["on_sheet"])
                self.assertNotRegex(one["words"], r"[{}]")
                if one["open"]:
                    self.assertTrue(one["open"]["why"] and one["open"]["check"])

    def test_lives_as_the_contract_says(self):
        done = self.run_on("lives", self.estate, "--json")
        self.assertEqual((done.exit_code, done.stderr), (0, ""))
        rows = json.loads(done.stdout)
        self.assertEqual({row["kind"] for row in rows}, {"measured", "survival", "scheduled", "graded"})
        for row in rows:
            with self.subTest(row["part"]):
                self.assertEqual(set(row), {"part", "kind", "pieces", "months", "expected", "basis", "limited_by",
                                            "cost", "currency"})  # fmt: skip
                months, expected = row["months"], row["expected"]
                self.assertTrue(0 <= months["p10"] <= months["p50"] <= months["p90"])
                self.assertTrue(0 <= expected["12"] <= expected["24"] <= expected["36"])
                self.assertTrue(row["basis"] and row["cost"] > 0 and row["pieces"] >= 1)
                self.assertNotRegex(row["basis"], r"[{}]")

    def test_more_distance_a_year_and_a_later_day_leave_less(self):
        def left(*given):
            return {row["part"]: row["months"]["p50"] for row in json.loads(
                self.run_on("lives", self.estate, "--json", *given).stdout)}  # fmt: skip

        usual, far = left("--km-per-year", "10000"), left("--km-per-year", "40000")
        self.assertTrue(all(far[part] <= usual[part] + 1e-6 for part in usual))
        self.assertLess(far["wheel_bearing:front_left"], usual["wheel_bearing:front_left"])
        later = left("--km-per-year", "10000", "--now", "2027-12-01")
        self.assertLess(later["brake_pipes"], usual["brake_pipes"])
        self.assertEqual(self.run_on("lives", self.estate, "--km-per-year", "-3").exit_code, 2)

    def test_money_as_the_contract_says(self):
        done = self.run_on("money", self.estate, "--json")
        self.assertEqual((done.exit_code, done.stderr), (0, ""))
        told = json.loads(done.stdout)
        self.assertEqual(set(told), {"currency", "months", "drivers"})
        self.assertEqual(list(told["months"]), ["12", "24", "36"])
        for one in told["months"].values():
            self.assertTrue(0 <= one["p10"] <= one["p50"] <= one["p90"])
        shares = sum(one["mean_share"] for one in told["drivers"])
        self.assertAlmostEqual(shares, told["months"]["36"]["mean"], delta=0.02 * len(told["drivers"]))
        self.assertTrue(all(0 < one["chance"] <= 1 for one in told["drivers"]))
        self.assertIn("To spend", self.run_on("money", self.estate).stdout)

    def test_each_stands_on_the_sheet_by_the_one_rule(self):
        findings = json.loads(self.run_on("findings", self.estate, "--json").stdout)
        for one in findings:
            sheet = one["on_sheet"]
            with self.subTest(one["code"], sheet=sheet):
                if one["consequence"] in ("live_with", "fine"):
                    self.assertTrue(sheet is None or "excused" in sheet)
                elif one["consequence"] in ("settle", "walk_away"):
                    self.assertTrue(sheet == "not priced" or set(sheet) in ({"amount", "currency"}, {"excused"}))
                else:
                    self.assertIsNotNone(sheet)

    def test_a_table_for_reading(self):
        done = self.run_on("findings", self.estate)
        self.assertEqual(done.exit_code, 0)
        self.assertIn("findings", done.stdout.splitlines()[0])

    def test_an_inspection_without_findings_is_an_empty_list(self):
        self.assertEqual(json.loads(self.run_on("findings", self.empty, "--json").stdout), [])

    def test_the_report_is_one_document(self):
        file = self.data / "report.html"
        done = self.run_on("report", self.estate, "--html", file, "--now", "2026-11-27T12:00:00")
        self.assertEqual((done.exit_code, done.stdout, done.stderr), (0, "", ""))
        text = file.read_text()
        self.assertTrue(text.startswith("<!doctype html>"))
        for needless in ("<script", '<link rel="stylesheet"', 'src="/', 'href="/'):
            self.assertNotIn(needless, text)
        again = self.data / "again.html"
        self.run_on("report", self.estate, "--html", again, "--now", "2026-11-27T12:00:00")
        self.assertEqual(again.read_text(), text)

    def test_faults_are_a_sentence_and_status_2(self):
        nowhere = self.data / "nowhere"
        faults = [
            (("findings", uuid4(), "--json", "--data", self.data), "holds no inspection"),
            (("findings", "gull", "--json", "--data", self.data), "Invalid value for 'inspection'"),
            (("findings", self.estate, "--json", "--data", nowhere), "holds no database"),
            (("findings", self.unnamed, "--json", "--data", self.data), "has no vehicle yet"),
            (("report", UUID(int=7), "--html", self.data / "x.html", "--data", self.data), "holds no inspection"),
            (("report", self.estate, "--html", nowhere / "x.html", "--data", self.data), "cannot be written"),
        ]
        for given, words in faults:
            with self.subTest(given):
                done = run(*given)
                self.assertEqual((done.exit_code, done.stdout), (2, ""))
                self.assertIn(words, " ".join(done.stderr.split()))
        self.assertFalse(nowhere.exists())


class WithoutPages(unittest.TestCase):
    def test_the_report_imports_no_page(self):
        said = "import sys, hakutsu.report.making; print([one for one in sys.modules if one.startswith('hakutsu.web')])"
        done = subprocess.run([sys.executable, "-c", said], capture_output=True, text=True)
        self.assertEqual((done.returncode, done.stdout.strip()), (0, "[]"))
