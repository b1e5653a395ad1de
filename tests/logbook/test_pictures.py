import hashlib
import tempfile
import time
import unittest
from io import BytesIO
from pathlib import Path
from unittest.mock import patch

from PIL import Image

from hakutsu.demo.pictures import MARKS, sample_picture
from hakutsu.entries.pictures import PictureKind
from hakutsu.logbook.pictures import PictureFiles, PictureRefused, make_copies

SMALL = (320, 240)
SAMPLES = Path(__file__).parent / "samples"
MP4 = b"\x00\x00\x00\x18ftypmp42\x00\x00\x00\x00mp42isom" + bytes(200)
WEBM = b"\x1a\x45\xdf\xa3" + bytes(200)


class FilesCase(unittest.TestCase):
    def setUp(self):
        directory = tempfile.TemporaryDirectory()
        self.addCleanup(directory.cleanup)
        self.root = Path(directory.name) / "pictures"
        self.files = PictureFiles(self.root)
        self.addCleanup(lambda: self.files.close())

    def keep(self, data, name="a.jpg"):
        with self.files.receive() as incoming:
            for start in range(0, len(data), 7000):
                incoming.write(data[start : start + 7000])
            return incoming.keep(name)

    def lying_about(self):
        return sorted(path.name for path in (self.root / "incoming").iterdir())


class Kept(FilesCase):
    def test_originals_are_kept_byte_for_byte_under_their_hash(self):
        data = sample_picture(size=SMALL)
        kept = self.keep(data)
        self.assertEqual(kept.sha256, hashlib.sha256(data).hexdigest())
        self.assertEqual(self.files.original(kept.sha256).read_bytes(), data)
        self.assertEqual((kept.width, kept.height, kept.mime), (*SMALL, "image/jpeg"))
        self.assertEqual(self.keep(data, "again.jpg"), kept)
        self.assertEqual(self.lying_about(), [])

    def test_every_format_that_is_taken(self):
        for format, name, mime in (
            ("PNG", "a.png", "image/png"),
            ("WEBP", "a.webp", "image/webp"),
            ("JPEG", "A.JPEG", "image/jpeg"),
        ):
            with self.subTest(format):
                self.assertEqual(self.keep(sample_picture(size=SMALL, format=format), name).mime, mime)
        kept = self.keep((SAMPLES / "small.heic").read_bytes(), "a.heic")  # nothing we ship writes this format
        self.assertEqual((kept.mime, kept.width, kept.height), ("image/heic", *SMALL))

    def test_a_jpeg_of_several_pictures_is_its_first(self):
        first, second = (Image.new("RGB", size, "grey") for size in (SMALL, (64, 48)))
        out = BytesIO()
        first.save(out, "MPO", save_all=True, append_images=[second])
        kept = self.keep(out.getvalue())
        self.assertEqual((kept.mime, kept.width), ("image/jpeg", 320))

    def test_clips_and_sound_by_their_first_bytes(self):
        for data, name, kind, mime in (
            (MP4, "a.mp4", PictureKind.CLIP, "video/mp4"),
            (WEBM, "a.webm", PictureKind.CLIP, "video/webm"),
            (b"ID3" + bytes(99), "a.mp3", PictureKind.SOUND, "audio/mpeg"),
            (b"RIFF\x00\x00\x00\x00WAVE" + bytes(99), "a.wav", PictureKind.SOUND, "audio/wav"),
        ):
            kept = self.keep(data, name)
            self.assertEqual((kept.kind, kept.mime), (kind, mime))

    def test_sample_pictures_are_the_same_every_time_and_differ_by_mark(self):
        drawn = {mark: sample_picture(mark=mark, size=SMALL) for mark in MARKS}
        self.assertEqual(len(set(drawn.values())), len(MARKS))
        self.assertEqual(drawn["dent"], sample_picture(mark="dent", size=SMALL))


