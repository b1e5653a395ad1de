"""What tests of exported inspections share: a data directory with one full inspection, and files made of it."""

import json
import tempfile
import unittest
import zipfile
from pathlib import Path
from uuid import UUID, uuid5

from hakutsu.demo.pictures import sample_picture
from hakutsu.entries import Draft, kinds
from hakutsu.entries.general import Strike
from hakutsu.entries.pictures import Picture
from hakutsu.entries.registry import belongs
from hakutsu.exchange.bundle import as_line, export_bundle, lines
from hakutsu.logbook.pictures import PictureFiles
from tests.builders import NOON, logbook_in, opened, reading
from tests.entries.test_entries import SAMPLES

OURS = UUID("0b9f4a1c-8f3e-4a55-9d0e-5b8f4a1c0007")
DATA = sample_picture(size=(320, 240))


def samples():
    """An entry of every kind, where it may lie."""
    for kind in kinds().values():
        if kind.by_upload or kind.name.startswith(("test.", "general.strike", "inspection.")):
            continue
        place = next(place for place in (None, "roof", "wheel_front_left") if belongs(kind.name, place))
        body = SAMPLES[f"{kind.name}/{kind.version}"]
        yield Draft(id=uuid5(OURS, kind.name), at=NOON, kind=kind.name, version=kind.version, body=body, place=place)


class BundleCase(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.root = Path(directory.name)
        self.logbook, self.pictures = self.directory("data")
        self.inspection = opened(self.logbook, name="Pellin Mote – Ø")
        first = reading("roof", 118)
        self.logbook.append(self.inspection, [first, reading("roof", 121, u=0.5, v=0.25)], "Ada")
        self.logbook.append(self.inspection, [Draft.write("general.strike", Strike(), NOON, strikes=first.id)], "Ina")
        self.logbook.append(self.inspection, list(samples()), "Ísla Hallvard")
        self.sha256 = self.keep_picture()

    def directory(self, name):
        place = self.root / name
        place.mkdir()
        files = PictureFiles(place / "pictures")
        self.addCleanup(files.close)
        return logbook_in(str(place)), files

    def keep_picture(self):
        with self.pictures.receive() as incoming:
            incoming.write(DATA)
            kept = incoming.keep("sill.jpg")
        body = Picture(sha256=kept.sha256, name="sill.jpg", mime=kept.mime, size=kept.size, width=320, height=240)
        self.logbook.append(self.inspection, [Draft.write("picture.taken", body, NOON, place="roof")], "Ada")
        return kept.sha256

    def exported(self, name="out.zip"):
        target = self.root / name
        self.assertEqual(export_bundle(self.logbook, self.pictures, self.inspection, target), [])
        return target

    def as_lines(self):
        return [json.loads(as_line(one)) for one in lines(self.logbook, self.inspection)]

    def written(self, lines, name="out.jsonl"):
        """A file of lines: entries, or texts as they are."""
        target = self.root / name
        target.write_text("".join(one if isinstance(one, str) else as_line(one) for one in lines), encoding="utf-8")
        return target

    def zipped(self, members, name="made.zip"):
        target = self.root / name
        with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as out:
            for member, content in members:
                out.writestr(member, content)
        return target
