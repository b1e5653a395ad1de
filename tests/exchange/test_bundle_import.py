import json
import zipfile
from uuid import uuid4

from hakutsu.entries import Draft, Entry
from hakutsu.entries.general import Seen
from hakutsu.exchange.bundle_file import BundleFile, BundleRefused
from hakutsu.exchange.bundle_import import NotImported, import_bundle
from tests.builders import NOON, first_fault, reading
from tests.exchange.bundles import DATA, BundleCase

SAME = [name for name in Entry.model_fields if name not in ("hash", "seq", "inspection")]


class ImportCase(BundleCase):
    def setUp(self):
        super().setUp()
        self.there, self.their_pictures = self.directory("there")

    def take(self, file, **more):
        with BundleFile(file) as bundle:
            return import_bundle(bundle, self.there, self.their_pictures, **more)

    def content(self, logbook, inspection):
        return [[getattr(entry, name) for name in SAME] for entry in logbook.entries(inspection)]

    def nothing_stored(self):
        self.assertEqual((self.there.count(), self.there.inspections()), (0, []))
        self.assertEqual(list((self.root / "there" / "pictures" / "originals").glob("*/*")), [])

    def faults(self, file):
        with self.assertRaises(NotImported) as caught:
            self.take(file)
        self.nothing_stored()
        return caught.exception.faults

    def refused(self, file):
        with self.assertRaises(BundleRefused) as caught:
            self.take(file)
        self.nothing_stored()
        return str(caught.exception)


class Identical(ImportCase):
    def test_ids_times_authors_and_strikes_are_the_same_and_the_chain_is_new(self):
        done = self.take(self.exported())
        mine = self.logbook.entries(self.inspection)
        self.assertEqual((done.inspection, done.added, done.known, done.pictures), (self.inspection, len(mine), 0, 1))
        self.assertEqual(self.content(self.there, self.inspection), self.content(self.logbook, self.inspection))
        self.assertIsNone(first_fault(self.there, self.inspection))
        self.assertEqual(self.there.imported_tip(self.inspection), self.logbook.tip(self.inspection))
        self.assertEqual(self.there.opened_at(self.inspection), self.logbook.opened_at(self.inspection))
        self.assertEqual(self.their_pictures.original(self.sha256).read_bytes(), DATA)

    def test_twice_is_harmless(self):
        file = self.exported()
        self.take(file)
        before = self.there.tip(self.inspection)
        done = self.take(file)
        self.assertEqual((done.added, done.known, done.pictures), (0, len(self.as_lines()), 0))
        self.assertEqual(self.there.tip(self.inspection), before)

    def test_two_peoples_work_comes_together(self):
        file = self.exported()
        self.take(file)
        self.there.append(self.inspection, [reading("roof", 130)], "Ben")
        self.logbook.append(self.inspection, [Draft.write("general.seen", Seen(text="later"), NOON)], "Ada")
        done = self.take(self.exported("again.zip"))
        self.assertEqual(done.added, 1)
        self.assertEqual([entry.by for entry in self.there.entries(self.inspection)[-2:]], ["Ben", "Ada"])
        self.assertIsNone(first_fault(self.there, self.inspection))

    def test_with_a_new_id_only_that_differs(self):
        self.take(self.exported())
        done = self.take(self.exported(), new_id=True)
        self.assertNotEqual(done.inspection, self.inspection)
        self.assertEqual(self.content(self.there, done.inspection), self.content(self.logbook, self.inspection))
        self.assertEqual(len(self.there.inspections()), 2)

    def test_lines_alone_name_the_pictures_that_are_missing(self):
        done = self.take(self.written(self.as_lines()))
        self.assertEqual(done.added, len(self.as_lines()))
        self.assertEqual(len(done.remarks), 1)
        self.assertIn("picture sill.jpg", done.remarks[0])
        self.assertIn("missing", done.remarks[0])

    def test_out_and_in_and_out_again_says_the_same(self):
        self.take(self.exported())
        self.logbook, self.pictures = self.there, self.their_pictures
        with zipfile.ZipFile(self.exported("second.zip")) as second, zipfile.ZipFile(self.root / "out.zip") as first:
            for name in ("film.csv", "measurements.csv"):
                self.assertEqual(first.read(name), second.read(name))
            old, new = (
                [json.loads(line) for line in one.read("logbook.jsonl").splitlines()] for one in (first, second)
            )
        self.assertEqual(old, new)  # appended in the same order under the same id, even the hashes come out alike

    def test_a_line_changed_since_is_said(self):
        lines = self.as_lines()
        lines[3]["body"]["value_um"] = 122
        done = self.take(self.written(lines))
        self.assertIn("line 4: its hash does not follow", done.remarks[0])


