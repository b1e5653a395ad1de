import re
import unittest
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
COPYLEFT = re.compile(r"^A?GPL")


class Licences(unittest.TestCase):
    def setUp(self):
        text = (ROOT / "docs" / "licences.md").read_text(encoding="utf-8")
        rows = [line.split(" | ") for line in text.splitlines() if line.startswith("| ")]
        self.listed = {row[0].removeprefix("| "): row[1:3] for row in rows if len(row) >= 3}

    def locked(self, name):
        lines = (ROOT / "locks" / f"{name}.txt").read_text(encoding="utf-8").split()
        return dict(line.split("==") for line in lines if "==" in line)

    def test_every_locked_package_is_listed_in_its_version(self):
        for lock in ("runtime", "dev"):
            for package, version in self.locked(lock).items():
                with self.subTest(package):
                    self.assertEqual(self.listed[package][0], version)
                    self.assertTrue(self.listed[package][1])

    def test_nothing_under_the_gpl_is_shipped(self):
        for package in self.locked("runtime"):
            self.assertNotRegex(self.listed[package][1], COPYLEFT)
        self.assertNotIn("pillow_heif", self.locked("dev"))
