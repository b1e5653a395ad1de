import csv
import io
import json
import zipfile

from hakutsu.entries import kinds, parse_body
from hakutsu.entries.envelope import FIRST_HASH, chained
from hakutsu.exchange.bundle import export_bundle
from hakutsu.exchange.film_csv import read_film_csv
from hakutsu.exchange.measurements_csv import unit_of
from tests.exchange.bundles import DATA, BundleCase


class Exported(BundleCase):
    def setUp(self):
        super().setUp()
        with zipfile.ZipFile(self.exported()) as archive:
            self.members = {name: archive.read(name) for name in archive.namelist()}

    def lines(self):
        return [json.loads(line) for line in self.members["logbook.jsonl"].decode().splitlines()]

    def test_every_entry_is_a_line_in_its_order_struck_ones_too(self):
        entries = self.logbook.entries(self.inspection)
        lines = self.lines()
        self.assertEqual([line["id"] for line in lines], [str(entry.id) for entry in entries])
        self.assertEqual([line["by"] for line in lines], [entry.by for entry in entries])
        self.assertEqual(sum(line["strikes"] is not None for line in lines), 1)

    def test_the_hashes_can_be_followed_by_the_recipe_in_the_readme(self):
        previous = FIRST_HASH
        for line in self.lines():
            about = {key: line.pop(key) for key in ("inspection", "by", "seq", "hash", "hash_version")}
            stored = json.dumps(line, sort_keys=True, ensure_ascii=False, separators=(",", ":"))
            made = chained(about["hash_version"], previous, about["inspection"], about["seq"], about["by"], stored)
            self.assertEqual(made, about["hash"])
            previous = made
        said = json.loads(self.members["manifest.json"])
        self.assertEqual((said["last_hash"], said["entries"]), (previous, len(self.lines())))
        self.assertIn("line feed", self.members["README.txt"].decode())

    def test_pictures_are_there_byte_for_byte(self):
        self.assertEqual(self.members[f"pictures/{self.sha256}.jpg"], DATA)

    def test_readings_and_measurements_are_tables(self):
        survey = read_film_csv(self.members["film.csv"])
        self.assertEqual(survey.bad, [])
        self.assertIn(121.0, [round(row.observation.value_um, 3) for row in survey.rows])  # the gauge showed mil
        rows = list(csv.DictReader(io.StringIO(self.members["measurements.csv"].decode())))
        taken_back = [row for row in rows if row["struck"]]
        self.assertEqual([row["value"] for row in taken_back if row["field"] == "value_um"], ["118.0"])
        tyre = [row for row in rows if row["kind"] == "corner.tyre" and row["field"] == "depth_mm"]
        self.assertEqual([row["number"] for row in tyre], ["1", "2", "3"])
        self.assertEqual({row["unit"] for row in tyre}, {"mm"})

    def test_units_come_from_the_ending_of_a_name(self):
        known = {
            "value_um": "µm",
            "coolant_c": "°C",
            "rest_v": "V",
            "rpm": "1/min",
            "v": "",
            "count": "",
            "a.at_km": "km",
        }
        self.assertEqual({field: unit_of(field) for field in known}, known)

    def test_every_kind_has_its_schema(self):
        for kind in kinds():
            if not kind.startswith("test."):
                self.assertIn("properties", json.loads(self.members[f"schema/{kind}.json"]))
        self.assertIn("strikes", json.loads(self.members["schema/envelope.json"])["properties"])

    def test_the_lines_are_what_the_models_read(self):
        for line in self.lines():
            parse_body(line["kind"], line["version"], line["body"])


class Missing(BundleCase):
    def test_a_picture_that_is_gone_is_named(self):
        self.pictures.original(self.sha256).unlink()
        said = export_bundle(self.logbook, self.pictures, self.inspection, self.root / "out.zip")
        self.assertEqual(said, [f"picture {self.sha256} is gone from the data directory"])
