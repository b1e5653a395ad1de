"""A file that claims to be an exported inspection, opened with care: names, links, sizes and kinds of what is in it."""

from __future__ import annotations

import json
import re
import stat
import zipfile
import zlib
from collections.abc import Iterator
from pathlib import Path
from typing import IO, Any

from hakutsu.exchange.bundle import FILM, FORMAT, FORMAT_VERSION, LOGBOOK, MANIFEST, MEASUREMENTS, README
from hakutsu.logbook.pictures import MOST_CLIP

LONGEST_LINE = 400_000
MOST_LINES = 50_000
MOST_MEMBERS = 20_000
MOST_LOGBOOK = 512 * 1024 * 1024
MOST_ALL = 8 * 1024**3
MOST_RATIO, RATIO_FROM = 300, 1024 * 1024  # what text may shrink to, and from which size on that is asked
_TEXTS = {LOGBOOK, MANIFEST, README, FILM, MEASUREMENTS}
_SCHEMA = re.compile(r"schema/[a-z_.]{1,80}\.json")
_PICTURE = re.compile(r"pictures/([0-9a-f]{64})(\.[a-z0-9]{1,5})?")
_BROKEN = (zipfile.BadZipFile, zlib.error, EOFError, OSError, RuntimeError, ValueError)


class BundleRefused(ValueError):
    """A file that is not taken in at all, and why."""


class BundleFile:
    """An exported inspection: lines of its logbook, and its pictures where it carries any; a context manager."""

    def __init__(self, path: Path) -> None:
        """Open a file and look at everything in it by name and size; nothing is unpacked.

        Raises
        ------
        BundleRefused
            If it is neither a zip file with a logbook nor JSON Lines, or holds what an export does not.
        """
        self._path = path
        self._zip: zipfile.ZipFile | None = None
        self._pictures: dict[str, zipfile.ZipInfo] = {}
        try:
            with path.open("rb") as file:
                head = file.read(4)
            if head[:2] == b"PK":
                self._zip = zipfile.ZipFile(path)
                self._look_at_members(self._zip)
        except _BROKEN as error:
            self.close()
            if isinstance(error, BundleRefused):
                raise
            raise BundleRefused(f"the file cannot be read: {_said(error)}") from error
        if self._zip is None and path.stat().st_size > MOST_LOGBOOK:
            raise BundleRefused("the file is too large for a logbook")

    def __enter__(self) -> BundleFile:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()

    def close(self) -> None:
        """Close the file."""
        if self._zip is not None:
            self._zip.close()

    def _look_at_members(self, archive: zipfile.ZipFile) -> None:
        members = archive.infolist()
        if len(members) > MOST_MEMBERS:
            raise BundleRefused(f"it holds {len(members):,} files; up to {MOST_MEMBERS:,} are taken")
        names = [one.filename for one in members]
        if twice := {name for name in names if names.count(name) > 1} if len(set(names)) < len(names) else set():
            raise BundleRefused(f"{min(twice)[:80]} is in it twice")
        if sum(one.file_size for one in members) > MOST_ALL:
            raise BundleRefused("it would unpack to more than 8 GB")
        for one in members:
            self._look_at(one)
        if LOGBOOK not in names:
            raise BundleRefused(f"there is no {LOGBOOK} in it: this is no exported inspection")

    def _look_at(self, member: zipfile.ZipInfo) -> None:
        name = member.filename
        picture = _PICTURE.fullmatch(name)
        if name not in _TEXTS and not _SCHEMA.fullmatch(name) and picture is None:
            raise BundleRefused(f"“{name[:80]}” does not belong into an exported inspection")
        mode = member.external_attr >> 16
        if mode and not stat.S_ISREG(mode) and stat.S_IFMT(mode):
            raise BundleRefused(f"“{name}” is a link or no plain file")
        if member.flag_bits & 0x1:
            raise BundleRefused(f"“{name}” is locked by a password")
        if member.compress_type not in (zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED):
            raise BundleRefused(f"“{name}” is packed in a way that is not read here")
        if member.file_size > (MOST_CLIP if picture else MOST_LOGBOOK):
            raise BundleRefused(f"“{name}” is too large")
        if member.file_size > RATIO_FROM and member.file_size > MOST_RATIO * max(member.compress_size, 1):
            raise BundleRefused(f"“{name}” unpacks to far more than it should")
        if picture:
            self._pictures[picture[1]] = member

    @property
    def pictures(self) -> frozenset[str]:
        """Hashes of the pictures it carries."""
        return frozenset(self._pictures)

    def picture(self, sha256: str) -> Iterator[bytes]:
        """A picture in pieces.

        Raises
        ------
        BundleRefused
            If it cannot be read to its end.
        """
        assert self._zip is not None
        try:
            with self._zip.open(self._pictures[sha256]) as file:
                while piece := file.read(1 << 20):
                    yield piece
        except _BROKEN as error:
            raise BundleRefused(f"picture {sha256} cannot be read: {_said(error)}") from error

    def manifest(self) -> dict[str, Any]:
        """What the file says of itself; empty of bare lines.

        Raises
        ------
        BundleRefused
            If it is of another format or of a newer version.
        """
        if self._zip is None or MANIFEST not in self._zip.namelist():
            return {}
        try:
            said = json.loads(self._zip.read(MANIFEST)[:100_000])
        except _BROKEN as error:
            raise BundleRefused(f"{MANIFEST} cannot be read: {_said(error)}") from error
        if not isinstance(said, dict) or said.get("format") != FORMAT:
            raise BundleRefused(f"{MANIFEST} is not that of a logbook")
        if said.get("version") != FORMAT_VERSION:
            raise BundleRefused("it was written by a newer version; update Hakutsu")
        return said

    def lines(self) -> Iterator[tuple[int, bytes]]:
        """Lines of the logbook with their numbers, blank ones left out.

        Raises
        ------
        BundleRefused
            If it cannot be read to its end, or a line or their number is too long.
        """
        try:
            with self._open_logbook() as file:
                for number in range(1, MOST_LINES + 2):
                    line = file.readline(LONGEST_LINE + 1)
                    if not line:
                        return
                    if number > MOST_LINES:
                        raise BundleRefused(f"more than {MOST_LINES:,} lines")
                    if len(line) > LONGEST_LINE:
                        raise BundleRefused(f"line {number}: longer than {LONGEST_LINE:,} bytes")
                    if line.strip():
                        yield number, line
        except _BROKEN as error:
            if isinstance(error, BundleRefused):
                raise
            raise BundleRefused(f"the logbook cannot be read: {_said(error)}") from error

    def _open_logbook(self) -> IO[bytes]:
        return self._path.open("rb") if self._zip is None else self._zip.open(LOGBOOK)


def _said(error: BaseException) -> str:
    return str(error) or type(error).__name__