class BadLines(ImportCase):
    def changed(self, number, fields):
        lines = self.as_lines()
        lines[number] |= fields
        return self.faults(self.written(lines))

    def test_each_is_named_with_number_and_field(self):
        film = next(i for i, line in enumerate(self.as_lines()) if line["kind"] == "film.reading")
        for fields, said in (
            ({"id": "no uuid"}, "id: "),
            ({"at": "yesterday"}, "at: "),
            ({"kind": "film.guess"}, "kind: “film.guess” is not a kind"),
            ({"version": 99}, "version: "),
            ({"place": "keel"}, "place: “keel” is no place"),
            ({"body": {"value_um": -5}}, "value_um: "),
            ({"body": {"value_um": 118, "colour": "red"}}, "colour: "),
            ({"by": ""}, "by: "),
            ({"by": "x" * 61}, "by: "),
            ({"seq": 1}, "seq: 1 does not follow"),
            ({"strikes": str(uuid4())}, "strikes: no entry before it"),
            ({"inspection": str(uuid4())}, "inspection: another inspection"),
            ({"mood": "calm"}, "mood: "),
        ):
            with self.subTest(fields):
                (first, *_) = self.changed(film, fields)
                self.assertTrue(first.startswith(f"line {film + 1}, {said}"), first)

    def test_what_is_no_line(self):
        lines = self.as_lines()
        for raw in ("{", "[1, 2]", "null", "\ud800x".encode("utf-8", "surrogatepass").decode("latin-1"), "[" * 5000):
            with self.subTest(raw[:8]):
                (first, *_) = self.faults(self.written([*lines[:2], f"{raw}\n", *lines[2:]]))
                self.assertTrue(first.startswith("line 3, line: no JSON"), first)

    def test_numbers_that_cannot_be_stored(self):
        text = self.written(self.as_lines()).read_text("utf-8").replace('"value_um":121.0', '"value_um":1e400', 1)
        (first,) = self.faults(self.written([text]))
        self.assertRegex(first, r"line \d+, value_um: ")

    def test_all_of_them_at_once_and_two_entries_with_one_id(self):
        lines = self.as_lines()
        lines[2]["place"] = "keel"
        lines[5]["version"] = 99
        lines[7]["id"] = lines[6]["id"]
        self.assertEqual(
            [one.split(",")[0] for one in self.faults(self.written(lines))], ["line 3", "line 6", "line 8"]
        )

    def test_an_inspection_without_its_vehicle(self):
        (first,) = self.faults(self.written([one for one in self.as_lines() if one["kind"] == "general.for_desk"]))
        self.assertIn("needs an inspection.vehicle", first)

    def test_an_entry_that_says_otherwise_here(self):
        self.take(self.exported())
        lines = self.as_lines()
        lines[3]["body"]["value_um"] = 130
        with self.assertRaises(NotImported) as caught:
            self.take(self.written(lines))
        self.assertIn("line 4, id: another entry has this id", caught.exception.faults)


class Hostile(ImportCase):
    def lines(self):
        return "".join(json.dumps(one) + "\n" for one in self.as_lines())

    def with_member(self, name, content=b"x"):
        return self.zipped([("logbook.jsonl", self.lines()), (name, content)])

    def test_names_that_lead_elsewhere_or_belong_to_no_export(self):
        for name in ("../evil", "/etc/evil", "pictures/../evil", "a\\b", "run.sh", "schema/x.py", "pictures/evil.html"):
            with self.subTest(name):
                self.assertIn("does not belong into", self.refused(self.with_member(name)))

    def test_links_and_locked_members(self):
        link = zipfile.ZipInfo(f"pictures/{'a' * 64}.jpg")
        link.external_attr = 0o120777 << 16
        self.assertIn("a link", self.refused(self.with_member(link, "/etc/passwd")))
        locked = self.exported()
        data = bytearray(locked.read_bytes())
        at = data.rindex(b"PK\x01\x02")
        data[at + 8] |= 1
        locked.write_bytes(data)
        self.assertIn("locked by a password", self.refused(locked))

    def test_bombs(self):
        self.assertIn("far more", self.refused(self.with_member(f"pictures/{'a' * 64}.jpg", bytes(20_000_000))))
        long = self.zipped([("logbook.jsonl", self.lines()[:50] + "x" * 900_000)])
        self.assertIn("line 1: longer than", self.refused(long))

    def test_a_picture_that_is_none_or_another(self):
        for content, why in ((b"<svg onload=alert(1)>", "no picture"), (DATA + b"x", "not what its entry says")):
            file = self.with_member(f"pictures/{self.sha256}.jpg", content)
            (first,) = self.faults(file)
            self.assertIn(why, first)

    def test_what_is_no_file_of_this_kind(self):
        for content, why in ((b"PK\x03\x04rubbish", "cannot be read"), (b"", "no entry")):
            file = self.root / "x.zip"
            file.write_bytes(content)
            self.assertIn(why, self.refused(file))
        self.assertIn("no logbook.jsonl", self.refused(self.zipped([("README.txt", "x")])))
        for said in ({"format": "else"}, {"format": "hakutsu logbook", "version": 99}, []):
            file = self.with_member("manifest.json", json.dumps(said))
            self.assertRegex(self.refused(file), "not that of a logbook|newer version")

    def test_an_export_cut_off_or_damaged_is_refused_and_leaves_nothing(self):
        whole = self.exported().read_bytes()
        for cut in (len(whole) // 4, len(whole) // 2, len(whole) - 10):
            file = self.root / "cut.zip"
            file.write_bytes(whole[:cut])
            self.refused(file)
        data = bytearray(whole)
        at = whole.index(DATA[:64]) + 500
        data[at : at + 40] = b"\xff" * 40
        file.write_bytes(data)
        with self.assertRaises((BundleRefused, NotImported)):
            self.take(file)
        self.nothing_stored()