class Refused(FilesCase):
    def refused(self, data, name, why):
        with self.assertRaises(PictureRefused) as caught:
            self.keep(data, name)
        self.assertIn(why, str(caught.exception))
        self.assertEqual(self.lying_about(), [])
        self.assertEqual(list((self.root / "originals").rglob("*")), [])

    def test_what_is_no_picture_broken_empty_or_named_otherwise(self):
        good = sample_picture(size=SMALL)
        for data, name, why in (
            (b"hello, I am a text", "a.jpg", "no picture"),
            (b"", "a.jpg", "empty"),
            (good[: len(good) // 2], "a.jpg", "broken"),
            (good, "a.png", "its name ends in .png, its content is image/jpeg"),
            (MP4, "a.jpg", "its content is video/mp4"),
            (sample_picture(size=(8, 8), format="BMP"), "a.bmp", "no picture"),
            (sample_picture(size=(8, 8), format="DDS"), "a.dds", "no picture"),
        ):
            with self.subTest(why):
                self.refused(data, name, why)

    def test_too_many_pixels_are_refused_before_they_are_decoded(self):
        out = BytesIO()
        Image.new("1", (10_000, 6_001)).save(out, "PNG")
        self.refused(out.getvalue(), "a.png", "10000 × 6001 pixels")

    def test_a_still_of_more_than_forty_megabytes(self):
        out = BytesIO()
        Image.new("RGB", (4000, 3600)).save(out, "PNG", compress_level=0)
        self.refused(out.getvalue(), "a.png", "up to 40 MB")

    def test_too_many_bytes(self):
        with self.files.receive() as incoming, self.assertRaises(PictureRefused):
            incoming.write(bytes(210 * 1024 * 1024))
        self.assertEqual(self.lying_about(), [])

    def test_a_crash_in_the_middle_leaves_no_half_file(self):
        with self.assertRaises(RuntimeError), self.files.receive() as incoming:
            incoming.write(b"\xff\xd8half")
            raise RuntimeError("power cut")
        self.assertEqual(self.lying_about(), [])
        (self.root / "incoming" / "killed").write_bytes(b"left by a process that died")
        self.files.close()
        self.files = PictureFiles(self.root)
        self.assertEqual(self.lying_about(), [])


class Copies(FilesCase):
    def test_copies_are_small_upright_and_without_any_data(self):
        exif = Image.Exif()
        exif[0x0112] = 6  # lies on its side
        exif.get_ifd(0x8825)[1] = "N"
        data = sample_picture(size=(800, 600), exif=exif.tobytes())
        kept = self.keep(data)
        targets = {size: self.root / f"{size}.jpg" for size in (400, 1600)}
        make_copies(self.files.original(kept.sha256), targets)
        with Image.open(targets[400]) as small, Image.open(targets[1600]) as large:
            self.assertEqual((small.size, large.size), ((300, 400), (600, 800)))
            self.assertEqual((len(small.getexif()), len(large.getexif())), (0, 0))
        self.assertIn(b"Exif", data)

    def test_they_are_made_in_the_background_once_asked_for(self):
        kept = self.keep(sample_picture(size=SMALL))
        self.assertIsNone(self.files.copy(kept.sha256, 400))
        self.files.want(kept.sha256)
        while self.files.waiting:  # closing gives up what is not begun
            time.sleep(0.01)
        self.files.close()
        self.assertTrue(self.files.copy(kept.sha256, 400).exists())
        self.assertEqual(self.files.waiting, 0)


class Odd(FilesCase):
    def test_damaged_data_beside_a_sound_picture_is_no_fault_of_the_picture(self):
        for name in ("damaged-exif.heic", "upright.heic"):
            kept = self.keep((SAMPLES / name).read_bytes(), name)
            self.files._make(kept.sha256)
        self.assertEqual(self.files.failed, frozenset())
        self.assertTrue(self.files.copy(kept.sha256, 400).exists())

    def test_what_a_decoder_makes_of_damaged_bytes_is_a_refusal(self):
        whole = (SAMPLES / "small.heic").read_bytes()
        for at in range(0, len(whole) - 8, 37):
            try:
                self.keep(whole[:at] + b"\xff" * 8 + whole[at + 8 :], "a.heic")
            except PictureRefused:
                continue
        self.assertEqual(self.lying_about(), [])

    def test_half_copies_are_cleared_at_start(self):
        folder = self.root / "copies" / "ab"
        folder.mkdir()
        (folder / "tmp1234.part").write_bytes(b"half")
        whole = folder / f"{'ab' * 32}-400.jpg"
        whole.write_bytes(b"whole")
        PictureFiles(self.root).close()
        self.assertEqual(list(folder.iterdir()), [whole])

    def test_a_new_folder_is_synced_in_its_parent(self):
        with patch("hakutsu.logbook.files.sync_directory") as synced:
            kept = self.keep(sample_picture(size=SMALL))
        self.assertIn(self.root / "originals", [call.args[0] for call in synced.call_args_list])
        self.assertTrue(self.files.original(kept.sha256).exists())

    def test_copies_that_cannot_be_made_are_known(self):
        with self.assertLogs("hakutsu.pictures", "ERROR"):
            self.files._make("c" * 64)
        self.assertEqual(self.files.failed, {"c" * 64})
