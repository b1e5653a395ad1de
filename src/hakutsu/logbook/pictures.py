"""Picture files: originals byte for byte, named by their SHA-256, and scaled copies without any of their data."""

from __future__ import annotations

import hashlib
import logging
import os
import threading
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path
from tempfile import NamedTemporaryFile
from typing import IO

import pi_heif
from PIL import Image, ImageOps, UnidentifiedImageError

from hakutsu.entries.pictures import PictureKind
from hakutsu.logbook.files import PART, make_directory, sync_directory

MOST_STILL = 40 * 1024 * 1024
MOST_CLIP = 200 * 1024 * 1024
MOST_PIXELS = 60_000_000
SIZES = (400, 1600)
STILLS = {"JPEG": "image/jpeg", "MPO": "image/jpeg", "PNG": "image/png", "WEBP": "image/webp", "HEIF": "image/heic"}
FORMATS = ("JPEG", "PNG", "WEBP", "HEIF")  # the only decoders that are ever reached; several pictures come as JPEG
SUFFIXES = {
    "image/jpeg": {"jpg", "jpeg", "jpe", "mpo"}, "image/png": {"png"}, "image/webp": {"webp"},
    "image/heic": {"heic", "heif", "hif"}, "video/mp4": {"mp4", "m4v", "mov"}, "video/webm": {"webm"},
    "audio/mpeg": {"mp3"}, "audio/ogg": {"ogg", "oga", "opus"}, "audio/wav": {"wav"}, "audio/mp4": {"m4a"},
}  # fmt: skip

_log = logging.getLogger("hakutsu.pictures")
pi_heif.register_heif_opener()
Image.MAX_IMAGE_PIXELS = None  # our own limit is checked before anything is decoded


class PictureRefused(ValueError):
    """A file that cannot be kept, and why."""


@dataclass(frozen=True, slots=True)
class StoredFile:
    """A file that is kept: its hash, kind, type, bytes and, of a still, pixels."""

    sha256: str
    kind: PictureKind
    mime: str
    size: int
    width: int = 0
    height: int = 0


class Incoming:
    """A file on its way in: written beside the others, and nothing until it is whole and known."""

    def __init__(self, file: IO[bytes], files: PictureFiles) -> None:
        self._file, self._files = file, files
        self._hash = hashlib.sha256()
        self.size = 0
        self.fresh = False  # whether nothing with these bytes was kept before

    def write(self, chunk: bytes) -> None:
        """Take the next bytes.

        Raises
        ------
        PictureRefused
            If the file grows too large.
        """
        self.size += len(chunk)
        if self.size > MOST_CLIP:
            raise PictureRefused(f"larger than {MOST_CLIP // 1024 // 1024} MB")
        self._hash.update(chunk)
        self._file.write(chunk)

    def keep(self, name: str, expected: tuple[str, str] | None = None) -> StoredFile:
        """Check the file and keep it, durable when this returns; the same bytes twice are kept once.

        `expected` are the SHA-256 and type it must have, where something says so already.

        Raises
        ------
        PictureRefused
            If it is no picture, clip or sound, broken, too large, or not what its name says.
        """
        if not self.size:
            raise PictureRefused("the file is empty")
        self._file.flush()
        os.fsync(self._file.fileno())
        found = recognise(Path(self._file.name), name, self._hash.hexdigest(), self.size)
        if expected is not None and (found.sha256, found.mime) != expected:
            raise PictureRefused("it is not what its entry says it is")
        target = self._files.original(found.sha256)
        make_directory(target.parent)
        self.fresh = not target.exists()
        Path(self._file.name).replace(target)
        sync_directory(target.parent)
        return found


def recognise(path: Path, name: str, sha256: str, size: int) -> StoredFile:
    """What a file is, by its content; its name must not say otherwise.

    Raises
    ------
    PictureRefused
        With the reason.
    """
    with path.open("rb") as file:
        head = file.read(64)
    mime = _clip(head)
    if mime is not None:
        _check_name(name, mime)
        kind = PictureKind.CLIP if mime.startswith("video") else PictureKind.SOUND
        return StoredFile(sha256, kind, mime, size)
    if size > MOST_STILL:
        raise PictureRefused(f"a picture may have up to {MOST_STILL // 1024 // 1024} MB")
    try:
        with Image.open(path, formats=FORMATS) as image:
            mime = STILLS[image.format or ""]
            width, height = image.size
            if width * height > MOST_PIXELS:
                raise PictureRefused(f"{width} × {height} pixels; up to 60 million are taken")
            _check_name(name, mime)
            image.load()
    except UnidentifiedImageError as error:
        raise PictureRefused("no picture, clip or sound that is kept here: use JPEG, PNG, WebP or HEIC") from error
    except PictureRefused:
        raise
    except Exception as error:  # decoders raise whatever they met
        raise PictureRefused("the picture is broken: it cannot be read to its end") from error
    return StoredFile(sha256, PictureKind.STILL, mime, size, width, height)


