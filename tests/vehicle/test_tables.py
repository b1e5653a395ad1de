import re
import tomllib
import unittest
from pathlib import Path

import hakutsu
from hakutsu.core.corners.tables import CornersTable
from hakutsu.vehicle.tables import About, Row, Table, TableError, read_table

ROOT = Path(hakutsu.__file__).parent
FILES = [one for one in ROOT.rglob("data/*.toml") if one.parts[-3] != "demo"]


class DataFiles(unittest.TestCase):
    def test_every_file_says_its_units_and_what_it_rests_on(self):
        self.assertGreater(len(FILES), 40)
        for one in FILES:
            with self.subTest(one.relative_to(ROOT)):
                About.model_validate(tomllib.loads(one.read_text(encoding="utf-8"))["about"])

    def test_every_file_is_read_by_the_one_loader_and_nothing_else_reads_one(self):
        code = {one: one.read_text(encoding="utf-8") for one in ROOT.rglob("*.py")}
        loading = [one.relative_to(ROOT).as_posix() for one, text in code.items() if "tomllib.load" in text]
        self.assertEqual(sorted(loading), ["demo/building.py", "vehicle/tables.py"])
        read = set(re.findall(r'read_table\(\s*"([\w.]+)", "(\w+)"', "\n".join(code.values())))
        there = {(".".join(one.relative_to(ROOT).parts[:-2]), one.stem) for one in FILES}
        self.assertEqual(there, read)

    def test_it_is_read_once(self):
        one, other = (read_table("core.corners", "corners", CornersTable) for _ in range(2))
        self.assertIs(one, other)


class Rows(unittest.TestCase):
    def test_a_row_is_read_by_name_and_says_what_it_leaves_out(self):
        class Wheel(Row):
            size_mm: float
            spare: bool | None = None

        row = Wheel(size_mm=3.0)
        self.assertEqual((row["size_mm"], row.get("spare", True), "spare" in row), (3.0, True, False))
        self.assertEqual(row.items(), [("size_mm", 3.0)])
        with self.assertRaises(KeyError):
            row["colour"]

    def test_what_a_file_lacks_or_has_too_much_is_named(self):
        class Other(Table):
            tyre: dict[str, float]

        with self.assertRaisesRegex(TableError, r"core.corners/data/corners.toml"):
            read_table("core.corners", "corners", Other)

    def test_a_row_has_the_basis_of_its_table_unless_it_has_its_own(self):
        made = Table(about=About(unit="mm", basis="the trade"))
        self.assertEqual([made.basis_of(Row()), made.basis_of(Row(basis="ours"))], ["the trade", "ours"])


if __name__ == "__main__":
    unittest.main()
