"""Adding a station, followed once: its own modules, and the shared lines it takes."""

import json
import os
import shutil
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

import hakutsu

PRODUCT = Path(hakutsu.__file__).parent
TESTS = Path(__file__).parent
STATION = TESTS / "example_station"
SHARED = {"core/data/consequences.toml": STATION / "consequences.toml"}
MOST_SHARED_LINES = 3


class NewStation(unittest.TestCase):
    def test_it_is_modules_of_its_own_and_three_shared_lines(self):
        own = [one.relative_to(STATION / "hakutsu") for one in (STATION / "hakutsu").rglob("*") if one.is_file()]
        self.assertEqual([one for one in own if (PRODUCT / one).exists()], [])
        lines = [line for path in SHARED.values() for line in path.read_text().splitlines() if line.strip()]
        self.assertLessEqual(len(lines), MOST_SHARED_LINES)

    def test_its_finding_reaches_every_page_report_search_and_command_line(self):
        with tempfile.TemporaryDirectory() as made:
            product = Path(made) / "hakutsu"
            shutil.copytree(PRODUCT, product, ignore=shutil.ignore_patterns("__pycache__"))
            shutil.copytree(STATION / "hakutsu", product, dirs_exist_ok=True)
            for table, rows in SHARED.items():
                (product / table).write_text((product / table).read_text() + rows.read_text())
            path = os.pathsep.join((made, str(TESTS.parent)))
            command = [sys.executable, "-m", "tests.example_station.work"]
            done = subprocess.run(command, capture_output=True, text=True, env=os.environ | {"PYTHONPATH": path})
        self.assertEqual(done.returncode, 0, done.stderr[-3000:])
        reached = json.loads(done.stdout)
        self.assertGreater(len(reached), 8)
        self.assertEqual([where for where, there in reached.items() if not there], [])