def _clip(head: bytes) -> str | None:
    """Type of a clip or sound by its first bytes; none for anything else."""
    if head[4:8] == b"ftyp" and head[8:12] not in (b"heic", b"heix", b"mif1", b"msf1", b"hevc", b"avif"):
        return "audio/mp4" if head[8:11] == b"M4A" else "video/mp4"
    if head[:4] == b"\x1a\x45\xdf\xa3":
        return "video/webm"
    if head[:3] == b"ID3" or (head[:1] == b"\xff" and head[1:2] in (b"\xfb", b"\xf3", b"\xf2")):
        return "audio/mpeg"
    if head[:4] == b"OggS":
        return "audio/ogg"
    return "audio/wav" if head[:4] == b"RIFF" and head[8:12] == b"WAVE" else None


def _check_name(name: str, mime: str) -> None:
    suffix = name.rpartition(".")[2].lower() if "." in name else ""
    known = {one for suffixes in SUFFIXES.values() for one in suffixes}
    if suffix in known and suffix not in SUFFIXES[mime]:
        raise PictureRefused(f"its name ends in .{suffix}, its content is {mime}")


class PictureFiles:
    """The files of one data directory, and the making of their copies in the background."""

    def __init__(self, root: Path) -> None:
        self.root = root
        self._pool = ThreadPoolExecutor(max_workers=1, thread_name_prefix="copies")
        self._waiting: set[str] = set()
        self._failed: set[str] = set()
        self._lock = threading.Lock()
        if not os.access(root if root.exists() else root.parent, os.W_OK):
            return  # where nothing can be written there is nothing to clear
        for folder in ("incoming", "originals", "copies"):
            make_directory(root / folder)
        # What a crash left half written.
        for left in (*(root / "incoming").iterdir(), *(root / "copies").glob(f"*/*{PART}")):
            left.unlink(missing_ok=True)

    def original(self, sha256: str) -> Path:
        """Where an original lies."""
        return self.root / "originals" / sha256[:2] / sha256

    def forget(self, sha256: str) -> None:
        """Take an original out again that no entry names."""
        self.original(sha256).unlink(missing_ok=True)

    @contextmanager
    def receive(self) -> Iterator[Incoming]:
        """Take a file in; whatever goes wrong leaves nothing behind."""
        with NamedTemporaryFile(dir=self.root / "incoming", delete=False) as file:
            try:
                yield Incoming(file, self)
            finally:
                Path(file.name).unlink(missing_ok=True)

    def copy(self, sha256: str, size: int) -> Path | None:
        """A scaled copy, or none while it is not made yet; asking for it has it made."""
        path = self._copy_path(sha256, size)
        if path.exists():
            return path
        self.want(sha256)
        return None

    def _copy_path(self, sha256: str, size: int) -> Path:
        return self.root / "copies" / sha256[:2] / f"{sha256}-{size}.jpg"

    def want(self, sha256: str) -> None:
        """Have the copies of a still made in the background, once."""
        with self._lock:
            if sha256 in self._waiting or sha256 in self._failed:
                return
            self._waiting.add(sha256)
        self._pool.submit(self._make, sha256)

    @property
    def failed(self) -> frozenset[str]:
        """Pictures whose copies could not be made."""
        return frozenset(self._failed)

    @property
    def waiting(self) -> int:
        """How many pictures wait for their copies."""
        return len(self._waiting)

    def _make(self, sha256: str) -> None:
        try:
            make_copies(self.original(sha256), {size: self._copy_path(sha256, size) for size in SIZES})
        except Exception:  # gone, unreadable, or a decoder that met what it did not expect: the page says so
            _log.exception("no copies of %s", sha256)
            self._failed.add(sha256)
        finally:
            with self._lock:
                self._waiting.discard(sha256)

    def close(self) -> None:
        """Stop making copies; what is begun is finished, the rest is made when asked for again."""
        self._pool.shutdown(wait=True, cancel_futures=True)


def _upright(image: Image.Image) -> Image.Image:
    try:
        return ImageOps.exif_transpose(image)
    except Exception:  # damaged data beside a sound picture: it is shown as it lies
        _log.info("the data of a picture cannot be read")
        return image


def make_copies(original: Path, copies: dict[int, Path]) -> None:
    """Scale a still to fit squares of the given sizes [pixels], upright, without any data of the original."""
    with Image.open(original) as image:
        image.draft("RGB", (2 * max(copies), 2 * max(copies)))
        upright = _upright(image).convert("RGB")
    for size in sorted(copies, reverse=True):
        upright.thumbnail((size, size), Image.Resampling.LANCZOS, reducing_gap=2.0)
        target = copies[size]
        target.parent.mkdir(parents=True, exist_ok=True)
        with NamedTemporaryFile(dir=target.parent, suffix=PART, delete=False) as file:
            Image.frombytes("RGB", upright.size, upright.tobytes()).save(file, "JPEG", quality=82)
        Path(file.name).replace(target)
